import { allergensOfLot, plainly, saltWhenDry, type Range } from '../foods'
import { looseGMl } from '../keeping'
import { type Interval, intervalFromNormal } from '../stats'
import type { FindLot, Jar, Lot } from '../log'
import { toldAtUse, type ToldAtUse } from '../safety'

/** What a jar holds, by balance over its parts: what matters in a dish and in a blend. */
export interface Content {
  /** Scoville units by mass; missing where nothing in it is hot. */
  heat?: Range
  /** Share of salt by weight. */
  saltShare: number
  allergens: string[]
  raw: boolean
  /** Too long in the warm before it was dry: to be discarded. */
  warm: boolean
  /** Cautions of its use, of all that is in it: in a few words for a label, and in full. */
  told: ToldAtUse
  /** The finest sieve that all of it went through, µm; missing where one part was never sieved. */
  sievedUm?: number
  /** Spooned, g/mL: weighed, or the parts' own added up by volume. */
  densityGMl: Interval
  measured: boolean
}

/** A spoon's own doubt once it was weighed. */
const SPOON_SD = 0.03

/** Published heat is a range, and parts grown alike are hot alike: low goes with low and high with high. */
export function contentOf(
  jar: Pick<Jar, 'parts' | 'leftG' | 'mixed' | 'densityGMl' | 'sievedUm' | 'purpose' | 'contains'>,
  find: FindLot,
): Content {
  const parts = held(jar.parts).flatMap(part => {
    const lot = find(part.lotId)
    // Heat and salt stay with the dry matter: what lost water on the way, as in toasting, is the stronger for it.
    return lot ? [{ grams: part.grams, lot, strength: (1 - part.moisture) / (1 - lot.moisture) }] : []
  })
  const partsG = parts.reduce((sum, part) => sum + part.grams, 0)
  const wholeG = Math.max(partsG + jar.mixed.saltG + jar.mixed.starchG, 1e-9)
  const mean = (of: (part: (typeof parts)[number]) => number) => parts.reduce((sum, part) => sum + part.grams * of(part), 0) / wholeG
  const hot = parts.some(({ lot }) => lot.heat ?? lot.food.heatUnits)
  const heatOf = ({ lot }: (typeof parts)[number]) => lot.heat ?? lot.food.heatUnits?.value ?? { low: 0, high: 0 }
  const sieves = parts.map(({ lot }) => lot.sievedUm)
  // Flakes lie looser than their powder; what is bought in was measured as it is sold.
  const asItLies = ({ lot: { food } }: (typeof parts)[number]) =>
    food.group === 'goods' ? food.powderDensity.value.mean : looseGMl(food.powderDensity.value.mean, jar.purpose)
  const ml = parts.reduce((sum, part) => sum + part.grams / asItLies(part), 0)
  const spread =
    parts.reduce(
      (
        sum,
        {
          grams,
          lot: {
            food: {
              powderDensity: { value },
            },
          },
        },
      ) => sum + (grams * value.sd) / value.mean,
      0,
    ) / Math.max(partsG, 1e-9)
  const density = ml > 0 ? partsG / ml : 0.5
  return {
    ...(hot && { heat: { low: mean(part => heatOf(part).low * part.strength), high: mean(part => heatOf(part).high * part.strength) } }),
    saltShare: mean(({ lot, strength }) => (lot.saltShare ?? saltWhenDry(lot.food, lot.moisture)) * strength) + jar.mixed.saltG / wholeG,
    allergens: allergensOfLot(
      plainly(parts.flatMap(({ lot }) => (lot.whole ? lot.allergens! : allergensOfLot(lot.food.allergens, lot.allergens)))),
      jar.contains?.allergens,
      jar.contains?.all,
    ),
    raw: parts.some(({ lot }) => lot.raw),
    warm: parts.some(({ lot }) => lot.warm),
    told: { label: union(parts.map(({ lot }) => toldOf(lot).label)), use: union(parts.map(({ lot }) => toldOf(lot).use)) },
    sievedUm: jar.sievedUm ?? (sieves.length > 0 && sieves.every(um => um !== undefined) ? Math.max(...(sieves as number[])) : undefined),
    densityGMl:
      jar.densityGMl === undefined
        ? intervalFromNormal(density, density * (spread || 0.2), 0.05)
        : intervalFromNormal(jar.densityGMl, SPOON_SD * jar.densityGMl, 0.05),
    measured: jar.densityGMl !== undefined,
  }
}

const union = (lists: readonly (readonly string[])[]) => [...new Set(lists.flat())]
const toldOf = (lot: Lot) => lot.told ?? toldAtUse(lot.food, lot)

/** The parts that are in a jar; of an empty one, those that were. */
function held(parts: Jar['parts']): Jar['parts'] {
  const left = parts.filter(part => part.grams > 0)
  return left.length > 0 ? left : parts.map(part => ({ ...part, grams: 1 }))
}
