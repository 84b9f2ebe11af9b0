import { householdChange } from '#shared/contracts'
import { changeHousehold } from '#server/services/settings'

export default route(async (event, context) => changeHousehold(context, await readInput(event, householdChange)))
