import { sdOf, type Interval } from '../stats'
import { MODEL } from './model'
import type { DryingEstimate } from './types'
import { valueAt } from './views'

/** Weight that the estimate expects at an hour of its clock, between the points of its curve. */
export function expectedWeight({ curve }: Pick<DryingEstimate, 'curve'>, hours: number): Interval {
  return valueAt(
    curve.map(point => ({ hours: point.hours, value: point.weightG })),
    hours,
  )
}

/** Deviations from which a weight is questioned before it is written. */
const WILD = 3.4
/** Error of the curve as a share of the water left, for a weight that the fit has not seen. */
const AHEAD = 0.08

/** A tray's share of the load is known to so much of itself. */
const PART = 0.04

/**
 * Whether a weight just read is so far from what is expected that it is worth a second look. It may be
 * right all the same: the person decides.
 * @param share of the loaded weight that is on the scale: 1 for the whole load, less for a tray
 * @param spread how far a single tray may lag or lead, as a share of the water left; 0 for the whole load
 * @returns how many grams above (or, negative, below) the middle it is; undefined where it fits
 */
export function questionWeight(
  estimate: Pick<DryingEstimate, 'curve' | 'solidsG'>,
  hours: number,
  weightG: number,
  share = 1,
  spread = 0,
): { offG: number; expectedG: Interval } | undefined {
  const load = expectedWeight(estimate, hours)
  const expectedG = { p10: load.p10 * share, p50: load.p50 * share, p90: load.p90 * share }
  const free = Math.max(0, expectedG.p50 - estimate.solidsG.p50 * share)
  const part = share < 1 ? PART * expectedG.p50 : 0
  const sd = Math.hypot(part, sdOf(expectedG), MODEL.handling * weightG, (AHEAD + spread) * free, 1)
  const offG = weightG - expectedG.p50
  return Math.abs(offG) > WILD * sd ? { offG, expectedG } : undefined
}
