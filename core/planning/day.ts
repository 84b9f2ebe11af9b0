import { Temporal } from 'temporal-polyfill'

/** What the planner needs to know of the people: where the clock hangs, and when they sleep. */
export interface Household {
  /** IANA name, such as `Europe/Lisbon`. */
  timeZone: string
  /** Minutes after midnight, local. Sleep may run past midnight. */
  sleepFrom: number
  sleepTo: number
  /** Where it lives, degrees north and east; by its clock where nobody said. */
  latitude?: number | null
  longitude?: number | null
}

const zoned = (at: number, timeZone: string) => Temporal.Instant.fromEpochMilliseconds(Math.round(at)).toZonedDateTimeISO(timeZone)

/** Local midnight before an instant, as an instant. Days with a change of clocks are longer or shorter. */
export function startOfDay(at: number, timeZone: string, daysOn = 0): number {
  return zoned(at, timeZone).toPlainDate().add({ days: daysOn }).toZonedDateTime(timeZone).epochMilliseconds
}

/** A time of day of an instant's date, or of a later one, as an instant. */
export function atMinuteOfDay(at: number, timeZone: string, minute: number, daysOn: number): number {
  return zoned(at, timeZone)
    .toPlainDate()
    .add({ days: daysOn })
    .toZonedDateTime({ timeZone, plainTime: new Temporal.PlainTime(Math.floor(minute / 60) % 24, minute % 60) }).epochMilliseconds
}

/** The night that an instant falls in, or the next one to come. */
export function sleepAround(at: number, household: Household): { from: number; to: number } {
  const { timeZone, sleepFrom, sleepTo } = household
  for (const day of [-1, 0, 1]) {
    const from = atMinuteOfDay(at, timeZone, sleepFrom, day)
    const to = atMinuteOfDay(at, timeZone, sleepTo, sleepTo <= sleepFrom ? day + 1 : day)
    if (at < to) return { from, to }
  }
  throw new RangeError('no night found around the instant')
}

/** People sleep then. */
export const isAsleep = (at: number, household: Household) => at >= sleepAround(at, household).from

/** The instant itself, or the end of the night that it falls in. */
export function nextWaking(at: number, household: Household): number {
  const night = sleepAround(at, household)
  return at >= night.from ? night.to : at
}
