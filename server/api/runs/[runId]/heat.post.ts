import { newHeat } from '#shared/contracts'
import { changeHeat } from '#server/services/writeLog'

export default route(async (event, context) => changeHeat(context, idParam(event, 'runId'), await readInput(event, newHeat)))
