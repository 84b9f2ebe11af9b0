import { forecastQuestion } from '#shared/contracts'
import { forecastAlternatives } from '#server/services/forecast'

export default route((event, context) => forecastAlternatives(context, readQuery(event, forecastQuestion)))
