import { NotFound } from '#server/services/refusals'

/** Addresses and verbs that are not there are refused in the same words as the rest, not with a page. */
export default route(event => {
  throw new NotFound('path', `${event.method} ${event.path.split('?')[0]} is not an address of Dulse.`)
})
