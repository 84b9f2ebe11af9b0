import { machineList } from '#server/services/settings'

export default route((_, context) => machineList(context))
