import { deviceSettings } from '#shared/contracts'
import { saveDevice } from '#server/services/devices'

export default route(async (event, context) => saveDevice(context, await readInput(event, deviceSettings)))
