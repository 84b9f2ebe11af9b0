import type { Isotherm } from './gab'

/** Foods that hold water alike. */
export const SORPTION_GROUPS = [
  'leafy',
  'wateryVegetable',
  'tomato',
  'starchy',
  'sugaryFruit',
  'allium',
  'chili',
  'mushroom',
  'protein',
  'milk',
] as const
export type SorptionGroup = (typeof SORPTION_GROUPS)[number]

export interface GroupIsotherm extends Isotherm {
  name: string
  /** Spread of the moisture among foods of the group and among published curves, standard deviation of the logarithm. */
  sdLog: number
  source: string
}

const RANGE = 'from memory, within the range of published isotherms (Iglesias & Chirife 1982; Lomauro, Bakshi & Labuza 1985)'

/** GAB constants at 25 °C. Heats of sorption of the size that is published for vegetables, from memory. */
export const ISOTHERMS: Record<SorptionGroup, GroupIsotherm> = {
  leafy: { name: 'Leaves and herbs', monolayer: 0.055, c: 12, k: 0.92, heatC: 12_000, heatK: -500, sdLog: 0.2, source: RANGE },
  wateryVegetable: {
    name: 'Watery vegetables and roots',
    monolayer: 0.07,
    c: 9,
    k: 0.93,
    heatC: 12_000,
    heatK: -500,
    sdLog: 0.2,
    source: RANGE,
  },
  tomato: { name: 'Tomatoes', monolayer: 0.1, c: 4, k: 0.97, heatC: 8000, heatK: -200, sdLog: 0.2, source: RANGE },
  starchy: { name: 'Starchy vegetables', monolayer: 0.066, c: 15, k: 0.8, heatC: 14_000, heatK: -500, sdLog: 0.15, source: RANGE },
  sugaryFruit: { name: 'Sugary fruit', monolayer: 0.1, c: 3, k: 1, heatC: 8000, heatK: 0, sdLog: 0.25, source: RANGE },
  allium: { name: 'Onion and garlic', monolayer: 0.075, c: 7, k: 0.95, heatC: 10_000, heatK: -300, sdLog: 0.2, source: RANGE },
  chili: { name: 'Chilies and peppers', monolayer: 0.055, c: 10, k: 0.95, heatC: 12_000, heatK: -300, sdLog: 0.2, source: RANGE },
  mushroom: { name: 'Mushrooms', monolayer: 0.06, c: 11, k: 0.95, heatC: 12_000, heatK: -300, sdLog: 0.2, source: RANGE },
  protein: { name: 'Meat, fish and egg', monolayer: 0.06, c: 12, k: 0.85, heatC: 12_000, heatK: -300, sdLog: 0.2, source: RANGE },
  // Of what is not fat in it.
  milk: { name: 'Milk', monolayer: 0.06, c: 9, k: 0.9, heatC: 10_000, heatK: -300, sdLog: 0.2, source: RANGE },
}

/** The isotherm that a food goes by: its group's, of the part that is not fat. */
export function isothermOf({ isotherm, fat = 0 }: { isotherm: SorptionGroup; fat?: number }): GroupIsotherm {
  const group = ISOTHERMS[isotherm]
  return fat === 0 ? group : { ...group, monolayer: group.monolayer * (1 - fat) }
}
