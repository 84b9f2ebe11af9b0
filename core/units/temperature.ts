import { FACTORS } from './factors'

export type TemperatureUnit = 'C' | 'F'

/** Celsius in the unit of the household, not rounded. */
export function temperatureIn(celsius: number, unit: TemperatureUnit): number {
  return unit === 'C' ? celsius : celsius * FACTORS.fahrenheit.perDegree + FACTORS.fahrenheit.at
}

/** A figure in the household's unit to Celsius. */
export function temperatureFrom(value: number, unit: TemperatureUnit): number {
  return unit === 'C' ? value : (value - FACTORS.fahrenheit.at) / FACTORS.fahrenheit.perDegree
}

/** A difference of temperatures in so many degrees of the unit: 10 K are "10 °C" or "18 °F". */
export function formatDegrees(kelvin: number, unit: TemperatureUnit, digits = 0): string {
  const degrees = unit === 'C' ? kelvin : kelvin * FACTORS.fahrenheit.perDegree
  return `${Number(degrees.toFixed(digits))}\u00A0°${unit}`
}

/** "57 °C" or "135 °F". */
export function formatTemperature(celsius: number, unit: TemperatureUnit): string {
  return `${Math.round(temperatureIn(celsius, unit))}\u00A0°${unit}`
}
