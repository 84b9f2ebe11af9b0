import { newEntry } from '#shared/contracts'
import { logEntry } from '#server/services/writeLog'

export default route(async (event, context) => logEntry(context, idParam(event, 'batchId'), await readInput(event, newEntry)))
