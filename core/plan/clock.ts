import { sleepAround, startOfDay, type Household } from '../planning/day'
import { DAY, HOUR } from '../time'
import type { Stretch } from './types'

/** Nights, days and absences of a stretch of time, looked up once: planning asks for them many thousand times. */
export class PlanClock {
  private readonly nights: Stretch[] = []
  private readonly days: number[] = []

  constructor(
    from: number,
    until: number,
    household: Household,
    private readonly away: readonly Stretch[],
  ) {
    for (let at = from - DAY; at < until + 4 * DAY;) {
      const night = sleepAround(at, household)
      this.nights.push(night)
      at = night.to + 1
    }
    for (let day = startOfDay(from, household.timeZone, -1), i = 0; day < until + 4 * DAY; i++) {
      this.days.push(day)
      day = startOfDay(from, household.timeZone, i)
    }
  }

  /** Somebody is awake and at home. */
  isUp(at: number): boolean {
    return !this.isAsleep(at) && !this.away.some(({ from, to }) => at >= from && at < to)
  }

  isAsleep(at: number): boolean {
    const night = this.nights[firstAfter(this.nights, at)]
    return night !== undefined && at >= night.from
  }

  /** Nights that lie at least in part between two instants. */
  nightsFrom(from: number, to: number): readonly Stretch[] {
    const first = firstAfter(this.nights, from)
    let last = first
    while (last < this.nights.length && this.nights[last]!.from < to) last++
    return this.nights.slice(first, last)
  }

  /** Somebody is awake and at home from the one to the other, without a gap. */
  isUpAllThrough(from: number, to: number): boolean {
    if (!this.isUp(from) || !this.isUp(to)) return false
    const night = this.nights[firstAfter(this.nights, from)]
    if (night && night.from < to) return false
    return !this.away.some(gap => gap.from < to && gap.to > from)
  }

  /** Hour of day, 0 to 23, counted from local midnight. */
  hourOf(at: number): number {
    return Math.floor((at - this.days[this.dayOf(at) - 1]!) / HOUR) % 24
  }

  /** Number of the day that an instant is of, by local midnight. */
  dayOf(at: number): number {
    let low = 0
    let high = this.days.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.days[middle]! <= at) low = middle + 1
      else high = middle
    }
    return low
  }
}

/** The first night that ends after an instant. */
function firstAfter(nights: readonly Stretch[], at: number): number {
  let low = 0
  let high = nights.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (nights[middle]!.to <= at) low = middle + 1
    else high = middle
  }
  return low
}
