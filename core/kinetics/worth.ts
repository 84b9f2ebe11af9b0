import type { Interval } from '../stats'
import { dryness } from './bodies'
import { MODEL } from './model'
import { weightAt, type Curve, type Posterior } from './posterior'
import type { DryingRun, WeighingWorth } from './types'

/** Draws of the posterior, one number a curve: finish, and the load's weight at the hour asked. */
interface Question {
  hours: number
  finishes: Float64Array
  weights: Float64Array
  sdG: number
}

/**
 * How far the finish window would shrink by a weighing at an hour, before it is taken: in the draws,
 * finish and weight hang together, and a weight with error `sdG` takes that share of the finish's spread
 * away (the linear rule of Gauss).
 * @returns undefined where fewer than half of the curves ever finish
 */
export function worthOfWeighing({ hours, finishes, weights, sdG }: Question): WeighingWorth | undefined {
  let count = 0
  let meanF = 0
  let meanW = 0
  for (let i = 0; i < finishes.length; i++) {
    if (!Number.isFinite(finishes[i]!)) continue
    count++
    meanF += finishes[i]!
    meanW += weights[i]!
  }
  if (count < finishes.length / 2) return undefined
  meanF /= count
  meanW /= count
  let varF = 0
  let varW = 0
  let both = 0
  for (let i = 0; i < finishes.length; i++) {
    if (!Number.isFinite(finishes[i]!)) continue
    const f = finishes[i]! - meanF
    const w = weights[i]! - meanW
    varF += f * f
    varW += w * w
    both += f * w
  }
  if (varF === 0) return { hours, shrinksTo: 1 }
  const told = (both * both) / (varF * (varW + count * sdG * sdG))
  return { hours, shrinksTo: Math.sqrt(Math.max(0, 1 - told)) }
}

/** Shares of the way from the last weighing to the finish at which a next one is weighed up. */
const AHEAD = [0.25, 0.5, 0.75, 1]

/** What a weighing ahead would buy, at some hours between the last one and the finish. */
export function worthAhead(
  run: DryingRun,
  { curves, spare }: Posterior,
  finishes: Float64Array,
  nowH: number,
  finish: Interval,
): WeighingWorth[] {
  if (!Number.isFinite(finish.p50) || finish.p50 <= nowH) return []
  return AHEAD.flatMap(share => {
    const hours = nowH + share * (finish.p50 - nowH)
    let mean = 0
    let free = 0
    const weights = Float64Array.from(curves, (curve, i) => {
      // What bends the rest of the way has bent this share of it by then.
      const bent = share * deviationAhead(curve, hours, spare[i]!)
      const weight = curve.plateauG + (weightAt(curve, hours) - curve.plateauG) * Math.exp(bent)
      mean += weight / curves.length
      free += (weight - curve.plateauG) / curves.length
      return weight
    })
    const between = MODEL.wander * share * (1 - share) * 2
    const sdG = Math.hypot((run.scale?.resolutionG ?? 1) / Math.sqrt(12), MODEL.handling * mean, free * Math.sqrt(between))
    return worthOfWeighing({ hours, finishes, weights, sdG }) ?? []
  })
}

/** Deviation that has come up since the last weighing. */
function deviationAhead(curve: Curve, hours: number, z: number): number {
  const way = Math.max(0, dryness(curve.body, Math.log(hours) - curve.lnScale) - curve.lastY)
  return Math.sqrt(MODEL.wander * way) * z
}
