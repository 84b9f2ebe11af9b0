import { newRunEntry } from '#shared/contracts'
import { logOnRun } from '#server/services/writeLog'

export default route(async (event, context) => logOnRun(context, idParam(event, 'runId'), await readInput(event, newRunEntry)))
