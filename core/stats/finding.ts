import { sdLogOf, type Interval } from './interval'

/** Something found on the logarithm, and its doubt as a standard deviation. */
export interface Finding {
  log: number
  doubt: number
}

/**
 * What was read under a wide belief, without that belief, which would pull a doubtful reading to its own middle.
 * @returns undefined where the reading says no more than the belief did
 */
export function withoutBelief({ p10, p50, p90 }: Interval, belief: Finding): Finding | undefined {
  if (!(p10 > 0 && Number.isFinite(p90))) return undefined
  const variance = Math.max(1e-6, sdLogOf({ p10, p90 }) ** 2)
  const own = 1 / variance - 1 / belief.doubt ** 2
  if (!(own > 0)) return undefined
  return { log: (Math.log(p50) / variance - belief.log / belief.doubt ** 2) / own, doubt: Math.sqrt(1 / own) }
}
