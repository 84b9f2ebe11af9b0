import { DAY, HOUR } from '../time'
import type { Candidate } from './candidates'
import type { PlanProblem, PlanWish, PlanWorth } from './types'

/** A gram lost, a waking in more than one case of five, one in each case that is left, a wished gram missing, an hour of waiting, a kilowatt-hour at the mean price, an hour of hands, a run moved. */
const COSTS = { lostG: 1000, waking: 20_000, mayWake: 1000, shortG: 20, waitingHour: 1, kWh: 4, handsHour: 2, moved: 12 }
/** So near to where it was a run counts as not moved. */
const SAME = 2 * HOUR

/** When what it gives is on the shelf: out, 9 in 10, and rested. */
const shelfAt = ({ ends, option }: Pick<Candidate, 'ends' | 'option'>) => ends.p90 + option.restDays * DAY

/** Whether a basket's run serves a wish in time. */
export const serves = (problem: PlanProblem, wish: PlanWish, candidate: Candidate) => {
  const { foodKey, purpose } = problem.baskets[candidate.basket]!
  return wish.foodKey === foodKey && wish.purpose === purpose && shelfAt(candidate) <= wish.by
}

/** What is still missing of the wishes, g, by what each run gives; a gram serves one of two wishes, the earlier. */
export function shortOf(problem: PlanProblem, chosen: Iterable<Candidate>): number {
  if (problem.wishes.length === 0) return 0
  const runs = [...chosen].map(candidate => ({ candidate, left: candidate.option.productG }))
  let short = 0
  for (const wish of [...problem.wishes].sort((a, b) => a.by - b.by)) {
    let missing = wish.grams
    for (const run of runs) {
      if (missing <= 0) break
      if (run.left <= 0 || !serves(problem, wish, run.candidate)) continue
      const taken = Math.min(missing, run.left)
      run.left -= taken
      missing -= taken
    }
    short += Math.max(0, missing)
  }
  return short
}

/** What its power costs at the hours in which it runs, most likely; the same each hour of the run. */
function moneyOf({ prices }: Pick<PlanProblem, 'prices'>, { option, startAt, ends, hour }: Candidate): number {
  if (option.kWh === 0 || prices.length === 0) return 0
  if (prices.length === 1) return option.kWh * prices[0]!
  const hours = Math.max(1, Math.round((ends.p50 - startAt) / HOUR))
  let sum = 0
  for (let i = 0; i < hours; i++) sum += prices[(hour + i) % prices.length]!
  return (option.kWh * sum) / hours
}

/** What a run costs by itself, to be small; wishes and what is lost are seen over all. */
export function costOf(problem: PlanProblem, candidate: Candidate): number {
  const { basket, option, startAt, ends, wakes, asleep } = candidate
  const { id, readyAt } = problem.baskets[basket]!
  const mean = problem.prices.reduce((sum, price) => sum + price, 0) / Math.max(1, problem.prices.length)
  const power = mean > 0 ? moneyOf(problem, candidate) / mean : option.kWh
  const was = problem.before?.find(run => run.basketId === id)
  const moved = was && (was.machineId !== option.machineId || was.cardKey !== option.cardKey || Math.abs(was.startAt - startAt) > SAME)
  return (
    (wakes ? COSTS.waking : 0) +
    COSTS.mayWake * asleep +
    COSTS.waitingHour * ((ends.p50 - Math.min(startAt, readyAt)) / HOUR) +
    COSTS.kWh * power +
    (COSTS.handsHour * (option.handsMinutes + option.afterMinutes)) / 60 +
    (moved ? COSTS.moved : 0)
  )
}

export const lostCost = (weightG: number) => COSTS.lostG * weightG
export const SHORT_COST = COSTS.shortG

/** What a choice of runs comes to. */
export function worthOf(problem: PlanProblem, chosen: ReadonlyMap<number, Candidate>): PlanWorth {
  const runs = [...chosen.values()]
  const lostG = problem.baskets.reduce((sum, basket, i) => sum + (chosen.has(i) ? 0 : basket.weightG), 0)
  return {
    lostG,
    savedG: problem.baskets.reduce((sum, basket) => sum + basket.weightG, -lostG),
    wakings: runs.filter(run => run.wakes).length,
    shortG: shortOf(problem, runs),
    waitingHours: runs.reduce((sum, { basket, ends }) => sum + (ends.p50 - problem.baskets[basket]!.readyAt) / HOUR, 0),
    kWh: runs.reduce((sum, { option }) => sum + option.kWh, 0),
    money: runs.reduce((sum, run) => sum + moneyOf(problem, run), 0),
    handsMinutes: runs.reduce((sum, { option }) => sum + option.handsMinutes + option.afterMinutes, 0),
    doneAt: runs.reduce((last, { ends }) => Math.max(last, ends.p90), problem.from),
  }
}
