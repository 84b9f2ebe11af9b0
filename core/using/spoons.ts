import type { Interval } from '../stats'

/** A level metric tablespoon. */
const TABLESPOON_ML = 15

/**
 * Level tablespoons in a weight of powder. The density is seldom known, so the answer is a range.
 * @param densityGMl of the powder as spooned, g/mL
 */
export function tablespoonsOf(weightG: number, densityGMl: Interval): Interval {
  const spoons = (density: number) => weightG / (density * TABLESPOON_ML)
  return { p10: spoons(densityGMl.p90), p50: spoons(densityGMl.p50), p90: spoons(densityGMl.p10) }
}
