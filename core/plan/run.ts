import type { Interval } from '../stats'
import { afterSun } from '../sun'
import { HOUR, MINUTE } from '../time'
import type { PlanBasket, PlanMachine, PlannedRun, PlanOption, PlanProblem, Stretch } from './types'

/** When a run is out that goes in at an instant; undefined where the sun of these days does not do it, even in a good case. */
export function endsOf(
  { sun }: Pick<PlanProblem, 'sun'>,
  machine: PlanMachine,
  { hours }: PlanOption,
  startAt: number,
): Interval | undefined {
  if (!machine.outdoors) {
    const after = (value: number) => Math.round(startAt + value * HOUR)
    return { p10: after(hours.p10), p50: after(hours.p50), p90: after(hours.p90) }
  }
  const ends = (need: number, sky: keyof Interval) => afterSun(sun, startAt, need, share => share[sky])
  // The quick end has the good sky, the slow one the bad.
  const [p10, p50, p90] = [ends(hours.p10, 'p90'), ends(hours.p50, 'p50'), ends(hours.p90, 'p10')]
  return p10 === undefined || p50 === undefined || p90 === undefined ? undefined : { p10, p50, p90 }
}

/** A place in a machine that a run takes, by its times. */
export interface Stand extends Stretch {
  machineId: string
  places: number
}

/** What a run takes, in the order of time: the smoker first, then its machine until it is out, 9 in 10, and clear again. */
export function standsOf(option: PlanOption, startAt: number, ends: Interval): (Stand & { heat: PlanOption['heat'] })[] {
  const { first, machineId, places, heat, clearHours = 0 } = option
  const main = { machineId, places, heat, from: startAt, to: ends.p90 + clearHours * HOUR }
  if (!first) return [main]
  return [{ machineId: first.machineId, places: first.places, heat: first.heat, from: startAt - first.hours * HOUR, to: startAt }, main]
}

/** When preparing begins for a run that goes in at an instant. */
export const prepareAtOf = ({ handsMinutes, first, leadHours = 0 }: PlanOption, startAt: number) =>
  startAt - ((first?.hours ?? 0) + leadHours) * HOUR - handsMinutes * MINUTE

/** The way of a basket by machine and cut; the first of the machine where the cut is not given or does not go there. */
export function optionOf({ options }: PlanBasket, machineId: string, cardKey?: string): PlanOption | undefined {
  const there = options.filter(option => option.machineId === machineId)
  return there.find(option => option.cardKey === cardKey) ?? there[0]
}

/** A basket put into a machine at an instant; undefined where it has no such way, or the sun does not do it. */
export function runAt(
  problem: PlanProblem,
  basketId: string,
  { machineId, cardKey, startAt }: { machineId: string; cardKey?: string; startAt: number },
): PlannedRun | undefined {
  const basket = problem.baskets.find(item => item.id === basketId)
  const machine = problem.machines.find(item => item.id === machineId)
  const option = basket && optionOf(basket, machineId, cardKey)
  const ends = machine && option && endsOf(problem, machine, option, startAt)
  return (
    ends && {
      basketId,
      machineId,
      cardKey: option.cardKey,
      places: option.places,
      prepareAt: prepareAtOf(option, startAt),
      startAt,
      ends,
    }
  )
}
