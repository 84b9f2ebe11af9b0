import type { Interval } from '../stats'

/** Share of the fresh strength that is left after so many months, by the half-life of this food here. */
export function strengthAfter(months: number, halfLife: Interval): Interval {
  const left = (half: number) => Math.pow(2, -Math.max(0, months) / half)
  return { p10: left(halfLife.p10), p50: left(halfLife.p50), p90: left(halfLife.p90) }
}
