import { foodWish } from '#shared/contracts'
import { saveWish } from '#server/services/shelf'

export default route(async (event, context) => saveWish(context, await readInput(event, foodWish)))
