import { temperatureIn, type TemperatureUnit } from './temperature'

const RANGE = /(−?\d+)( to |–| and )(−?\d+)([ \u00A0])°C/g
const ONE = /(−?\d+)([ \u00A0])°C(?: \(\d+ °F\))?/g

/** A sentence of the reference with its temperatures in the household's unit: "120 °C" as "248 °F". */
export function temperaturesIn(text: string, unit: TemperatureUnit): string {
  if (unit === 'C') return text
  const write = (celsius: string) => String(Math.round(temperatureIn(Number(celsius.replace('−', '-')), unit))).replace('-', '−')
  return text
    .replace(RANGE, (_, low: string, between: string, high: string) => `${write(low)}${between}${write(high)}\u00A0°F`)
    .replace(ONE, (_, celsius: string) => `${write(celsius)}\u00A0°F`)
}
