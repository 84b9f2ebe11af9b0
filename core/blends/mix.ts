import { InputError } from '../errors'
import type { Range } from '../foods'
import { jarTakesG } from '../keeping'
import type { Interval } from '../stats'
import type { Share } from './types'

/** What some shares make together. */
export interface Mix {
  totalG: number
  /** Spooned, mL; powders of different grain pack closer than this. */
  ml: Interval
  densityGMl: Interval
  moisture: number
  /** Scoville units by mass; missing where nothing in it is hot. */
  heat?: Range
  /** The hottest thing that is handled. */
  hottest: number
  saltG: number
  saltShare: number
  allergens: string[]
  /** What is known of the cost, and of how many grams. */
  cost: number
  pricedG: number
  /** As old as its oldest share, and best as long as the first of them. */
  oldestAt: number
  bestTo: number
  /** As coarse as its coarsest share; missing where one was never sieved. */
  sievedUm?: number
  coarsest: 'pieces' | 'flakes' | 'powder'
}

const ORDER = ['pieces', 'flakes', 'powder'] as const

/** What a share brings to the bowl, g. */
const broughtG = ({ grams, toastedG }: Share): number => toastedG ?? grams

/**
 * Adds shares up: mass, heat and salt are kept, water too save what toasting drove out; allergens are joined, age is
 * the oldest's.
 * @throws InputError for no share, or one that is not above zero, or heavier once it was toasted
 */
export function mixOf(shares: readonly Share[]): Mix {
  if (shares.length === 0) throw new InputError([{ field: 'parts', code: 'nothing-chosen', message: 'Choose what goes in.' }])
  const wrong = shares.flatMap(({ grams, toastedG = grams }, i) => {
    if (!(grams > 0 && Number.isFinite(grams)))
      return [{ field: `parts.${i}.grams`, code: 'not-above-zero', message: 'must be above zero' }]
    return toastedG > 0 && toastedG <= grams
      ? []
      : [{ field: `parts.${i}.toastedG`, code: 'not-above-zero', message: 'must be above zero, and no more than went into the pan' }]
  })
  if (wrong.length > 0) throw new InputError(wrong)
  const sum = (of: (share: Share) => number) => shares.reduce((total, share) => total + of(share), 0)
  const totalG = sum(broughtG)
  /** By what left the jars: toasting takes nothing of it. */
  const mean = (of: (share: Share) => number) => sum(share => share.grams * of(share)) / totalG
  const volume = (at: keyof Interval) => sum(share => broughtG(share) / share.ingredient.densityGMl[at])
  const ml = { p10: volume('p90'), p50: volume('p50'), p90: volume('p10') }
  const hot = shares.some(({ ingredient }) => ingredient.heat)
  const saltG = sum(({ grams, ingredient }) => grams * ingredient.saltShare)
  const sieves = shares.map(({ ingredient }) => ingredient.sievedUm)
  return {
    totalG,
    ml,
    densityGMl: { p10: totalG / ml.p90, p50: totalG / ml.p50, p90: totalG / ml.p10 },
    moisture:
      Math.max(
        0,
        sum(share => share.grams * share.ingredient.moisture - (share.grams - broughtG(share))),
      ) / totalG,
    ...(hot && {
      heat: { low: mean(({ ingredient }) => ingredient.heat?.low ?? 0), high: mean(({ ingredient }) => ingredient.heat?.high ?? 0) },
    }),
    hottest: Math.max(0, ...shares.map(({ ingredient }) => ingredient.heat?.high ?? 0)),
    saltG,
    saltShare: saltG / totalG,
    allergens: [...new Set(shares.flatMap(({ ingredient }) => ingredient.allergens))].sort(),
    cost: sum(({ grams, ingredient }) => grams * (ingredient.costPerG ?? 0)),
    pricedG: sum(({ grams, ingredient }) => (ingredient.costPerG === undefined ? 0 : grams)),
    oldestAt: Math.min(...shares.map(({ ingredient }) => ingredient.oldestAt)),
    bestTo: Math.min(...shares.map(({ ingredient }) => ingredient.bestTo)),
    sievedUm: sieves.every(um => um !== undefined) ? Math.max(...(sieves as number[])) : undefined,
    coarsest: ORDER.find(purpose => shares.some(({ ingredient }) => ingredient.purpose === purpose))!,
  }
}

/** Salt in a spoon of it, g. */
export const saltIn = (mix: Mix, ml: number): number => mix.saltShare * mix.densityGMl.p50 * ml

/** What a jar takes of it, g: filled to nine tenths, as it lies. */
export const jarFullOf = (mix: Mix, jarMl: number): number => jarTakesG(mix.densityGMl.p50, 'powder', jarMl)

/** How much of a blend the shelf allows, and what runs out first. */
export function mostOf(parts: readonly Share[]): { totalG: number; by: string } {
  const totalG = parts.reduce((sum, part) => sum + broughtG(part), 0)
  const tight = parts.reduce((a, b) => (b.ingredient.leftG / b.grams < a.ingredient.leftG / a.grams ? b : a))
  return { totalG: (totalG * tight.ingredient.leftG) / tight.grams, by: tight.ingredient.name }
}

/** The same proportions to another weight. */
export function scaled(parts: readonly Share[], totalG: number): Share[] {
  const factor = totalG / parts.reduce((sum, part) => sum + broughtG(part), 0)
  return parts.map(({ ingredient, grams, toastedG }) => ({
    ingredient,
    grams: grams * factor,
    ...(toastedG !== undefined && { toastedG: toastedG * factor }),
  }))
}
