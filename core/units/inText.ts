import { formatLength } from './length'
import { temperatureIn, type TemperatureUnit } from './temperature'
import { formatVolume } from './volume'
import { formatWeight, type WeightUnit } from './weight'

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

const SPACE = '[ \u00A0]'
const FIGURE = String.raw`\d+(?:[.,]\d+)?`
/** Lengths, weights and volumes as the reference writes them: a figure, or two of a range, a space and the unit. */
const LENGTH = new RegExp(`(${FIGURE})(?:( to |–)(${FIGURE}))?${SPACE}(mm|cm)(?![\\p{L}²³/])`, 'gu')
const WEIGHT = new RegExp(`(${FIGURE})(?:( to |–)(${FIGURE}))?${SPACE}(g|kg)(?![\\p{L}²³/])`, 'gu')
const VOLUME = new RegExp(`(${FIGURE})(?:( to |–)(${FIGURE}))?${SPACE}(mL|L)(?![\\p{L}²³/])`, 'gu')
const PER_LITRE = new RegExp(`(${FIGURE})${SPACE}g( of [^.,;]+?)? a litre`, 'gu')
const PER_AREA = new RegExp(`(${FIGURE})(?:( to |–| ± )(${FIGURE}))?${SPACE}kg on a square metre`, 'gu')
const numberOf = (text: string) => Number(text.replace(',', '.'))

/**
 * A sentence with every figure in the household's units: "6 mm slices" as "1/4 in slices", "at 57 °C" as "at 135 °F", "5 g a litre" by the
 * quart. Whoever has metric units reads it as it was written.
 */
export function measuresIn(
  text: string,
  { weightUnit, temperatureUnit }: { weightUnit: WeightUnit; temperatureUnit: TemperatureUnit },
): string {
  const warm = temperaturesIn(text, temperatureUnit)
  if (weightUnit === 'g') return warm
  const each = (write: (value: number) => string) => (low: string, between?: string, high?: string) => {
    const [first, second] = [write(numberOf(low)), high === undefined ? undefined : write(numberOf(high))]
    return second === undefined || second === first ? first : `${first}${between === '–' ? ' to ' : between}${second}`
  }
  const scaled = (unit: string, large: string) => (unit === large ? 1000 : 1)
  return warm
    .replace(PER_LITRE, (_, grams: string, of = '') => `${formatWeight(numberOf(grams) * LITRES_A_QUART, 'oz')}${of} a quart`)
    .replace(
      PER_AREA,
      (_, low: string, between?: string, high?: string) =>
        `${each(kg => (kg * LB_SQ_FT).toFixed(1))(low, between, high)}\u00A0lb on a square foot`,
    )
    .replace(LENGTH, (_, low: string, between: string | undefined, high: string | undefined, unit: string) =>
      each(value => formatLength(unit === 'cm' ? 10 * value : value, 'oz'))(low, between, high),
    )
    .replace(WEIGHT, (_, low: string, between: string | undefined, high: string | undefined, unit: string) =>
      each(value => formatWeight(scaled(unit, 'kg') * value, 'oz'))(low, between, high),
    )
    .replace(VOLUME, (_, low: string, between: string | undefined, high: string | undefined, unit: string) =>
      each(value => formatVolume(scaled(unit, 'L') * value, 'oz'))(low, between, high),
    )
}
const LITRES_A_QUART = 0.946352946
/** Pounds on a square foot for a kilogram on a square metre. */
const LB_SQ_FT = 0.204816
