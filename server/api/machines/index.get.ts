import { machineList } from '#server/services/machines'

export default route((_, context) => machineList(context))
