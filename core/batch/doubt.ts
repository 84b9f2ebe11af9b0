import { questionWeight, type DryingEstimate } from '../kinetics'
import type { Interval } from '../stats'
import type { RunState } from '../log'

/** How far one tray may lag or lead its load, as a share of the water left in it. */
const TRAY_SPREAD = 0.15

/**
 * Whether a net weight just read is worth a second look before it is written.
 * @param position the tray on the scale; undefined for all that is in the machine
 * @returns undefined where it fits, or where it is more than was loaded: that is refused, not asked about
 */
export function doubtOfWeight(
  run: RunState,
  estimate: DryingEstimate,
  weightG: number,
  at: number,
  position?: number,
): { offG: number; expectedG: Interval } | undefined {
  const onScale = position === undefined ? run.present : [position]
  const loadedG = run.trays.filter(tray => onScale.includes(tray.position)).reduce((sum, tray) => sum + tray.weightG, 0)
  if (weightG > loadedG) return undefined
  const share = loadedG / run.loadedG
  return questionWeight(estimate, run.clock.equivalentHoursAt(at), weightG, share, share < 1 ? TRAY_SPREAD : 0)
}
