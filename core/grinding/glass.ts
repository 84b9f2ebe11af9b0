import { ZERO_C } from '../air'
import type { SorptionGroup } from '../sorption'

/** Glass transition of a dry substance, °C, and its Gordon–Taylor constant with water. */
export interface Glass {
  dryC: number
  k: number
}

/** Pure sugars (Roos 1995, from memory). */
export const SUGARS = {
  sucrose: { dryC: 62, k: 5.5 },
  lactose: { dryC: 101, k: 6.6 },
  fructose: { dryC: 5, k: 3.7 },
} as const satisfies Record<string, Glass>

/**
 * Foods by group: between their sugars, acids, starches and proteins. From memory: strawberry about 44 °C,
 * onion 58, celery and horseradish about 60 are published; single foods differ by ten degrees and more.
 */
export const GLASS: Record<SorptionGroup, Glass> = {
  sugaryFruit: { dryC: 44, k: 4.5 },
  wateryVegetable: { dryC: 60, k: 4.5 },
  chili: { dryC: 60, k: 4.5 },
  allium: { dryC: 58, k: 4.6 },
  mushroom: { dryC: 75, k: 5 },
  leafy: { dryC: 80, k: 5 },
  milk: SUGARS.lactose,
  tomato: { dryC: 58, k: 4.5 },
  starchy: { dryC: 130, k: 5.5 },
  protein: { dryC: 120, k: 5 },
}

/** What a food's powder is as a glass: water sits in what is not fat, and softens that the more. */
export function glassOf({ isotherm, fat = 0 }: { isotherm: SorptionGroup; fat?: number }): Glass {
  const { dryC, k } = GLASS[isotherm]
  return { dryC, k: k / (1 - fat) }
}

/** Glass transition of water, °C. */
const WATER_C = -135

/** Gordon–Taylor: where a glass with so much water (wet basis) softens, °C. Sucrose at 5 %: 18 °C. */
export function softensAtC({ dryC, k }: Glass, moisture: number): number {
  const dry = 1 - moisture
  return (dry * (dryC + ZERO_C) + k * moisture * (WATER_C + ZERO_C)) / (dry + k * moisture) - ZERO_C
}

export type ClumpRisk = 'none' | 'slight' | 'sticky' | 'cakes'

/** Sticky begins about so far above the transition, K, and caking so far (common practice: 10–20). */
const STICKY_K = 10
const CAKES_K = 20

/** What a powder of this moisture does at a temperature: in a warm grinder now, in the pantry later. */
export function clumpRisk(glass: Glass, moisture: number, celsius: number): ClumpRisk {
  const over = celsius - softensAtC(glass, moisture)
  return over <= 0 ? 'none' : over < STICKY_K ? 'slight' : over < CAKES_K ? 'sticky' : 'cakes'
}

/** Moisture (wet basis) up to which a powder stays loose at a temperature; 0 where even dry it does not. */
export function looseBelow(glass: Glass, celsius: number): number {
  const limit = celsius - STICKY_K
  if (limit >= glass.dryC) return 0
  // Gordon–Taylor solved for the share of water.
  const [dry, wet, at] = [glass.dryC + ZERO_C, WATER_C + ZERO_C, limit + ZERO_C]
  return (dry - at) / (dry - at + glass.k * (at - wet))
}

/** Warmth above which it sticks within days, °C: in a pantry. */
export function stickyAboveC(glass: Glass, moisture: number): number {
  return softensAtC(glass, moisture) + STICKY_K
}

/** Warmth above which it sticks within seconds, °C: in a grinder. */
export function grindBelowC(glass: Glass, moisture: number): number {
  return softensAtC(glass, moisture) + CAKES_K
}
