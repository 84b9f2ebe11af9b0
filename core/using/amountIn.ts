import {
  figuresSaid,
  formatWeight,
  namesWeight,
  NUMBER,
  parseWeight,
  readingsOf,
  weightWithin,
  type ParsedQuantity,
  type WeightUnit,
} from '../units'
import type { MethodCard, Spread } from '../foods'
import { wordsOf } from '../foods/named'
import type { MeasureSystem } from './measures'
import { parseVolume, volumeWithin } from './volume'

/** What a basket weighs by what was typed; `sdG` where it was counted or filled in rather than weighed. */
export type AmountIn = ParsedQuantity & {
  sdG?: number
  count?: number
  by?: 'weight' | 'count' | 'volume'
  /** It is more than a household dries: asked once whether it is meant. */
  doubt?: string
}

/** What is known of the food whose amount is read. */
export interface AmountOf {
  /** What one weighs, and a litre, g. */
  each?: Spread
  litre?: Spread
  /** All that it is called: a count is of one of these. */
  names?: readonly string[]
}

const DOZEN = 12
/** Words for single ones, in English, German and French: whole ones, since a clove is no head of garlic and a rib no stalk of celery. */
const SINGLE = new Set(
  'piece pod head ear cob fruit root bulb whole item each stück stücke stueck kopf köpfe schote schoten knolle knollen pièce pièces tête'.split(' ').map(wordOf),
) // prettier-ignore
/** Said of any of them: they neither name the food nor another. */
const KINDS = new Set(
  'x of the my our de d des du von la le les big large medium small little tiny huge whole fresh ripe red green yellow orange white black purple'.split(
    ' ',
  ),
)
/** Heaps and vessels of no one size: what they hold is asked. */
const HEAPS = new Set(
  'stone bushel peck basket crate box bag sack bucket bunch handful punnet tray jar pot ton tonne bund korb kiste eimer sac panier botte poignée'.split(' ').map(wordOf),
) // prettier-ignore
/** What is smooth fills its vessel whatever it was made of (common practice). */
const SMOOTH = /\b(?:pur[eé]e|pulp|mash|sauce|juice|paste|broth|stock|soup|batter|milk|püree|mus|saft|jus|coulis)\b/iu
const SMOOTH_LITRE: Spread = { mean: 1030, sd: 50 }

/** What a litre of it weighs as it is spread on trays, g: known of what is smooth. */
export const litreSpread = ({ liquid, feelForm }: Pick<MethodCard, 'liquid' | 'feelForm'>): Spread | undefined =>
  liquid || feelForm === 'sheet' || feelForm === 'foam' ? SMOOTH_LITRE : undefined

/** A basket over this is asked about, g; so is one over so many times the usual, which is some six litres of it (common practice). */
const MOST_BASKET_G = 200_000
const MANY_TIMES = 50
const USUAL_LITRES = 6
const USUAL_G = 3000

/**
 * Reads how much came in as people say it: a weight in any unit, with the food named or not ("5 pounds of tomatoes"), a volume where it
 * is known what a litre weighs, a count where it is known what one does **and** its word is the food, its kind, or "pieces". Whatever
 * else it says is asked, never guessed. What was not weighed has its doubt with it: of single ones it evens out, of how large they run it
 * does not.
 */
export function readAmount(text: string, unit: WeightUnit, measures: MeasureSystem, of: AmountOf = {}): AmountIn {
  const amount = amountOf(text, unit, measures, of)
  if (amount.value === undefined) return amount
  const usualG = of.litre ? USUAL_LITRES * of.litre.mean : USUAL_G
  const isMuch = amount.value > Math.min(MOST_BASKET_G, MANY_TIMES * usualG)
  return isMuch ? { ...amount, doubt: `Is ${formatWeight(amount.value, unit)} right? Save again to keep it.` } : amount
}

function amountOf(text: string, unit: WeightUnit, measures: MeasureSystem, of: AmountOf): AmountIn {
  const whole = parseWeight(text, unit)
  if (whole.value !== undefined) return { ...whole, by: 'weight' }
  const unclear = { problem: `How much is “${text.trim()}”? Give a weight, a volume such as 2 qt or 3 L, or a count such as 6 pieces.` }
  const within = weightWithin(text)
  if (within) {
    // "2 kg of tomatoes": the words beside it name what was weighed, and say no number of their own.
    if (/\d/.test(within.around)) return unclear
    const weight = parseWeight(within.weight, unit)
    return weight.value === undefined ? weight : { ...weight, by: 'weight' }
  }
  if (namesWeight(text)) return whole.problem.includes('needed') ? unclear : whole
  const filled = volumeWithin(text)
  if (filled) {
    const volume = parseVolume(filled.volume, measures)
    if (!volume || /\d/.test(filled.around)) return unclear
    if (volume.value === undefined) return volume
    const litre = SMOOTH.test(filled.around) ? SMOOTH_LITRE : of.litre
    if (!litre) return { problem: 'What a litre of this weighs is not known: give its weight.' }
    const litres = volume.value / 1000
    return { value: litres * litre.mean, sdG: litres * litre.sd, by: 'volume' }
  }
  const counted = countOf(text, of.names ?? [])
  if (counted === undefined) return /\p{L}/u.test(text) ? unclear : whole
  if (!of.each) return { problem: 'What one of these weighs is not known: give their weight.' }
  // Half of the spread is from piece to piece, the rest from basket to basket: a plant that runs large runs large throughout.
  const sd = of.each.sd * Math.sqrt(0.5 + 0.5 / Math.max(1, counted))
  return { value: counted * of.each.mean, sdG: counted * sd, count: Math.round(counted), by: 'count' }
}

const COUNT = new RegExp(`^(${NUMBER})\\s*(.*)$`, 'u')

/**
 * How many, where a text says a number of the food: "6 pumpkins", "6 pieces", "6x", "a dozen", "half a dozen", "two dozen eggs".
 * @returns undefined where the word behind the number is neither the food nor one for single ones
 */
function countOf(text: string, names: readonly string[]): number | undefined {
  const match = COUNT.exec(figuresSaid(text).trim())
  if (!match) return undefined
  const [, figures, behind] = match as unknown as [string, string, string]
  const number = readingsOf(figures)
  if (number.length > 1 || !(number[0]! > 0) || /\d/.test(behind)) return undefined
  const said = wordsOf(behind.replace(/×/g, 'x'))
  const dozen = said.some(word => word === 'dozen' || word === 'dutzend' || word === 'douzaine')
  const what = said.filter(word => word !== 'dozen' && word !== 'dutzend' && word !== 'douzaine')
  // A number alone is a weight.
  if (what.length === 0 && !dozen) return undefined
  const known = new Set(names.flatMap(name => wordsOf(name)))
  const isFood = (word: string) => known.has(word) && !HEAPS.has(word)
  const named = what.filter(word => !KINDS.has(word))
  if (!named.every(word => isFood(word) || SINGLE.has(word))) return undefined
  return number[0]! * (dozen ? DOZEN : 1)
}

function wordOf(word: string): string {
  return wordsOf(word)[0]!
}
