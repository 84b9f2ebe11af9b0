import { LABEL_TEMPLATES } from '#server/labels/templates'

export default route(() => LABEL_TEMPLATES)
