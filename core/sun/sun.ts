import { addTime, getTimes } from 'suncalc'
import { Temporal } from 'temporal-polyfill'
import type { Interval } from '../stats'
import { startOfDay, type Household } from '../planning/day'
import { DAY, HOUR, MINUTE } from '../time'

/** Where a household lives, degrees north and east. */
export interface Place {
  latitude: number
  longitude: number
}

/**
 * The sun dries while it stands so high, degrees: by it a day between May and September at 45° has some eight hours, as practice counts them
 * (from nine to dusk, less its edges), one in December none.
 */
const DRIES_FROM = 25
addTime(DRIES_FROM, 'driesFrom', 'driesTo')

/** Of zones that change their clocks, on either side of the equator, and of others: of them only the name is known. */
const GUESSED = { north: 45, south: -35, even: 15 }

/** Where it lives as it was entered; else a guess by its clock: how far east by its standard time, how far north by when it is summer. */
export function placeOf({ timeZone, latitude, longitude }: Household): Place & { guessed: boolean } {
  if (typeof latitude === 'number' && typeof longitude === 'number') return { latitude, longitude, guessed: false }
  const hoursIn = (month: number) =>
    Temporal.Instant.from(`2025-${month < 10 ? '0' : ''}${month}-15T12:00:00Z`).toZonedDateTimeISO(timeZone).offsetNanoseconds / 3.6e12
  const [january, july] = [hoursIn(1), hoursIn(7)]
  return {
    latitude: july > january ? GUESSED.north : july < january ? GUESSED.south : GUESSED.even,
    longitude: 15 * Math.min(january, july),
    guessed: true,
  }
}

/** A day's sun: when it dries, and when it sets; where it dries nothing all day, only the dusk. */
export interface SunDay {
  dries?: { from: number; to: number }
  /** Undefined where it does not set. */
  dusk?: number
}

/**
 * The sun of a day at a place.
 * @param day its local midnight
 */
export function sunDay(day: number, { latitude, longitude }: Place): SunDay {
  const times = getTimes(new Date(day + DAY / 2), latitude, longitude)
  const at = (name: string) => (times[name] instanceof Date ? times[name].getTime() : undefined)
  const [from, to] = [at('driesFrom'), at('driesTo')]
  return { dries: from === undefined || to === undefined ? undefined : { from, to }, dusk: at('sunset') }
}

/** Food comes in before the sun is down, while the air is dry yet. */
const BEFORE_DUSK = 30 * MINUTE
/** Where it does not set. */
const LATE = 21 * 60

/** When food outdoors comes in on the day of an instant, in minutes after midnight, to the quarter of an hour. */
export function usualDuskMinute(at: number, household: Household): number {
  const day = startOfDay(at, household.timeZone)
  const { dusk } = sunDay(day, placeOf(household))
  return dusk === undefined ? LATE : 15 * Math.floor((dusk - BEFORE_DUSK - day) / (15 * MINUTE))
}

/** A stretch of sun, and its share of a clear sky's: in a bad, a middling and a good case. */
export interface SunSpell {
  from: number
  to: number
  share: Interval
}

/** Of a day that nobody foretold: it may be fair or not. */
const UNKNOWN = { p10: 0.35, p50: 0.75, p90: 1 }
/** With less sun than this a day dries nothing. */
const LEAST = 0.05
/** A fair forecast is a little too fair, in one case of ten. */
const BAD = 0.8

/**
 * The sun of a day with its sky; undefined where there is none.
 * @param day its local midnight
 * @param told share of sun and how likely rain is, 0 to 1; a day with rain may be lost
 */
function sunSpell(day: number, household: Household, told?: { sun: number; rain: number }): SunSpell | undefined {
  const { dries } = sunDay(day, placeOf(household))
  if (!dries) return undefined
  if (!told) return { ...dries, share: UNKNOWN }
  if (told.sun < LEAST) return undefined
  const p10 = Math.max(0.02, told.sun * (1 - told.rain) * BAD)
  return { ...dries, share: { p10, p50: Math.max(p10, told.sun * (1 - told.rain / 2)), p90: Math.max(p10, told.sun) } }
}

/** The sun of the days to come, in the order of time, as far as anybody asks. */
export function* sunAhead(
  from: number,
  household: Household,
  told: (day: number) => { sun: number; rain: number } | undefined = () => undefined,
): Generator<SunSpell> {
  for (let i = 0; i < MOST_DAYS; i++) {
    const day = startOfDay(from, household.timeZone, i)
    const spell = sunSpell(day, household, told(day))
    if (spell && spell.to > from) yield spell
  }
}
/** Within a year the sun comes back, wherever it is. */
const MOST_DAYS = 400

/** When so many hours of sun are over that begin at an instant; undefined where what is known of the days does not give them. */
export function afterSun(
  spells: Iterable<SunSpell>,
  startAt: number,
  hours: number,
  shareOf: (share: Interval) => number,
): number | undefined {
  let left = hours * HOUR
  for (const { from, to, share } of spells) {
    const open = Math.max(from, startAt)
    if (open >= to) continue
    const clear = shareOf(share)
    const gives = (to - open) * clear
    if (gives >= left) return Math.round(open + left / clear)
    left -= gives
  }
  return undefined
}
