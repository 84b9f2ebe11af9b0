import { ownCardSource } from '#shared/contracts'
import { saveCard } from '#server/services/foods'

export default route(async (event, context) => saveCard(context, await readInput(event, ownCardSource)))
