import { startOfDay } from '../planning/day'
import { DAY, HOUR, MINUTE } from '../time'
import { PlanClock } from './clock'
import { optionOf } from './run'
import type { PlannedRun, PlanProblem } from './types'

/** Work that a plan brings, by the hour. */
export interface Ticket {
  kind: 'chill' | 'prepare' | 'freeze' | 'smoke' | 'load' | 'rotate' | 'takeOut' | 'finish'
  basketId: string
  at: number
  /** A window, where nobody knows it to the minute. */
  to?: number
  /** Minutes of hands; 0 for what takes none worth counting. */
  minutes: number
}

/** Minutes at the door: a turn of the trays; taking out counts with what comes after. */
const ROTATE_MINUTES = 5
const SLOT = 30 * MINUTE

/**
 * What hands do by a plan, in the order of time: into the cold what waits, cutting, freezing, smoke, loading, turning the trays halfway,
 * taking out in the window, and grinding or packing when it has rested, on the first day with the minutes left.
 */
export function ticketsOf(problem: PlanProblem, runs: readonly PlannedRun[]): Ticket[] {
  const clock = new PlanClock(problem.from, problem.until + 14 * DAY, problem.household, problem.away)
  const tickets: Ticket[] = []
  const finishing: { basketId: string; from: number; minutes: number }[] = []
  for (const run of runs) {
    const { basketId, prepareAt, startAt, ends } = run
    const basket = problem.baskets.find(item => item.id === basketId)
    const option = basket && optionOf(basket, run.machineId, run.cardKey)
    if (!basket || !option) continue
    if (basket.warmUntil !== undefined && basket.warmUntil < prepareAt)
      tickets.push({ kind: 'chill', basketId, at: basket.readyAt, to: basket.warmUntil, minutes: 0 })
    tickets.push({ kind: 'prepare', basketId, at: prepareAt, minutes: option.handsMinutes })
    if (option.leadHours) tickets.push({ kind: 'freeze', basketId, at: prepareAt + option.handsMinutes * MINUTE, minutes: 0 })
    if (option.first) tickets.push({ kind: 'smoke', basketId, at: startAt - option.first.hours * HOUR, minutes: 0 })
    tickets.push({ kind: 'load', basketId, at: startAt, minutes: 0 })
    if (option.rotates) {
      const half = nextUp(clock, startAt + (ends.p50 - startAt) / 2)
      if (half < ends.p10) tickets.push({ kind: 'rotate', basketId, at: half, minutes: ROTATE_MINUTES })
    }
    tickets.push({ kind: 'takeOut', basketId, at: ends.p10, to: ends.p90, minutes: 0 })
    finishing.push({ basketId, from: ends.p90 + option.restDays * DAY, minutes: option.afterMinutes })
  }
  const spent = new Map<number, number>()
  const spend = (at: number, minutes: number) => spent.set(clock.dayOf(at), (spent.get(clock.dayOf(at)) ?? 0) + minutes)
  for (const { at, minutes } of tickets) spend(at, minutes)
  for (const { basketId, from, minutes } of finishing.sort((a, b) => a.from - b.from)) {
    const last = from + 7 * DAY
    for (let at = Math.ceil(from / SLOT) * SLOT; at < last; at += SLOT) {
      const left = problem.handsMinutesADay - (spent.get(clock.dayOf(at)) ?? 0)
      const enough = minutes <= Math.max(left, 0) || (minutes > problem.handsMinutesADay && left === problem.handsMinutesADay)
      if (!enough || !clock.isUpAllThrough(at, at + minutes * MINUTE)) continue
      tickets.push({ kind: 'finish', basketId, at, minutes })
      spend(at, minutes)
      break
    }
  }
  return tickets.sort((a, b) => a.at - b.at)
}

function nextUp(clock: PlanClock, at: number): number {
  for (let slot = Math.ceil(at / SLOT) * SLOT; ; slot += SLOT) if (clock.isUp(slot)) return slot
}

/** Minutes of hands by local day, from the day that it begins to that of the last ticket. */
export function handsByDay(problem: PlanProblem, tickets: readonly Ticket[]): { day: number; minutes: number; of: number }[] {
  const { timeZone } = problem.household
  const last = tickets.at(-1)?.at ?? problem.from
  const days: { day: number; minutes: number; of: number }[] = []
  for (let i = 0; ; i++) {
    const day = startOfDay(problem.from, timeZone, i)
    if (day > last) return days
    const next = startOfDay(problem.from, timeZone, i + 1)
    const minutes = tickets.filter(({ at }) => at >= day && at < next).reduce((sum, ticket) => sum + ticket.minutes, 0)
    days.push({ day, minutes, of: problem.handsMinutesADay })
  }
}
