import { foodParts } from '#server/services/foods'

export default route(() => foodParts())
