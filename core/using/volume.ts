import { numberOf, type ParsedQuantity } from '../units'
import { volumeOf, type MeasureSystem } from './measures'

const SIGNS: Record<string, string> = { '½': ' 1/2', '⅓': ' 1/3', '⅔': ' 2/3', '¼': ' 1/4', '¾': ' 3/4', '⅛': ' 1/8' }
const VOLUME =
  /^(\d+\s+\d+\/\d+|\d+\/\d+|\d+(?:[.,]\d+)?|[.,]\d+)\s*(cups?|c|tablespoons?|tbsps?|teaspoons?|tsps?|ml|dl|l|litres?|liters?)\.?$/i
const VESSELS: [RegExp, 'cup' | 'tablespoon' | 'teaspoon'][] = [
  [/^c(?:ups?)?$/i, 'cup'],
  [/^t(?:able|bs)/i, 'tablespoon'],
  [/^t(?:ea|sp)/i, 'teaspoon'],
]
const METRIC: [RegExp, number][] = [
  [/^ml$/i, 1],
  [/^dl$/i, 100],
  [/^l/i, 1000],
]
const MOST_ML = 1_000_000

/**
 * Reads a volume as a cook says it: "2 cups", "1½ tbsp", "1/2 tsp", "250 mL".
 * @returns millilitres; undefined where it is not a volume at all, so that it may be a weight
 */
export function parseVolume(text: string, system: MeasureSystem): ParsedQuantity | undefined {
  const match = VOLUME.exec(
    text
      .trim()
      .replace(/[½⅓⅔¼¾⅛]/g, sign => SIGNS[sign]!)
      .trim(),
  )
  if (!match) return undefined
  const [, amount, unit] = match as unknown as [string, string, string]
  const vessel = VESSELS.find(([names]) => names.test(unit))?.[1]
  const ml = numberOf(amount) * (vessel ? volumeOf(1, vessel, system) : METRIC.find(([names]) => names.test(unit))![1])
  if (!(ml > 0)) return { problem: 'A volume must be above zero.' }
  return ml > MOST_ML ? { problem: 'That is over a cubic metre: check the unit.' } : { value: ml }
}
