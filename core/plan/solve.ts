import { gather, InputError } from '../errors'
import { randomSource } from '../stats'
import { HOUR } from '../time'
import { candidatesOf, type Candidate } from './candidates'
import { PlanClock } from './clock'
import { Fit } from './fit'
import type { Plan, PlanProblem, PlanWorth } from './types'

/** A gram lost, a waking, an hour of waiting, a kilowatt-hour: each outweighs all that comes after it in a household's week. */
const COSTS = { lostG: 1000, waking: 20_000, waitingHour: 1, kWh: 4 }

/** Rounds between two looks at the clock. */
const LOOK_UP = 20

export interface PlanStep {
  plan: Plan
  worth: PlanWorth
  /** One number, to be small. */
  cost: number
}

/**
 * Plans: at once a good one, then better ones as they are found, until whoever listens has enough. First each basket in the order of how
 * little time it has, where it costs least; then again and again some are taken out and put in anew in another order (ruin and recreate).
 * The same problem and seed give the same plans.
 * @throws InputError where the problem contradicts itself, by field
 */
export function* improvingPlans(
  problem: PlanProblem,
  { seed = 1, rounds = Infinity, stop = () => false }: { seed?: number; rounds?: number; stop?: () => boolean } = {},
): Generator<PlanStep> {
  checkProblem(problem)
  const clock = new PlanClock(problem.from, problem.until, problem.household, problem.away)
  const candidates = problem.baskets.map((basket, i) =>
    candidatesOf(problem, basket, i, clock)
      .map(candidate => ({ ...candidate, cost: costOf(problem, candidate) }))
      .sort((a, b) => a.cost - b.cost),
  )
  const smells = problem.baskets.map(basket => basket.smell)
  const order = problem.baskets.map((_, i) => i).sort((a, b) => slackOf(candidates[a]!) - slackOf(candidates[b]!))
  const fit = new Fit(problem, smells)
  const chosen = new Map<number, Priced>()
  for (const i of order) place(i, candidates, fit, chosen)
  let best = new Map(chosen)
  let bestCost = totalCost(problem, best)
  yield stepOf(problem, best, candidates, fit)
  const source = randomSource(seed)
  for (let round = 0; round < rounds && problem.baskets.length > 1; round++) {
    if (round % LOOK_UP === 0 && stop()) return
    const before = new Map(chosen)
    const lost = problem.baskets.map((_, i) => i).filter(i => !chosen.has(i))
    // What is lost, and some of what may stand in its way.
    const out = new Set(lost)
    const many = Math.min(problem.baskets.length, 2 + source.integer(0, 4))
    while (out.size < many + lost.length && out.size < problem.baskets.length) out.add(source.integer(0, problem.baskets.length - 1))
    for (const i of out) {
      const candidate = chosen.get(i)
      if (candidate) fit.take(candidate)
      chosen.delete(i)
    }
    for (const i of shuffled([...out], source)) place(i, candidates, fit, chosen, source.uniform() < 0.3 ? source : undefined)
    const cost = totalCost(problem, chosen)
    if (cost < bestCost - 1e-6) {
      best = new Map(chosen)
      bestCost = cost
      yield stepOf(problem, best, candidates, fit)
    } else if (cost > bestCost) {
      // Back to where it was: what was put in anew goes, what was taken out comes again.
      for (const i of out) {
        const put = chosen.get(i)
        if (put) fit.take(put)
        chosen.delete(i)
      }
      for (const i of out) {
        const was = before.get(i)
        if (!was) continue
        fit.put(was)
        chosen.set(i, was)
      }
    }
  }
}

type Priced = Candidate & { cost: number }

/** The cheapest place that it finds; with a source, sometimes the next but one. */
function place(
  i: number,
  candidates: readonly Priced[][],
  fit: Fit,
  chosen: Map<number, Priced>,
  source?: ReturnType<typeof randomSource>,
): void {
  let skip = source ? source.integer(0, 3) : 0
  let kept: Priced | undefined
  for (const candidate of candidates[i]!) {
    if (fit.hinders(candidate)) continue
    kept = candidate
    if (skip-- <= 0) break
  }
  if (!kept) return
  fit.put(kept)
  chosen.set(i, kept)
}

function costOf({ baskets }: PlanProblem, { basket, option, startAt, wakes }: Candidate): number {
  const { readyAt } = baskets[basket]!
  return (wakes ? COSTS.waking : 0) + COSTS.waitingHour * ((startAt - readyAt) / HOUR + option.hours.p50) + COSTS.kWh * option.kWh
}
function totalCost({ baskets }: PlanProblem, chosen: ReadonlyMap<number, Priced>): number {
  return baskets.reduce((sum, basket, i) => sum + (chosen.get(i)?.cost ?? COSTS.lostG * basket.weightG), 0)
}

/** Hours between the first and the last start that it has: who has few goes first. */
function slackOf(list: readonly Candidate[]): number {
  if (list.length === 0) return Infinity
  const starts = list.map(candidate => candidate.startAt)
  return Math.max(...starts) - Math.min(...starts)
}

function shuffled<T>(list: T[], source: ReturnType<typeof randomSource>): T[] {
  for (let i = list.length - 1; i > 0; i--) {
    const j = source.integer(0, i)
    ;[list[i], list[j]] = [list[j]!, list[i]!]
  }
  return list
}

function stepOf(problem: PlanProblem, chosen: ReadonlyMap<number, Priced>, candidates: readonly Priced[][], fit: Fit): PlanStep {
  const runs = [...chosen.values()]
    .sort((a, b) => a.startAt - b.startAt || a.basket - b.basket)
    .map(({ basket, option, prepareAt, startAt }) => ({
      basketId: problem.baskets[basket]!.id,
      machineId: option.machineId,
      cardKey: option.cardKey,
      places: option.places,
      prepareAt,
      startAt,
      ends: { p10: startAt + option.hours.p10 * HOUR, p50: startAt + option.hours.p50 * HOUR, p90: startAt + option.hours.p90 * HOUR },
    }))
  const lost = problem.baskets.flatMap((basket, i) => {
    if (chosen.has(i)) return []
    const list = candidates[i]!
    const fits = basket.options.some(option =>
      problem.machines.some(machine => machine.id === option.machineId && option.places <= machine.places),
    )
    const why = !fits
      ? 'no-option'
      : list.length === 0
        ? 'too-late'
        : list.every(candidate => fit.hinders(candidate) === 'no-hands')
          ? 'no-hands'
          : 'no-place'
    return [{ basketId: basket.id, weightG: basket.weightG, why } as const]
  })
  const taken = [...chosen.values()]
  return {
    plan: { format: 'dulse-plan', form: 1, runs, lost },
    worth: {
      lostG: lost.reduce((sum, { weightG }) => sum + weightG, 0),
      wakings: taken.filter(candidate => candidate.wakes).length,
      waitingHours: taken.reduce(
        (sum, { basket, option, startAt }) => sum + (startAt - problem.baskets[basket]!.readyAt) / HOUR + option.hours.p50,
        0,
      ),
      kWh: taken.reduce((sum, { option }) => sum + option.kWh, 0),
      handsMinutes: taken.reduce((sum, { option }) => sum + option.handsMinutes, 0),
    },
    cost: totalCost(problem, chosen),
  }
}

/** Most baskets and days that are planned at once. */
const MOST = { baskets: 300, days: 21 }

function checkProblem({ from, until, machines, baskets, handsMinutesADay }: PlanProblem): void {
  const { problems, say } = gather()
  if (!(until > from)) say('until', 'not-after-from', 'The plan must end after it begins.')
  else if (until - from > MOST.days * 24 * HOUR) say('until', 'too-long', 'At most three weeks are planned at once: nobody knows more.')
  if (baskets.length > MOST.baskets) say('baskets', 'too-many', 'At most 300 baskets are planned at once: leave some for later.')
  if (!(handsMinutesADay >= 0)) say('handsMinutesADay', 'below-zero', 'Give the minutes that the people have for it on a day, 0 or more.')
  machines.forEach((machine, i) => {
    if (!(machine.places >= 1)) say(`machines.${i}.places`, 'no-places', 'A machine needs at least one place.')
  })
  baskets.forEach((basket, i) => {
    if (basket.keepsUntil < basket.readyAt) say(`baskets.${i}.keepsUntil`, 'before-ready', 'It would be spoiled before it is there.')
    basket.options.forEach((option, k) => {
      const { p10, p50, p90 } = option.hours
      if (!(p10 > 0 && p10 <= p50 && p50 <= p90))
        say(`baskets.${i}.options.${k}.hours`, 'not-a-range', 'Give hours above zero, the tenth, fiftieth and ninetieth in order.')
      if (option.heat.lowC > option.heat.highC) say(`baskets.${i}.options.${k}.heat`, 'not-a-range', 'The lower heat comes first.')
    })
  })
  if (problems.length > 0) throw new InputError(problems)
}
