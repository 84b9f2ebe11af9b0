import { convert } from 'convert'

export type TemperatureUnit = 'C' | 'F'

/** Celsius in the unit of the household, not rounded. */
export function temperatureIn(celsius: number, unit: TemperatureUnit): number {
  return unit === 'C' ? celsius : convert(celsius, 'C').to('F')
}

/** A figure in the household's unit to Celsius. */
export function temperatureFrom(value: number, unit: TemperatureUnit): number {
  return unit === 'C' ? value : convert(value, 'F').to('C')
}

/** "57 °C" or "135 °F". */
export function formatTemperature(celsius: number, unit: TemperatureUnit): string {
  return `${Math.round(temperatureIn(celsius, unit))}\u00A0°${unit}`
}
