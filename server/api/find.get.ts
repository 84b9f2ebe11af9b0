import { findQuery } from '#shared/contracts'
import { findAnything } from '#server/services/pages'

export default route((event, context) => findAnything(context, readQuery(event, findQuery).q))
