import { HOUR, MINUTE } from '../time'
import type { Interval } from '../stats'
import type { PlanClock } from './clock'
import { endsOf, prepareAtOf, standsOf, type Stand } from './run'
import type { Heat, PlanBasket, PlanMachine, PlanOption, PlanProblem } from './types'

/** An end that falls into the night more often than this wakes somebody: eight in ten fall into waking hours otherwise. */
const WIDE = 0.2
/** Starts that are looked at: half-hours. */
const STEP = 30 * MINUTE

/** A basket in a machine from an instant on, with what it takes. */
export interface Candidate {
  basket: number
  option: PlanOption
  machine: PlanMachine
  prepareAt: number
  startAt: number
  ends: Interval
  /** Places that are kept for it, until nine in ten are out. */
  stands: readonly (Stand & { heat: Heat })[]
  /** Somebody is woken by its end: more than one case in five. */
  wakes: boolean
  /** The share of cases in which it does. */
  asleep: number
  /** Day of preparing, and hour of day of loading. */
  day: number
  hour: number
}

/**
 * What can be done with a basket by itself: every way and start that its own limits, the machine's and the people's allow. What two do to
 * one another is seen when they are put together.
 */
export function candidatesOf(problem: PlanProblem, basket: PlanBasket, index: number, clock: PlanClock): Candidate[] {
  const found: Candidate[] = []
  for (const option of basket.options) {
    const machine = problem.machines.find(item => item.id === option.machineId)
    if (!machine || option.places < 1 || option.places > machine.places) continue
    const earliest = Math.max(problem.from, basket.readyAt)
    const first = earliest + (earliest - prepareAtOf(option, earliest))
    const last = Math.min(problem.until, basket.keepsUntil + coldOrSmokeHours(option) * HOUR)
    for (let startAt = Math.ceil(first / STEP) * STEP; startAt <= last; startAt += STEP) {
      const candidate = candidateAt(problem, index, { option, machine, startAt }, clock)
      if (candidate) found.push(candidate)
    }
  }
  return found
}

/** Once it is frozen or in the smoke it keeps until it is loaded. */
export const coldOrSmokeHours = ({ first, leadHours = 0 }: PlanOption) => (first?.hours ?? 0) + leadHours

/** One of them, where people are up for it and the sun lasts. */
function candidateAt(
  problem: PlanProblem,
  basket: number,
  { option, machine, startAt }: Pick<Candidate, 'option' | 'machine' | 'startAt'>,
  clock: PlanClock,
): Candidate | undefined {
  const prepareAt = prepareAtOf(option, startAt)
  if (!clock.isUpAllThrough(prepareAt, prepareAt + option.handsMinutes * MINUTE) || !clock.isUp(startAt)) return undefined
  // What goes through the smoke first has somebody beside it until it is loaded.
  if (option.first && !clock.isUpAllThrough(startAt - option.first.hours * HOUR, startAt)) return undefined
  if (machine.outdoors && !problem.sun.some(({ from, to }) => from <= startAt && startAt < to)) return undefined
  const ends = endsOf(problem, machine, option, startAt)
  if (!ends || (machine.attended && !clock.isUpAllThrough(startAt, ends.p90))) return undefined
  return candidateOf(basket, { option, machine, startAt }, ends, clock)
}

/** A basket in a machine, whether or not it should be there: what was put by hand stays. */
export function candidateOf(
  basket: number,
  { option, machine, startAt }: Pick<Candidate, 'option' | 'machine' | 'startAt'>,
  ends: Interval,
  clock: PlanClock,
): Candidate {
  const prepareAt = prepareAtOf(option, startAt)
  const asleep = machine.endsAlone ? 0 : asleepShare(option.hours, startAt, clock)
  return {
    basket,
    option,
    machine,
    prepareAt,
    startAt,
    ends,
    stands: standsOf(option, startAt, ends),
    wakes: asleep > WIDE,
    asleep,
    day: clock.dayOf(prepareAt),
    hour: clock.hourOf(startAt),
  }
}

/** Share of the cases in which it ends while people sleep: of the nights, what of the finish falls between their beginning and end. */
export function asleepShare(hours: Interval, startAt: number, clock: PlanClock): number {
  return clock
    .nightsFrom(startAt, startAt + 2 * hours.p90 * HOUR)
    .reduce((sum, { from, to }) => sum + shareBy(hours, (to - startAt) / HOUR) - shareBy(hours, (from - startAt) / HOUR), 0)
}

/** Share of a range that is given by three below so many hours, straight on the logarithm between and beyond them. */
function shareBy({ p10, p50, p90 }: Interval, hours: number): number {
  if (hours <= 0) return 0
  const side = hours < p50 ? Math.log(p50 / p10) : Math.log(p90 / p50)
  if (side <= 0) return hours < p50 ? 0 : 1
  return Math.min(1, Math.max(0, 0.5 + (0.4 * Math.log(hours / p50)) / side))
}
