import { boughtInQuestion } from '#shared/contracts'
import { forecastBoughtIn } from '#server/services/forecast'

export default route((event, context) => forecastBoughtIn(context, readQuery(event, boughtInQuestion)))
