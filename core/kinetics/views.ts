import type { Interval } from '../stats'
import type { DryingEstimate } from './types'

/** Ways to look at a drying run: grams, water wet basis 0–1, or grams of water that leave an hour. */
export type CurveView = 'weight' | 'moisture' | 'rate'

export interface ViewPoint { hours: number, value: Interval }

/** What the estimate's curve is in a view, and the band that the target is there; a rate has none. */
export function curveIn(view: CurveView, { curve, solidsG, targetWeightG }: Pick<DryingEstimate, 'curve' | 'solidsG' | 'targetWeightG'>): { points: ViewPoint[], target?: Interval } {
  if (view === 'weight') return { points: curve.map(({ hours, weightG }) => ({ hours, value: weightG })), target: targetWeightG }
  if (view === 'moisture') {
    const water = (weightG: number) => Math.max(0, 1 - solidsG.p50 / weightG)
    const target = 1 - solidsG.p50 / targetWeightG.p50
    return {
      points: curve.map(({ hours, weightG }) => ({ hours, value: { p10: water(weightG.p10), p50: water(weightG.p50), p90: water(weightG.p90) } })),
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
export function weighingsIn(view: CurveView, weighings: readonly { hours: number, weightG: number }[], solidsG: number): { hours: number, value: number }[] {
  if (view === 'weight') return weighings.map(({ hours, weightG }) => ({ hours, value: weightG }))
  if (view === 'moisture') return weighings.map(({ hours, weightG }) => ({ hours, value: Math.max(0, 1 - solidsG / weightG) }))
  return weighings.slice(1).flatMap(({ hours, weightG }, i) => {
    const before = weighings[i]!
    return hours > before.hours ? [{ hours: (before.hours + hours) / 2, value: (before.weightG - weightG) / (hours - before.hours) }] : []
  })
}
