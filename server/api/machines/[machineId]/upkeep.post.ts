import { upkeepDone } from '#shared/contracts'
import { noteUpkeep } from '#server/services/machines'

export default route(async (event, context) => noteUpkeep(context, idParam(event, 'machineId'), await readInput(event, upkeepDone)))
