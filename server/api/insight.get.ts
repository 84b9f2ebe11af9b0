import { insightQuery } from '#shared/contracts'
import { insightPage } from '#server/services/insight'

export default route((event, context) => insightPage(context, readQuery(event, insightQuery)))
