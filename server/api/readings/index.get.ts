import { readingsQuery } from '#shared/contracts'
import { readingSeries } from '#server/services/devices'

export default route((event, context) => readingSeries(context, readQuery(event, readingsQuery)))
