import type { FeelCheck } from '../dryness'
import type { Food } from '../foods'
import { glassOf, softensAtC } from '../grinding'
import { FELT_LN_X, HAND_AT, type Felt } from '../kinetics'
import { wetBasis } from '../mass'
import { activityCurve, isothermOf } from '../sorption'
import { normalCdf } from '../stats'
import { LADDERS } from './ladder'

/** Warmth of a piece that lay for some minutes, °C. */
const COOLED_C = 22
/**
 * Water of what is felt over the load's mean, as logarithms: the thick pieces that are asked for, or the one that comes to hand; its middle and
 * its outer half while it dries; and how pieces differ. By slabs of `core/simulation` below 1 g a gram, which practice's "a middle twice the
 * rim" agrees with.
 */
const PIECE = { thick: 0.4, thickSd: 0.35, any: 0, anySd: 0.6, core: 0.35, outer: -0.4 }
/** From so many places on it is the thick ones that were looked for. */
const LOOKED_FOR = 2
/** From one place to the next of one answer: K of softness, and logarithm of the water at which a middle changes. */
const NOISE = { softnessK: 8, lnX: 0.35 }
/** What one hand calls leather another calls a snap, and the glass of a food is a guess: shared by all feels of a load, K and ln X. */
const HAND_SD = { softnessK: 13, lnX: 0.35 }
/** One answer in so many is a slip. */
const LAPSE = 0.04
/** Places beyond which more pieces tell no more: they lie in the same machine. */
const MOST_PLACES = 4
/** Pieces of a load about their middle, in standard deviations with weights (three points). */
const PIECES = [
  [-1.732, 1 / 6],
  [0, 2 / 3],
  [1.732, 1 / 6],
] as const
/**
 * How likely what was felt is, by the mean water of the load: a table over the error of the hand and ln X, in logarithms. Undefined where
 * the form has no answers that go with water (ice tells of its own).
 * @param airC warmth of the food where it was not cooled, °C
 */
export function feltTable(food: Food, check: FeelCheck, airC: number): Felt['ln'] | undefined {
  const known = tables.get(check)
  if (known?.foodKey === food.key && known.airC === airC) return known.ln
  const ln = tableOf(food, check, airC)
  tables.set(check, { foodKey: food.key, airC, ln })
  return ln
}
/** What was logged does not change: a page asks for the same table again and again. */
const tables = new WeakMap<FeelCheck, { foodKey: string; airC: number; ln: Felt['ln'] | undefined }>()

function tableOf(food: Food, check: FeelCheck, airC: number): Felt['ln'] | undefined {
  const ladders = LADDERS[check.form]
  const activity = activityCurve(isothermOf(food), COOLED_C)
  const asked = Object.entries(check.answers).flatMap(([question, answer]) => {
    const ladder = ladders[question]
    const place = ladder ? ladder.answers.indexOf(answer) : -1
    if (!ladder || place < 0) return []
    // Hands differ evenly in warmth above the glass, and in the logarithm of the water at which a middle changes.
    const limits = ladder.by === 'softness' ? ladder.at : ladder.at.map(limit => Math.log(xAt(activity, limit)))
    return [{ ...ladder, limits, place }]
  })
  if (asked.length === 0) return undefined
  const celsius = check.cooled ? COOLED_C : Math.max(COOLED_C, airC)
  const glass = glassOf(food)
  const places = Math.min(MOST_PLACES, Math.max(1, check.places))
  const soft = (x: number) => celsius - softensAtC(glass, wetBasis(x))
  const chance = ({ by, answers, limits, place }: (typeof asked)[number], lnX: number, hand: number) => {
    const isSoft = by === 'softness'
    const value = (isSoft ? soft(Math.exp(lnX)) : lnX) + hand * (isSoft ? HAND_SD.softnessK : HAND_SD.lnX)
    const below = (limit: number) => normalCdf((limit - value) / (isSoft ? NOISE.softnessK : NOISE.lnX))
    const upTo = place === answers.length - 1 ? 1 : below(limits[place]!)
    const from = place === 0 ? 0 : below(limits[place - 1]!)
    return LAPSE / answers.length + (1 - LAPSE) * Math.max(0, upTo - from)
  }
  const [about, sd] = places >= LOOKED_FOR ? [PIECE.thick, PIECE.thickSd] : [PIECE.any, PIECE.anySd]
  const layer = { core: PIECE.core, outer: PIECE.outer }
  const step = (FELT_LN_X.to - FELT_LN_X.from) / (FELT_LN_X.count - 1)
  return HAND_AT.map(hand =>
    Array.from({ length: FELT_LN_X.count }, (_, i) => {
      const lnX = FELT_LN_X.from + i * step
      const sum = PIECES.reduce((all, [z, weight]) => {
        const piece = lnX + about + (z * sd) / Math.sqrt(places)
        return all + weight * asked.reduce((product, item) => product * chance(item, piece + layer[item.of], hand), 1)
      }, 0)
      return Math.round(1000 * Math.log(Math.max(1e-9, sum))) / 1000
    }),
  )
}

/** Moisture at a water activity, dry basis, by halving. */
function xAt(activity: (x: number) => number, wanted: number): number {
  let [low, high] = [1e-4, 20]
  for (let i = 0; i < 40; i++) {
    const middle = Math.sqrt(low * high)
    if (activity(middle) < wanted) low = middle
    else high = middle
  }
  return Math.sqrt(low * high)
}
