import { HOUR } from '#core/time'
const STALE_MS = 6 * HOUR

/** Room air that may stand in for a new reading: older than six hours it is another day's weather, and must not enter the log as today's. */
export function recentAir<Air extends { at: number }>(air: Air | undefined, now: number): Air | undefined {
  return air && now - air.at < STALE_MS ? air : undefined
}
