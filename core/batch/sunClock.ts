import { SUN_HOURS } from '../ways'
import type { DryingClock } from '../kinetics'

const HOUR = 3_600_000
const DAY = 24 * HOUR

/**
 * The clock of food that dries by day only: what is to come takes so many hours a day, from the time of
 * day at which it last went out; tomorrow's too, while it stands indoors for the night.
 */
export function sunClock(clock: DryingClock): DryingClock {
  const last = clock.spells.at(-1)
  if (!last) return clock
  const begun = clock.equivalentHoursAt(last.from)
  // Of the spell that is going on, or was before the night.
  const today = last.to === undefined ? SUN_HOURS : (last.to - last.from) / HOUR
  const worth = (clock.equivalentHoursAt(last.from + today * HOUR) - begun) / Math.max(today, 1e-6)
  return {
    ...clock,
    instantAt(equivalentHours) {
      const hours = (equivalentHours - begun) / worth
      if (!(hours > today) || !(worth > 0)) return clock.instantAt(equivalentHours)
      const later = hours - today
      const days = Math.floor(later / SUN_HOURS)
      return last.from + (1 + days) * DAY + (later - days * SUN_HOURS) * HOUR
    },
  }
}
