import { temperatureIn, type TemperatureUnit } from './temperature'

const RANGE = /(−?\d+(?:\.\d+)?)( to |–| and )(−?\d+(?:\.\d+)?)([ \u00A0])°C/g
const ONE = /(−?\d+(?:\.\d+)?)([ \u00A0])°C(?: \(\d+ °F\))?/g

/** From here on a heat is an oven's, °C, and told to the nearest of its steps, °F. */
const OVEN_C = 140
const OVEN_STEP_F = 25

/** A sentence of the reference with its temperatures in the household's unit: "120 °C" as "248 °F". */
export function temperaturesIn(text: string, unit: TemperatureUnit): string {
  if (unit === 'C') return text
  const write = (celsius: string) => {
    const degrees = temperatureIn(Number(celsius.replace('−', '-')), unit)
    // Ovens are set in steps: 175 °C is 350 °F to whoever roasts.
    const step = Number(celsius) >= OVEN_C ? OVEN_STEP_F : 1
    return String(step * Math.round(degrees / step)).replace('-', '−')
  }
  return text
    .replace(RANGE, (_, low: string, between: string, high: string) => `${write(low)}${between}${write(high)}\u00A0°F`)
    .replace(ONE, (_, celsius: string) => `${write(celsius)}\u00A0°F`)
}
