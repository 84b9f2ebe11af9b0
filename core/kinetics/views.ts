import type { Interval } from '../stats'
import type { DryingClock } from './clock'
import type { DryingEstimate } from './types'

/** Ways to look at a drying run: grams, water wet basis 0–1, or grams of water that leave an hour. */
export type CurveView = 'weight' | 'moisture' | 'rate'

export interface ViewPoint {
  hours: number
  value: Interval
}

/** What the estimate's curve is in a view, and the band that the target is there; a rate has none. */
export function curveIn(
  view: CurveView,
  { curve, solidsG, targetWeightG }: Pick<DryingEstimate, 'curve' | 'solidsG' | 'targetWeightG'>,
): { points: ViewPoint[]; target?: Interval } {
  if (view === 'weight') return { points: curve.map(({ hours, weightG }) => ({ hours, value: weightG })), target: targetWeightG }
  if (view === 'moisture') {
    const water = (weightG: number) => Math.max(0, 1 - solidsG.p50 / weightG)
    const target = 1 - solidsG.p50 / targetWeightG.p50
    return {
      points: curve.map(({ hours, weightG }) => ({
        hours,
        value: { p10: water(weightG.p10), p50: water(weightG.p50), p90: water(weightG.p90) },
      })),
      target: { p10: target, p50: target, p90: target },
    }
  }
  // Differences between neighbours stand at the hour between them. The band tells nothing of slopes.
  return {
    points: curve.slice(1).map(({ hours, weightG }, i) => {
      const before = curve[i]!
      const rate = Math.max(0, (before.weightG.p50 - weightG.p50) / (hours - before.hours))
      return { hours: (before.hours + hours) / 2, value: { p10: rate, p50: rate, p90: rate } }
    }),
  }
}

/** The weighings themselves in a view, the loaded weight first. */
export function weighingsIn(
  view: CurveView,
  weighings: readonly { hours: number; weightG: number }[],
  solidsG: number,
): { hours: number; value: number }[] {
  if (view === 'weight') return weighings.map(({ hours, weightG }) => ({ hours, value: weightG }))
  if (view === 'moisture') return weighings.map(({ hours, weightG }) => ({ hours, value: Math.max(0, 1 - solidsG / weightG) }))
  return weighings.slice(1).flatMap(({ hours, weightG }, i) => {
    const before = weighings[i]!
    return hours > before.hours ? [{ hours: (before.hours + hours) / 2, value: (before.weightG - weightG) / (hours - before.hours) }] : []
  })
}

/** Points of a curve between two instants. */
const POINTS = 90

/**
 * A curve on the clock as people read it: hours of heat that have passed, and will. Where the heat was
 * off the curve steps back by what the food took up.
 * @param points of the curve, in hours of the run's equivalent clock
 * @param endAt instant to which it is drawn; the heat must be on then, or what lies ahead is left out
 */
export function overHeat(points: readonly ViewPoint[], clock: DryingClock, startAt: number, endAt: number): ViewPoint[] {
  const edges = clock.spells.flatMap(spell => [spell.from, spell.to ?? endAt]).filter(at => at >= startAt && at <= endAt)
  const steps = Array.from({ length: POINTS + 1 }, (_, i) => startAt + ((endAt - startAt) * i) / POINTS)
  const seen = [...steps, ...edges]
    .sort((a, b) => a - b)
    .filter(at => clock.spells.some(spell => at >= spell.from && at <= (spell.to ?? Infinity)))
  return seen.map(at => ({ hours: clock.hoursAt(at), value: valueAt(points, clock.equivalentHoursAt(at)) }))
}

/** A curve's value at an hour, between its points; that of its ends beyond them. */
export function valueAt(points: readonly ViewPoint[], hours: number): Interval {
  const after = points.findIndex(point => point.hours >= hours)
  if (after <= 0) return points.at(after < 0 ? -1 : 0)!.value
  const [a, b] = [points[after - 1]!, points[after]!]
  const share = (hours - a.hours) / (b.hours - a.hours)
  const mix = (key: keyof Interval) => a.value[key] + (b.value[key] - a.value[key]) * share
  return { p10: mix('p10'), p50: mix('p50'), p90: mix('p90') }
}

/** A tray's weighings as the share of its own loaded water that was left, 0–1, the loading first. */
export function trayCurve(
  loadedG: number,
  solidsShare: number,
  weighings: readonly { hours: number; weightG: number }[],
): { hours: number; value: number }[] {
  const solidsG = loadedG * solidsShare
  return [
    { hours: 0, value: 1 },
    ...weighings.map(({ hours, weightG }) => ({ hours, value: Math.min(1, Math.max(0, (weightG - solidsG) / (loadedG - solidsG))) })),
  ]
}
