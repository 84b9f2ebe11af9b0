import { deviceList } from '#server/services/devices'

export default route((_, context) => deviceList(context))
