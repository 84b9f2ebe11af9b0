import { SUN_HOURS } from '../ways'
import { pacePerHour, type DryingClock } from '../kinetics'
import { DAY, HOUR } from '../time'

/** A spell that was ended by hand and is no longer was a long summer's day, not a night forgotten. */
const LONGEST_DAY_H = 14

/** Hours of sun of a spell until an instant: what was left out over night counts by day. */
function sunUntil({ from, to }: { from: number; to: number }, at: number): number {
  const hours = (Math.min(to, at) - from) / HOUR
  if (hours === Infinity) return Infinity
  const byHand = to - from < LONGEST_DAY_H * HOUR
  return byHand ? hours : Math.floor(hours / 24) * SUN_HOURS + Math.min(hours % 24, SUN_HOURS)
}

/**
 * The clock of food that dries by day only: so many hours a day, from the time of day at which it went out, whether it was
 * written down that it came in at dusk or not; what is to come as well, while it stands indoors for the night.
 * @param referenceC heat of the card, °C
 */
export function sunClock(clock: DryingClock, referenceC: number): DryingClock {
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
  const last = marks.at(-1)!
  const markAt = (at: number) => marks.findLast(mark => mark.from <= at)
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
      let hours = (equivalentHours - mark.equivalent) / mark.worth
      let from = mark.from
      const had = sunUntil(mark, mark.to)
      if (hours <= had && had < LONGEST_DAY_H) return from + hours * HOUR
      // More than the last spell gave: from the next morning on.
      if (hours > had) {
        from += (Math.floor((mark.to - mark.from) / DAY) + 1) * DAY
        hours -= had
      }
      const days = Math.max(0, Math.ceil(hours / SUN_HOURS) - 1)
      return from + days * DAY + (hours - days * SUN_HOURS) * HOUR
    },
  }
}
