import type { Food, MethodCard } from '../foods'
import { cycleRange, USUAL_DEPTH_MM, type FreezeLoad } from '../freezing'
import type { HoursRange } from './hours'
import { layerKgM2 } from './laws'

/** What lies on a freeze dryer's tray. */
export interface FrozenLayer {
  food: Food
  card: MethodCard
  thicknessMm?: number
  /** Water, wet basis; the food's as it is cut where nothing is known of the load's own. */
  moisture?: number
}

/** So much of a cut on a square metre of tray, as a freeze dryer's cycle is reckoned: what flows is as deep as it is poured. */
export function layerUnderVacuum({ food, card, thicknessMm, moisture }: FrozenLayer, loadKgM2: number): Omit<FreezeLoad, 'frozen'> {
  const pieceMm = thicknessMm ?? card.thicknessMm ?? USUAL_DEPTH_MM
  return {
    loadG: 1000 * loadKgM2,
    areaM2: 1,
    moisture: Math.min(0.99, moisture ?? (card.moisture ?? food.rawMoisture).value.mean),
    // A gram of what flows is about a millilitre; pieces over one another are as deep as they lie.
    thicknessMm: card.liquid ? loadKgM2 : pieceMm * Math.max(1, loadKgM2 / layerKgM2(card, thicknessMm)),
    liquid: card.liquid,
    sugary: food.isotherm === 'sugaryFruit',
  }
}

/** Hours of its cycle by what lies there; what flows, or is dried raw, goes in frozen. */
export function hoursUnderVacuum({ loadKgM2, frozen, ...layer }: FrozenLayer & { loadKgM2?: number; frozen?: boolean }): HoursRange {
  const { card, thicknessMm } = layer
  const load = layerUnderVacuum(layer, loadKgM2 ?? layerKgM2(card, thicknessMm))
  return cycleRange({ ...load, frozen: frozen ?? (card.liquid || card.raw || undefined) })
}
