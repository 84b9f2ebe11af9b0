import { newBatch } from '#shared/contracts'
import { startBatch } from '#server/services/writeLog'

export default route(async (event, context) => startBatch(context, await readInput(event, newBatch)))
