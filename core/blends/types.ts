import type { Range } from '../foods'
import type { Interval } from '../stats'

/** Something that a blend may be made of: what is in a jar. */
export interface Ingredient {
  /** The jar's id. */
  key: string
  name: string
  /** In the jar now, g. */
  leftG: number
  /** Water, wet basis. */
  moisture: number
  /** Spooned, g/mL. */
  densityGMl: Interval
  /** Scoville units of what is in the jar; missing where it is not hot. */
  heat?: Range
  /** Share of salt by weight, 0–1. */
  saltShare: number
  allergens: readonly string[]
  /** In the household's money; missing where nobody knows. */
  costPerG?: number
  /** When its oldest part was packed, and when its best time ends. */
  oldestAt: number
  bestTo: number
  /** The finest sieve that it went through, µm; missing where it was not sieved. */
  sievedUm?: number
  purpose: 'pieces' | 'flakes' | 'powder'
}

/** So much of an ingredient out of its jar, g, and what it weighs once toasted: less by water, and by nothing else. */
export interface Share {
  ingredient: Ingredient
  grams: number
  toastedG?: number
}
