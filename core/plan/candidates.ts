import { HOUR, MINUTE } from '../time'
import type { Interval } from '../stats'
import type { PlanClock } from './clock'
import type { PlanBasket, PlanMachine, PlanOption, PlanProblem } from './types'

/** An end that falls into the night more often than this wakes somebody: eight in ten fall into waking hours otherwise. */
const WIDE = 0.2
/** Starts that are looked at: half-hours. */
const STEP = 30 * MINUTE

/** A basket in a machine from an instant on, with what it costs. */
export interface Candidate {
  basket: number
  option: PlanOption
  machine: PlanMachine
  prepareAt: number
  startAt: number
  /** Its places are kept until then: nine in ten are out. */
  keptUntil: number
  /** Somebody is woken by its end, or by its being off too long: more than one case in five. */
  wakes: boolean
  day: number
}

/**
 * What can be done with a basket by itself: every way and start that its own limits, the machine's and the people's allow. What two do to
 * one another is seen when they are put together.
 */
export function candidatesOf(problem: PlanProblem, basket: PlanBasket, index: number, clock: PlanClock, step = STEP): Candidate[] {
  const found: Candidate[] = []
  for (const option of basket.options) {
    const machine = problem.machines.find(item => item.id === option.machineId)
    if (!machine || option.places < 1 || option.places > machine.places) continue
    const hands = option.handsMinutes * MINUTE
    const first = Math.max(problem.from, basket.readyAt) + hands
    const last = Math.min(problem.until, basket.keepsUntil)
    for (let startAt = Math.ceil(first / step) * step; startAt <= last; startAt += step) {
      const prepareAt = startAt - hands
      if (!clock.isUpAllThrough(prepareAt, startAt)) continue
      const keptUntil = startAt + option.hours.p90 * HOUR
      if (machine.attended && !clock.isUpAllThrough(startAt, keptUntil)) continue
      found.push({
        basket: index,
        option,
        machine,
        prepareAt,
        startAt,
        keptUntil,
        wakes: !machine.endsAlone && asleepShare(option, startAt, clock) > WIDE,
        day: clock.dayOf(prepareAt),
      })
    }
  }
  return found
}

/** Share of the cases in which it ends while people sleep: of the nights, what of the finish falls between their beginning and end. */
function asleepShare({ hours }: PlanOption, startAt: number, clock: PlanClock): number {
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
