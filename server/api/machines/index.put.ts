import { machineSettings } from '#shared/contracts'
import { saveMachine } from '#server/services/settings'

export default route(async (event, context) => saveMachine(context, await readInput(event, machineSettings)))
