import type { MethodCard } from '../foods'
import { layerKgM2 } from '../hours'
import { WAYS, type WayKey } from '../ways'

/**
 * What flows is poured as deep as a freeze dryer's trays hold without spilling, rather than spread: 15 mm, give or take one (common practice:
 * four trays of some 0.1 m² take 1.4 L each).
 */
const POURED_KG_M2 = { mean: 15, sd: 0.8 }

/**
 * Grams that one tray takes of the card's cut, in a single layer, or poured: mean and spread.
 * @param thicknessMm as it was cut; as the card has it where it is not given
 */
export function trayTakesG(card: MethodCard, trayAreaM2: number, kind?: WayKey, thicknessMm?: number): { mean: number; sd: number } {
  if (card.liquid && kind && WAYS[kind].underVacuum)
    return { mean: POURED_KG_M2.mean * 1000 * trayAreaM2, sd: POURED_KG_M2.sd * 1000 * trayAreaM2 }
  const mean = layerKgM2(card, thicknessMm) * 1000 * trayAreaM2
  return { mean, sd: (mean * card.trayLoadKgM2.sd) / card.trayLoadKgM2.mean }
}

/**
 * Trays that so much takes, where each takes so many grams: what does not fit on the last needs one more. A layer a little thicker is
 * nowhere felt; what is poured spills.
 */
export const traysFor = (weightG: number, perTrayG: number, poured = false): number =>
  Math.max(1, Math.ceil(weightG / perTrayG - (poured ? 0 : A_TOUCH)))
const A_TOUCH = 0.1

/** Loads that so many trays are: what finds a place goes in now, the rest when the others are out. */
export function loadsFor(trays: number, places: number, free = places): number {
  const first = Math.min(trays, places, free)
  return (first > 0 ? 1 : 0) + Math.ceil((trays - first) / places)
}
