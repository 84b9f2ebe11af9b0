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

/**
 * Adds shares up: mass, heat, salt and water are kept, allergens are joined, age is the oldest's.
 * @throws InputError for no share, or one that is not above zero
 */
export function mixOf(shares: readonly Share[]): Mix {
  if (shares.length === 0) throw new InputError([{ field: 'parts', message: 'Choose what goes in.' }])
  const wrong = shares.flatMap(({ grams }, i) => grams > 0 && Number.isFinite(grams) ? [] : [{ field: `parts.${i}.grams`, message: 'must be above zero' }])
  if (wrong.length > 0) throw new InputError(wrong)
  const sum = (of: (share: Share) => number) => shares.reduce((total, share) => total + of(share), 0)
  const totalG = sum(share => share.grams)
  const mean = (of: (share: Share) => number) => sum(share => share.grams * of(share)) / totalG
  const ml = {
    p10: sum(({ grams, ingredient }) => grams / ingredient.densityGMl.p90), p50: sum(({ grams, ingredient }) => grams / ingredient.densityGMl.p50), p90: sum(({ grams, ingredient }) => grams / ingredient.densityGMl.p10),
  }
  const hot = shares.some(({ ingredient }) => ingredient.heat)
  const saltG = sum(({ grams, ingredient }) => grams * ingredient.saltShare)
  const sieves = shares.map(({ ingredient }) => ingredient.sievedUm)
  return {
    totalG, ml, densityGMl: { p10: totalG / ml.p90, p50: totalG / ml.p50, p90: totalG / ml.p10 },
    moisture: mean(({ ingredient }) => ingredient.moisture),
    ...(hot && { heat: { low: mean(({ ingredient }) => ingredient.heat?.low ?? 0), high: mean(({ ingredient }) => ingredient.heat?.high ?? 0) } }),
    hottest: Math.max(0, ...shares.map(({ ingredient }) => ingredient.heat?.high ?? 0)),
    saltG, saltShare: saltG / totalG,
    allergens: [...new Set(shares.flatMap(({ ingredient }) => ingredient.allergens))].sort(),
    cost: sum(({ grams, ingredient }) => grams * (ingredient.costPerG ?? 0)), pricedG: sum(({ grams, ingredient }) => ingredient.costPerG === undefined ? 0 : grams),
    oldestAt: Math.min(...shares.map(({ ingredient }) => ingredient.oldestAt)), bestTo: Math.min(...shares.map(({ ingredient }) => ingredient.bestTo)),
    sievedUm: sieves.every(um => um !== undefined) ? Math.max(...sieves as number[]) : undefined,
    coarsest: ORDER.find(purpose => shares.some(({ ingredient }) => ingredient.purpose === purpose))!,
  }
}

/** Salt in a spoon of it, g. */
export const saltIn = (mix: Mix, ml: number): number => mix.saltShare * mix.densityGMl.p50 * ml

/** What a jar takes of it, g: filled to nine tenths, as it lies. */
export const jarFullOf = (mix: Mix, jarMl: number): number => jarTakesG(mix.densityGMl.p50, 'powder', jarMl)

/** How much of a blend the shelf allows, and what runs out first. */
export function mostOf(parts: readonly Share[]): { totalG: number, by: string } {
  const totalG = parts.reduce((sum, { grams }) => sum + grams, 0)
  const tight = parts.reduce((a, b) => b.ingredient.leftG / b.grams < a.ingredient.leftG / a.grams ? b : a)
  return { totalG: totalG * tight.ingredient.leftG / tight.grams, by: tight.ingredient.name }
}

/** The same proportions to another weight. */
export function scaled(parts: readonly Share[], totalG: number): Share[] {
  const now = parts.reduce((sum, { grams }) => sum + grams, 0)
  return parts.map(({ ingredient, grams }) => ({ ingredient, grams: grams * totalG / now }))
}
