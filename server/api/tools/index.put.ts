import { toolSettings } from '#shared/contracts'
import { saveTool } from '#server/services/tools'

export default route(async (event, context) => saveTool(context, await readInput(event, toolSettings)))
