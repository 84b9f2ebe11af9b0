import { compareQuery } from '#shared/contracts'
import { comparedRuns } from '#server/services/compare'

export default route((event, context) => comparedRuns(context, readQuery(event, compareQuery)))
