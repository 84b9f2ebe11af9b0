import { figuresSaid, NUMBER, readingsOf, type ParsedQuantity } from '../units'
import { volumeOf, type MeasureSystem } from './measures'

const UNIT = String.raw`cups?|c|tass(?:en?|es?)|tablespoons?|tbsps?|esslöffel|el|teaspoons?|tsps?|teelöffel|tl|gallons?|gals?|quarts?|qts?|pints?|pts?|fl(?:uid)?\.?\s*(?:oz|ounces?)|ml|millilit(?:er|re)s?|cl|dl|l|lit(?:er|re)s?`
const VOLUME = new RegExp(`^(${NUMBER})\\s*(${UNIT})\\.?$`, 'iu')
const FILLED = new RegExp(`(?:${NUMBER})\\s*(?:${UNIT})(?![\\p{L}])\\.?`, 'iu')

/** The first volume that stands in a text, and the words around it: "2 cups" and "of purée" in "two cups of purée". */
export function volumeWithin(text: string): { volume: string; around: string } | undefined {
  const said = figuresSaid(text)
  const found = FILLED.exec(said)
  return found
    ? { volume: found[0], around: `${said.slice(0, found.index)} ${said.slice(found.index + found[0].length)}`.trim() }
    : undefined
}

const VESSELS: [RegExp, 'cup' | 'tablespoon' | 'teaspoon'][] = [
  [/^(?:c(?:ups?)?|tass\p{L}*)$/iu, 'cup'],
  [/^(?:t(?:able|bs)|e)/i, 'tablespoon'],
  [/^t(?:ea|ee|sp|l)/i, 'teaspoon'],
]
/** Millilitres; those of the US by their legal volumes (NIST Handbook 44: a gallon is 231 cubic inches). */
const UNITS: [RegExp, number][] = [
  [/^m/i, 1],
  [/^cl/i, 10],
  [/^dl/i, 100],
  [/^l/i, 1000],
  [/^gal/i, 3785.411784],
  [/^q/i, 946.352946],
  [/^p/i, 473.176473],
  [/^f/i, 29.5735295625],
]
const MOST_ML = 1_000_000

/**
 * Reads a volume as a cook says it: "2 cups", "1½ tbsp", "1/2 tsp", "250 mL", "2 qt", "1 gal".
 * @returns millilitres; undefined where it is not a volume at all, so that it may be a weight
 */
export function parseVolume(text: string, system: MeasureSystem): ParsedQuantity | undefined {
  const match = VOLUME.exec(figuresSaid(text.trim()))
  if (!match) return undefined
  const [, amount, unit] = match as unknown as [string, string, string]
  const vessel = VESSELS.find(([names]) => names.test(unit))?.[1]
  const [count, thousands] = readingsOf(amount) as [number, number?]
  // "1,200 mL" are thousands, "1,200 L" is a litre and a fifth: nobody has the other.
  const meant = thousands !== undefined && /^m/i.test(unit) ? thousands : count
  const ml = meant * (vessel ? volumeOf(1, vessel, system) : UNITS.find(([names]) => names.test(unit))![1])
  if (!(ml > 0)) return { problem: 'A volume must be above zero.' }
  return ml > MOST_ML ? { problem: 'That is over a cubic metre: check the unit.' } : { value: ml }
}
