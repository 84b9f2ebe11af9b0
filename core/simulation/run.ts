import { dryBasis } from '../mass'
import { randomSource } from '../stats'
import { dryTray, type SlabSettings } from './slab'

/** A whole load in a machine: several trays of one batch, each with its own thickness and air. */
export interface RunSettings {
  trays: number
  startWeightG: number
  /** True dry-matter fraction at loading. */
  solids: number
  slab: Omit<SlabSettings, 'startX'>
  /** Relative spread of the trays' own rates (standard deviation of the logarithm). */
  traySpread: number
  /** How each tray's place dries against the middle of the machine; 1 for all when missing. */
  placePaces?: readonly number[]
  seed: number
}

/** A load that has been dried on paper: ask it for weights, or when it was dry. */
export interface SimulatedRun {
  readonly trayWeightsG: readonly number[]
  /** True net weight of each tray at an hour of drying clock. */
  traysAt(hours: number): number[]
  /** True net weight of the whole load. */
  weightAt(hours: number): number
  /** First hour at which the whole load's mean moisture (wet basis) is at or below the target; Infinity if never within the horizon. */
  hoursTo(targetMoisture: number): number
  /** The same for one tray by its place in the list. */
  trayHoursTo(tray: number, targetMoisture: number): number
}

/**
 * Simulates a load to `horizonH` hours.
 * @param gridH distance of the stored points in hours
 */
export function simulateRun(settings: RunSettings, horizonH: number, gridH = 0.1): SimulatedRun {
  const source = randomSource(settings.seed)
  const points = Math.ceil(horizonH / gridH) + 1
  const grid = Array.from({ length: points }, (_, i) => i * gridH)
  const startX = (1 - settings.solids) / settings.solids
  const trayWeightsG: number[] = []
  const traysX: Float64Array[] = []
  const shares = Array.from({ length: settings.trays }, () => Math.exp(0.08 * source.normal()))
  const whole = shares.reduce((sum, share) => sum + share, 0)
  for (const [tray, share] of shares.entries()) {
    const rate = (settings.placePaces?.[tray] ?? 1) * Math.exp(settings.traySpread * source.normal())
    trayWeightsG.push((settings.startWeightG * share) / whole)
    traysX.push(
      dryTray(
        {
          ...settings.slab,
          startX,
          diffusionRate: settings.slab.diffusionRate * rate,
          evaporationRate: settings.slab.evaporationRate * rate,
        },
        grid,
        12,
        gridH,
      ).meanX,
    )
  }
  const xAt = (tray: number, hours: number) => {
    const place = Math.min(points - 1, Math.max(0, hours / gridH))
    const left = Math.min(points - 2, Math.floor(place))
    const curve = traysX[tray]!
    return curve[left]! + (curve[left + 1]! - curve[left]!) * (place - left)
  }
  const traysAt = (hours: number) => trayWeightsG.map((weight, tray) => weight * settings.solids * (1 + xAt(tray, hours)))
  const weightAt = (hours: number) => traysAt(hours).reduce((sum, weight) => sum + weight, 0)
  return {
    trayWeightsG,
    traysAt,
    weightAt,
    hoursTo: targetMoisture => firstBelow(weightAt, (settings.startWeightG * settings.solids) / (1 - targetMoisture), grid[points - 1]!),
    trayHoursTo: (tray, targetMoisture) => firstBelow(hours => xAt(tray, hours), dryBasis(targetMoisture), grid[points - 1]!),
  }
}

/** First hour at which a falling quantity is at or below a value, by halving; Infinity if not by the horizon. */
function firstBelow(quantity: (hours: number) => number, value: number, horizonH: number): number {
  if (quantity(horizonH) > value) return Infinity
  let low = 0
  let high = horizonH
  while (high - low > 1e-4) {
    const middle = 0.5 * (low + high)
    if (quantity(middle) > value) low = middle
    else high = middle
  }
  return high
}
