export { parseWeight, formatWeight, gramsIn, type WeightUnit, type ParsedQuantity } from './weight'
export { parseLength, formatLength } from './length'
export { formatTemperature, temperatureFrom, temperatureIn, type TemperatureUnit } from './temperature'
export { formatHours, formatShare } from './words'
