import { SUN_HOURS } from '../ways'
import { pacePerHour, type DryingClock } from '../kinetics'
import { DAY, HOUR } from '../time'

/** A spell that was ended by hand and is no longer was a long summer's day, not a night forgotten. */
const LONGEST_DAY_H = 14

interface Stretch {
  from: number
  to: number
}

/** What is known of the sun of a run's days: an instant of any day stands for its time of day. */
export interface SunTold {
  /** When the sun dries, by the season and the place. */
  dries?: Stretch
  /** When it was said to come in. */
  duskAt?: number
}

/** The same time of day as an instant's, on the day that begins with another. */
const onDayOf = (from: number, at: number) => from + ((((at - from) % DAY) + DAY) % DAY)

/** The first day of sun from an instant on: the season's, until the dusk that was entered; else eight hours from going out. */
function dayFrom(out: number, { dries, duskAt }: SunTold): Stretch & { known: boolean } {
  if (dries) {
    const to = onDayOf(out, dries.to)
    const from = to - (dries.to - dries.from)
    const dusk = duskAt === undefined ? to : onDayOf(from, duskAt)
    return { from, to: Math.min(to, dusk), known: true }
  }
  const hours = duskAt === undefined ? undefined : (onDayOf(out, duskAt) - out) / HOUR
  // What went out after the dusk of another day has a usual day.
  return hours !== undefined && hours < LONGEST_DAY_H
    ? { from: out, to: out + hours * HOUR, known: true }
    : { from: out, to: out + SUN_HOURS * HOUR, known: false }
}

/** The sun of a spell outdoors, day by day; what was left out over night counts by day. */
function* daysOf({ from, to }: Stretch, told: SunTold): Generator<Stretch> {
  const first = dayFrom(from, told)
  // A day that was ended by hand was as long as it was, where nobody knows its sun.
  if (!first.known && to - from < LONGEST_DAY_H * HOUR) return yield { from, to }
  for (let i = 0; first.from + i * DAY < to; i++) {
    const day = { from: Math.max(from, first.from + i * DAY), to: Math.min(to, first.to + i * DAY) }
    if (day.to > day.from) yield day
  }
}

/**
 * The clock of food that dries by day only: the hours of sun while it is out, whether it was written down that it came in at dusk or not; what
 * is to come as well, while it stands indoors for the night.
 * @param referenceC heat of the card, °C
 */
export function sunClock(clock: DryingClock, referenceC: number, told: SunTold = {}): DryingClock {
  if (clock.spells.length === 0) return clock
  let real = 0
  let equivalent = 0
  const marks = clock.spells.map(({ from, to = Infinity, setC }) => {
    const mark = { from, to, worth: pacePerHour(setC, referenceC), real, equivalent }
    const hours = sunUntil(mark, to)
    real += hours
    equivalent += hours * mark.worth
    return mark
  })
  function sunUntil(spell: Stretch, at: number): number {
    if (Math.min(spell.to, at) === Infinity) return Infinity
    let hours = 0
    for (const { from, to } of daysOf(spell, told)) {
      if (from >= at) break
      hours += (Math.min(to, at) - from) / HOUR
    }
    return hours
  }
  const last = marks.at(-1)!
  const markAt = (at: number) => marks.findLast(mark => mark.from <= at)
  /** When so many hours of a stretch are over, and what is left of them after it. */
  const within = (spell: Stretch, hours: number): { at?: number; left: number } => {
    let left = hours
    for (const { from, to } of daysOf(spell, told)) {
      if (left <= (to - from) / HOUR) return { at: from + left * HOUR, left: 0 }
      left -= (to - from) / HOUR
    }
    return { left }
  }
  return {
    ...clock,
    hoursAt(at) {
      const mark = markAt(at)
      return mark ? mark.real + sunUntil(mark, at) : 0
    },
    equivalentHoursAt(at) {
      const mark = markAt(at)
      return mark ? mark.equivalent + sunUntil(mark, at) * mark.worth : 0
    },
    instantAt(equivalentHours) {
      if (equivalentHours === Infinity) return Infinity
      const mark = marks.find(item => equivalentHours <= item.equivalent + sunUntil(item, item.to) * item.worth) ?? last
      const { at, left } = within(mark, (equivalentHours - mark.equivalent) / mark.worth)
      if (at !== undefined) return at
      // More than the last spell gave: from the next morning on.
      const morning = mark.from + (Math.floor((mark.to - mark.from) / DAY) + 1) * DAY
      return within({ from: morning, to: Infinity }, left).at!
    },
  }
}
