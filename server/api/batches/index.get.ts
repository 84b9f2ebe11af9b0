import { listQuery } from '#shared/contracts'
import { batchList } from '#server/services/pages'

export default route((event, context) => batchList(context, readQuery(event, listQuery)))
