import { forecastQuestion } from '#shared/contracts'
import { forecast } from '#server/services/forecast'

export default route((event, context) => forecast(context, readQuery(event, forecastQuestion)))
