import type { BestBy } from './bestBy'
import { DAY } from '../time'

/** Mean month of the Gregorian calendar. */
export const MONTH_MS = 30.436875 * DAY
/** A jar whose best time ends within this many days is to be used first. */
export const USE_FIRST_DAYS = 21

/** The best-by window in instants. */
export function bestByDates(packedAt: number, { months }: Pick<BestBy, 'months'>): { from: number; to: number } {
  return { from: Math.round(packedAt + months.low * MONTH_MS), to: Math.round(packedAt + months.high * MONTH_MS) }
}

export type Freshness = 'empty' | 'spoiled' | 'damp' | 'stale' | 'past' | 'use-first' | 'good'

const SPOILED: readonly string[] = ['mould', 'insects', 'rancid', 'musty']
const DAMP: readonly string[] = ['moisture', 'clumps']

/** Where a jar stands in its time. What eyes and nose find outweighs the calendar. */
export function freshnessOf(
  jar: { leftG: number; bestFrom: number; bestTo: number; smell?: string; saw?: string; warm?: boolean },
  now: number,
): Freshness {
  if (jar.leftG <= 0) return 'empty'
  if (jar.warm || SPOILED.includes(jar.smell ?? '') || SPOILED.includes(jar.saw ?? '')) return 'spoiled'
  if (DAMP.includes(jar.saw ?? '')) return 'damp'
  if (jar.smell === 'none') return 'stale'
  if (jar.bestTo < now) return 'past'
  return jar.bestFrom < now + USE_FIRST_DAYS * DAY ? 'use-first' : 'good'
}
