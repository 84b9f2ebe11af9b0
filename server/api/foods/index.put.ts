import * as z from 'zod'
import { foodSource } from '#shared/contracts'
import { saveFood } from '#server/services/foods'

const input = z.strictObject({ food: foodSource, version: z.number().int().min(1).optional() })

export default route(async (event, context) => {
  const { food, version } = await readInput(event, input)
  return saveFood(context, food, version)
})
