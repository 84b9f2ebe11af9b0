import { quantileSorted } from 'simple-statistics'

/** An uncertain quantity: its 10th, 50th and 90th percentile, in the unit of the quantity. */
export interface Interval {
  p10: number
  p50: number
  p90: number
}

/** 90th percentile of the standard normal, to double precision. */
export const Z_90 = 1.2815515655446004

/**
 * The interval of a set of draws. Infinite draws are allowed and sort last.
 * @param draws at least one number, in any order; not changed.
 */
export function intervalOf(draws: ArrayLike<number>): Interval {
  const sorted = Float64Array.from(draws).sort()
  const at = (p: number) => {
    // Interpolating between a finite and an infinite draw would give NaN or infinity at random.
    const index = Math.min(sorted.length - 1, Math.floor(p * sorted.length))
    return Number.isFinite(sorted[index]!) && Number.isFinite(sorted[Math.min(index + 1, sorted.length - 1)]!)
      ? quantileSorted(sorted as unknown as number[], p)
      : sorted[index]!
  }
  return { p10: at(0.1), p50: at(0.5), p90: at(0.9) }
}

/** Interval of a normal quantity; `floor` cuts it where lower values have no meaning. */
export function intervalFromNormal(mean: number, sd: number, floor = -Infinity): Interval {
  return {
    p10: Math.max(floor, mean - Z_90 * sd),
    p50: Math.max(floor, mean),
    p90: Math.max(floor, mean + Z_90 * sd),
  }
}

/** Interval of a positive quantity whose logarithm is normal: `median` in its unit, `sdLog` relative. */
export function intervalFromLogNormal(median: number, sdLog: number): Interval {
  return { p10: median * Math.exp(-Z_90 * sdLog), p50: median, p90: median * Math.exp(Z_90 * sdLog) }
}

/** Applies a monotonic function to each figure; a falling function turns the ends round. */
export function mapInterval(interval: Interval, change: (value: number) => number): Interval {
  const a = change(interval.p10)
  const b = change(interval.p90)
  return { p10: Math.min(a, b), p50: change(interval.p50), p90: Math.max(a, b) }
}

/** Standard deviation of what an interval is of, where it is normal. */
export function sdOf({ p10, p90 }: Pick<Interval, 'p10' | 'p90'>): number {
  return (p90 - p10) / (2 * Z_90)
}

/** Standard deviation of the logarithm of what an interval is of, where it is log-normal. */
export function sdLogOf({ p10, p90 }: Pick<Interval, 'p10' | 'p90'>): number {
  return Math.log(p90 / p10) / (2 * Z_90)
}
