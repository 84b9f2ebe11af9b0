import * as z from 'zod'
import { removeOwn } from '#server/services/foods'

const query = z.object({ card: z.string().max(80).optional() })

/** Takes an own food away, or one of its own cards. */
export default route((event, context) => {
  removeOwn(context, getRouterParam(event, 'foodKey') ?? '', readQuery(event, query).card)
  return { removed: true }
})
