import { atMinuteOfDay } from '../planning/day'
import type { SunSpell } from './types'

/** Sun that dries: from the dew to dusk, minutes after midnight (common practice). */
const FROM = 9 * 60
const TO = 18 * 60 + 30
/** Of a day that nobody foretold: it may be fair or not. */
const UNKNOWN = { p10: 0.35, p50: 0.75, p90: 1 }
/** With less sun than this a day dries nothing. */
const LEAST = 0.05
/** A fair forecast is a little too fair, in one case of ten. */
const BAD = 0.8

/**
 * The sun of a day, in a bad, a middling and a good case; undefined where there is none.
 * @param day its local midnight
 * @param told share of sun and how likely rain is, 0 to 1; a day with rain may be lost
 */
export function sunSpell(day: number, timeZone: string, told: { sun: number; rain: number } | undefined): SunSpell | undefined {
  const spell = { from: atMinuteOfDay(day, timeZone, FROM, 0), to: atMinuteOfDay(day, timeZone, TO, 0) }
  if (!told) return { ...spell, share: UNKNOWN }
  if (told.sun < LEAST) return undefined
  const p10 = Math.max(0.02, told.sun * (1 - told.rain) * BAD)
  return { ...spell, share: { p10, p50: Math.max(p10, told.sun * (1 - told.rain / 2)), p90: Math.max(p10, told.sun) } }
}
