import { parseNumber, parseWeight, type ParsedQuantity, type WeightUnit } from '../units'
import type { Spread } from '../foods'
import type { MeasureSystem } from './measures'
import { parseVolume } from './volume'

/** What a basket weighs by what was typed; `sdG` where it was counted or filled in rather than weighed. */
export type AmountIn = ParsedQuantity & { sdG?: number; count?: number; by?: 'weight' | 'count' | 'volume' }

/** "6 pumpkins", "6 pieces", "6x", "a dozen", "half a dozen", "two dozen eggs". */
const COUNT =
  /^(?:(\d+(?:[.,]\d+)?(?:\s*[½¼¾])?|[½¼¾])\s*(?:x\b|×)?|(half a|a|an|one|two|three|four|five|six|seven|eight|nine|ten|twelve)\s+)\s*(dozen)?\s*([\p{L}][\p{L}’' -]*)?$/iu
const WORDS: Readonly<Record<string, number>> = {
  'half a': 0.5,
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  twelve: 12,
}
const DOZEN = 12
/** Heaps and vessels of no one size: what they hold is asked. */
const HEAP =
  /^(?:stones?|bushels?|pecks?|baskets?|crates?|boxe?s?|bags?|sacks?|buckets?|bunch(?:es)?|handfuls?|punnets?|trays?|jars?|pots?|tons?|tonnes?)\b/i

/**
 * Reads how much came in as people say it: a weight in any unit, a volume where it is known what a litre weighs, a count where it is
 * known what one does. What was not weighed has its doubt with it: of single ones it evens out, of how large they run it does not.
 * @param of what one and a litre of the food weigh, g
 */
export function readAmount(text: string, unit: WeightUnit, measures: MeasureSystem, of: { each?: Spread; litre?: Spread } = {}): AmountIn {
  const weight = parseWeight(text, unit)
  if (weight.value !== undefined) return { ...weight, by: 'weight' }
  const volume = parseVolume(text, measures)
  if (volume !== undefined) {
    if (volume.value === undefined) return volume
    if (!of.litre) return { problem: 'What a litre of this weighs is not known: give its weight.' }
    const litres = volume.value / 1000
    return { value: litres * of.litre.mean, sdG: litres * of.litre.sd, by: 'volume' }
  }
  const heap = /^[^\p{L}]*(\p{L}.*)$/u.exec(text.trim().replace(/^(?:an?|one|two|three|half an?)\s+/i, ''))?.[1]
  if (heap && HEAP.test(heap)) return { problem: `How much is “${text.trim()}”? Give a weight, a volume such as 2 qt or 3 L, or a count.` }
  const counted = countOf(text)
  if (counted === undefined) return weight
  if (!of.each) return { problem: 'What one of these weighs is not known: give their weight.' }
  // Half of the spread is from piece to piece, the rest from basket to basket: a plant that runs large runs large throughout.
  const sd = of.each.sd * Math.sqrt(0.5 + 0.5 / Math.max(1, counted))
  return { value: counted * of.each.mean, sdG: counted * sd, count: Math.round(counted), by: 'count' }
}

/** How many, where a text says a number of something that is no unit; undefined elsewhere. */
function countOf(text: string): number | undefined {
  const match = COUNT.exec(text.trim())
  if (!match) return undefined
  const [, figures, word, dozen, what] = match
  // A number alone is a weight.
  if (figures && !dozen && !what && !/[x×]\s*$/i.test(text.trim())) return undefined
  const number = figures ? parseNumber(figures).value : WORDS[word!.toLowerCase()]
  if (number === undefined || !(number > 0)) return undefined
  return number * (dozen ? DOZEN : 1)
}
