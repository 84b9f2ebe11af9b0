import { SUN_HOURS } from '../ways'
import { pacePerHour, type DryingClock } from '../kinetics'
import { DAY, HOUR } from '../time'

/** A spell that was ended by hand and is no longer was a long summer's day, not a night forgotten. */
const LONGEST_DAY_H = 14

/** A spell outdoors, and how many hours of a day in it are sun. */
interface Outdoors {
  from: number
  to: number
  dayH: number
  /** Nothing dries after dusk, whoever brings it in; without a dusk a day that was ended by hand was as long as it was. */
  dusk: boolean
}

/** Hours from going out to the dusk that was entered, on whatever day that was; a usual day's where it went out after it. */
function dayFrom(from: number, duskAt: number | undefined): Pick<Outdoors, 'dayH' | 'dusk'> {
  if (duskAt === undefined) return { dayH: SUN_HOURS, dusk: false }
  const dayH = ((((duskAt - from) % DAY) + DAY) % DAY) / HOUR
  return dayH < LONGEST_DAY_H ? { dayH, dusk: true } : { dayH: SUN_HOURS, dusk: false }
}

const byHand = ({ from, to, dusk }: Outdoors) => !dusk && to - from < LONGEST_DAY_H * HOUR

/** Hours of sun of a spell until an instant: what was left out over night counts by day. */
function sunUntil(spell: Outdoors, at: number): number {
  const hours = (Math.min(spell.to, at) - spell.from) / HOUR
  if (hours === Infinity) return Infinity
  return byHand(spell) ? hours : Math.floor(hours / 24) * spell.dayH + Math.min(hours % 24, spell.dayH)
}

/**
 * The clock of food that dries by day only: so many hours a day, from the time of day at which it went out, whether it was
 * written down that it came in at dusk or not; what is to come as well, while it stands indoors for the night.
 * @param referenceC heat of the card, °C
 * @param duskAt a dusk, of whatever day, where one was entered
 */
export function sunClock(clock: DryingClock, referenceC: number, duskAt?: number): DryingClock {
  if (clock.spells.length === 0) return clock
  let real = 0
  let equivalent = 0
  const marks = clock.spells.map(({ from, to = Infinity, setC }) => {
    const mark = { from, to, ...dayFrom(from, duskAt), worth: pacePerHour(setC, referenceC), real, equivalent }
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
      if (hours <= had && byHand(mark)) return from + hours * HOUR
      // More than the last spell gave: from the next morning on.
      if (hours > had) {
        from += (Math.floor((mark.to - mark.from) / DAY) + 1) * DAY
        hours -= had
      }
      const days = Math.max(0, Math.ceil(hours / mark.dayH) - 1)
      return from + days * DAY + (hours - days * mark.dayH) * HOUR
    },
  }
}
