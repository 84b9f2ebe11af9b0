import { trialQuery } from '#shared/contracts'
import { trialPage } from '#server/services/insight'

export default route((event, context) => trialPage(context, readQuery(event, trialQuery).batches))
