import { Temporal } from 'temporal-polyfill'
import { MINUTE } from '../time'

/** How the dates of a file are written: 3/4 is the third of April, or March the fourth. */
export type DayOrder = 'dayFirst' | 'monthFirst'

/** A time of a file, before it is known where on earth it was. */
export interface LocalTime {
  year: number
  month: number
  day: number
  hour: number
  minute: number
  second: number
  offsetMinutes?: number
}

const ISO = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T\s]+(.+))?$/
const PARTS = /^(\d{1,2})([./-])(\d{1,2})[./-](\d{4}|\d{2})(?:[,\s]+(.+))?$/
const CLOCK = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?\s*([ap]\.?m\.?)?\s*(Z|[+-]\d{2}:?\d{2})?$/i
/** Seconds or milliseconds since 1970: from 2001 on. */
const EPOCH = /^(\d{10}|\d{13})$/

/**
 * Reads a time as loggers write it: ISO 8601, dates by day or month first with a clock of 12 or 24 hours,
 * or seconds since 1970.
 * @returns undefined where it is not a time
 */
export function parseLocalTime(text: string, order: DayOrder): LocalTime | undefined {
  const clean = text.trim()
  if (EPOCH.test(clean)) {
    const at = Temporal.Instant.fromEpochMilliseconds(clean.length === 10 ? Number(clean) * 1000 : Number(clean)).toZonedDateTimeISO('UTC')
    return { year: at.year, month: at.month, day: at.day, hour: at.hour, minute: at.minute, second: at.second, offsetMinutes: 0 }
  }
  const iso = ISO.exec(clean)
  if (iso) return withClock(Number(iso[1]), Number(iso[2]), Number(iso[3]), iso[4])
  const parts = PARTS.exec(clean)
  if (!parts) return undefined
  const [first, second] = [Number(parts[1]), Number(parts[3])]
  const year = parts[4]!.length === 2 ? 2000 + Number(parts[4]) : Number(parts[4])
  return order === 'dayFirst' ? withClock(year, second, first, parts[5]) : withClock(year, first, second, parts[5])
}

function withClock(year: number, month: number, day: number, clock: string | undefined): LocalTime | undefined {
  if (month < 1 || month > 12 || day < 1 || day > 31) return undefined
  if (clock === undefined) return { year, month, day, hour: 0, minute: 0, second: 0 }
  const match = CLOCK.exec(clock.trim())
  if (!match) return undefined
  let hour = Number(match[1])
  if (match[4]) hour = (hour % 12) + (/^p/i.test(match[4]) ? 12 : 0)
  const [minute, second] = [Number(match[2]), Number(match[3] ?? 0)]
  if (hour > 23 || minute > 59 || second > 59) return undefined
  return { year, month, day, hour, minute, second, offsetMinutes: match[5] ? offsetOf(match[5]) : undefined }
}

function offsetOf(text: string): number {
  if (/^z$/i.test(text)) return 0
  const digits = text.slice(1).replace(':', '')
  return (text.startsWith('-') ? -1 : 1) * (Number(digits.slice(0, 2)) * 60 + Number(digits.slice(2)))
}

/**
 * The instant of a time on the clocks of a zone. In the hour that autumn has twice it is the one that
 * goes on from the line before; in the hour that spring leaves out, the clock is taken to run on.
 * @param before instant of the line above, if any
 * @returns undefined for a day that does not exist
 */
export function instantOf(time: LocalTime, timeZone: string, before?: number): number | undefined {
  const { offsetMinutes, ...fields } = time
  try {
    const plain = Temporal.PlainDateTime.from(fields, { overflow: 'reject' })
    if (offsetMinutes !== undefined) return plain.toZonedDateTime('UTC').epochMilliseconds - offsetMinutes * MINUTE
    const earlier = plain.toZonedDateTime(timeZone, { disambiguation: 'compatible' }).epochMilliseconds
    if (before === undefined || earlier >= before) return earlier
    const later = plain.toZonedDateTime(timeZone, { disambiguation: 'later' }).epochMilliseconds
    return later >= before ? later : earlier
  } catch {
    return undefined
  }
}

/** Which order the dates of a file are in, as far as they tell: a part above 12 is a day; dots are European. */
export function dayOrderOf(texts: readonly string[]): { order: DayOrder; sure: boolean } {
  for (const text of texts) {
    const parts = PARTS.exec(text.trim())
    if (!parts) continue
    if (Number(parts[1]) > 12) return { order: 'dayFirst', sure: true }
    if (Number(parts[3]) > 12) return { order: 'monthFirst', sure: true }
  }
  const numbered = texts.map(text => PARTS.exec(text.trim())).find(Boolean)
  if (!numbered) return { order: 'dayFirst', sure: true }
  const american = texts.some(text => /[ap]\.?m/i.test(text))
  return numbered[2] === '.' ? { order: 'dayFirst', sure: true } : { order: american ? 'monthFirst' : 'dayFirst', sure: false }
}
