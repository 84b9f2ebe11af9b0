import { intervalFromLogNormal, type Interval } from '../stats'

/** What a nose says of a jar, so many months after it was packed. */
export interface SmellPoint {
  months: number
  smell: 'strong' | 'weaker' | 'crushed' | 'none'
}

export interface Strength {
  /** Months in which the strength halves. */
  halfLife: Interval
  /** Share of the fresh strength, with its doubt. */
  curve: { month: number; strength: Interval }[]
  /** Smell tests in it. */
  tests: number
}

/** Shares of the fresh strength that the words stand for (common practice): at or above it, and below the one before. */
const AT_LEAST: Record<SmellPoint['smell'], number> = { strong: 0.65, weaker: 0.35, crushed: 0.12, none: 0 }
const BELOW: Record<SmellPoint['smell'], number> = { strong: Infinity, weaker: 0.65, crushed: 0.35, none: 0.12 }
/** How far a nose is off, and how little the usual months say of one food: standard deviations of the logarithm. */
const NOSE_SD = 0.3
const PRIOR_SD = 0.5
const GRID = 161
const SPAN = 4
const POINTS = 13

/**
 * How a food fades in this household: exponential, its half-life learned from smell tests, beginning at the
 * middle of its usual months of best quality, where it is held to have lost half. Words stand for bands
 * of strength, and the posterior is summed over a grid.
 * @param months usual months of best quality
 */
export function strengthOf(months: { low: number; high: number }, tests: readonly SmellPoint[], upTo = 24): Strength {
  const prior = Math.log(Math.sqrt(months.low * months.high))
  const grid = Array.from({ length: GRID }, (_, i) => prior + PRIOR_SD * SPAN * ((2 * i) / (GRID - 1) - 1))
  const weights = grid.map(log => {
    const half = Math.exp(log)
    const likely = tests.reduce((product, { months: age, smell }) => {
      const strength = (-Math.LN2 * age) / half
      return product * Math.max(1e-6, below(BELOW[smell], strength) - below(AT_LEAST[smell], strength))
    }, 1)
    return likely * Math.exp(-0.5 * ((log - prior) / PRIOR_SD) ** 2)
  })
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  const mean = grid.reduce((sum, log, i) => sum + log * weights[i]!, 0) / total
  const sd = Math.sqrt(grid.reduce((sum, log, i) => sum + (log - mean) ** 2 * weights[i]!, 0) / total)
  const halfLife = intervalFromLogNormal(Math.exp(mean), sd)
  const left = (month: number, half: number) => Math.pow(2, -month / half)
  return {
    halfLife,
    tests: tests.length,
    curve: Array.from({ length: POINTS }, (_, i) => {
      const month = (i * upTo) / (POINTS - 1)
      return { month, strength: { p10: left(month, halfLife.p10), p50: left(month, halfLife.p50), p90: left(month, halfLife.p90) } }
    }),
  }
}

/** Chance that a nose puts a strength (its logarithm) below a bound. */
function below(bound: number, logStrength: number): number {
  if (bound === Infinity) return 1
  if (bound === 0) return 0
  return 1 / (1 + Math.exp((-1.702 * (Math.log(bound) - logStrength)) / NOSE_SD))
}

/** How much more of a faded powder does the work of fresh: 1 over its strength. */
export const useMore = (strength: number) => 1 / Math.max(0.05, strength)
