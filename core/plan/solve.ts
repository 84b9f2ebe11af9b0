import { randomSource } from '../stats'
import { candidateOf, candidatesOf, type Candidate } from './candidates'
import { PlanClock } from './clock'
import { Fit } from './fit'
import { checkProblem } from './problem'
import { boundBy, boundModel, chosenBy, exactModel, type PlanSolver, type Priced } from './programme'
import { endsOf, optionOf } from './run'
import type { Plan, PlanProblem, PlanWorth, WhyLost } from './types'
import { costOf, lostCost, SHORT_COST, shortOf, worthOf } from './worth'

/** Rounds between two looks at the clock. */
const LOOK_UP = 20
/** Rounds of taking out and putting in anew before the solver has its first turn, and before its next: twice as many each time it finds nothing. */
const ROUNDS = { first: 400, between: 1000 }
/** So much worse is let be in one round of three; as an hour of waiting counts 1. */
const WARMTH = 8
/** Baskets that the solver places anew at once, starts of each that it may choose from, and seconds that it has for it. */
const TURN = { baskets: 7, starts: 60, seconds: 1 }

export interface PlanStep {
  plan: Plan
  worth: PlanWorth
  /** One number, to be small. */
  cost: number
  /** What no plan undercuts, once that is known; and how far above it this one may be, as a share. */
  bound?: number
  gap?: number
  /** No other is better: the solver has seen all of it. */
  proven?: boolean
}

export interface Planning {
  seed?: number
  /** Rounds of taking out and putting in anew; without an end where it is not given. */
  rounds?: number
  stop?: () => boolean
  /** HiGHS, or another that reads the CPLEX LP format; without it no gap is known. */
  solver?: PlanSolver
}

/**
 * Plans: at once a good one, then better ones as they are found, until whoever listens has enough. First each basket in the order of how
 * little time it has, where it costs least; then again and again some are taken out and put in anew in another order (ruin and recreate);
 * where a solver is given, it bounds what can be had, and places some baskets anew with the rest left as it is, exactly.
 * The same problem, seed and rounds give the same plans.
 * @throws InputError where the problem contradicts itself, by field
 */
export function* improvingPlans(problem: PlanProblem, planning: Planning = {}): Generator<PlanStep> {
  const { seed = 1, rounds = Infinity, stop = () => false, solver } = planning
  checkProblem(problem)
  const search = new Search(problem, seed)
  yield search.step()
  const free = search.free.length
  if (free === 0) return
  let bounded = false
  let turnAt = Math.min(ROUNDS.first, rounds - 1)
  let between = ROUNDS.between
  for (let round = 0; round < rounds; round++) {
    if (round % LOOK_UP === 0 && stop()) return
    if (free > 1 && search.ruinAndRecreate()) yield search.step()
    if (!solver || round < turnAt) continue
    if (!bounded) {
      bounded = true
      search.boundWith(solver)
      yield search.step()
    }
    if (search.solveSome(solver)) yield search.step()
    else between *= 2
    turnAt = round + between
    if (search.proven) return
  }
}

/** A plan as it grows: what is chosen, and what was best. */
class Search {
  private readonly clock: PlanClock
  private readonly candidates: readonly Priced[][]
  private readonly pinned = new Map<number, Priced>()
  private readonly fit: Fit
  private readonly chosen = new Map<number, Priced>()
  private readonly source
  private best: Map<number, Priced>
  private bestCost: number
  private bound?: number
  proven = false
  /** Baskets that are not pinned, by their place in the problem. */
  readonly free: readonly number[]

  constructor(
    private readonly problem: PlanProblem,
    seed: number,
  ) {
    this.clock = new PlanClock(problem.from, problem.until, problem.household, problem.away)
    this.source = randomSource(seed)
    this.fit = new Fit(problem)
    for (const pin of problem.pins) this.pin(pin)
    this.free = problem.baskets.map((_, i) => i).filter(i => !this.pinned.has(i))
    const priced = (candidate: Candidate) => ({ ...candidate, cost: costOf(problem, candidate) })
    this.candidates = problem.baskets.map((basket, i) =>
      this.pinned.has(i)
        ? []
        : candidatesOf(problem, basket, i, this.clock)
            .map(priced)
            .sort((a, b) => a.cost - b.cost),
    )
    const slack = this.candidates.map(slackOf)
    for (const i of [...this.free].sort((a, b) => slack[a]! - slack[b]!)) this.place(i)
    this.best = new Map(this.chosen)
    this.bestCost = this.costOfChosen()
  }

  /** Put by hand it stays, even where it breaks a rule: whoever put it there is told. */
  private pin({ basketId, machineId, cardKey, startAt }: PlanProblem['pins'][number]): void {
    const { problem } = this
    const i = problem.baskets.findIndex(basket => basket.id === basketId)
    const machine = problem.machines.find(item => item.id === machineId)
    const option = i >= 0 ? optionOf(problem.baskets[i]!, machineId, cardKey) : undefined
    const ends = machine && option && endsOf(problem, machine, option, startAt)
    if (!ends) return
    const candidate = candidateOf(i, { option, machine, startAt }, ends, this.clock)
    this.put(i, { ...candidate, cost: costOf(problem, candidate) })
    this.pinned.set(i, this.chosen.get(i)!)
  }
  private put(i: number, candidate: Priced): void {
    this.fit.put(candidate)
    this.chosen.set(i, candidate)
  }
  private takeOut(i: number): void {
    const candidate = this.chosen.get(i)
    if (!candidate) return
    this.fit.take(candidate)
    this.chosen.delete(i)
  }

  /** The cheapest place that it finds; where it is not to be straight on, sometimes the next but one. */
  private place(i: number, straight = true): void {
    let skip = straight ? 0 : this.source.integer(0, 3)
    let kept: Priced | undefined
    for (const candidate of this.candidates[i]!) {
      if (this.fit.hinders(candidate)) continue
      kept = candidate
      if (skip-- <= 0) break
    }
    if (kept) this.put(i, kept)
  }
  private costOfChosen(): number {
    const alone = this.problem.baskets.reduce((sum, basket, i) => sum + (this.chosen.get(i)?.cost ?? lostCost(basket.weightG)), 0)
    return alone + SHORT_COST * shortOf(this.problem, this.chosen.values())
  }
  /** Of these baskets: as they were. */
  private restore(to: ReadonlyMap<number, Priced>, out: Iterable<number>): void {
    // An iterator is gone through once only.
    const list = [...out]
    for (const i of list) this.takeOut(i)
    for (const i of list) {
      const was = to.get(i)
      if (was) this.put(i, was)
    }
  }
  private keepIfBetter(): boolean {
    const cost = this.costOfChosen()
    if (cost >= this.bestCost - 1e-6) return false
    this.best = new Map(this.chosen)
    this.bestCost = cost
    return true
  }

  /** What is lost, and some of what may stand in its way, are taken out and put in anew in another order. Whether that is the best so far. */
  ruinAndRecreate(): boolean {
    const before = new Map(this.chosen)
    const wasCost = this.costOfChosen()
    const out = new Set(this.free.filter(i => !this.chosen.has(i)))
    const many = Math.min(this.free.length, out.size + 2 + this.source.integer(0, 4))
    while (out.size < many) out.add(this.free[this.source.integer(0, this.free.length - 1)]!)
    for (const i of out) this.takeOut(i)
    for (const i of shuffled([...out], this.source)) this.place(i, this.source.uniform() >= 0.3)
    if (this.keepIfBetter()) return true
    // A little worse is let be now and then: straight down alone it comes to rest too soon.
    const worse = this.costOfChosen() - wasCost
    if (worse > 0 && this.source.uniform() >= Math.exp(-worse / WARMTH)) this.restore(before, out)
    return false
  }

  /** What no plan undercuts. */
  boundWith(solver: PlanSolver): void {
    const pinned = [...this.pinned.values()]
    const least = boundBy(solver.solve(boundModel(this.problem, this.candidates, pinned), { time_limit: 20, output_flag: false }))
    if (least === undefined) return
    this.bound = least + pinned.reduce((sum, candidate) => sum + candidate.cost, 0)
  }

  /** Some baskets near one another in time, placed anew with the others where they are, exactly. Whether that is the best so far. */
  solveSome(solver: PlanSolver): boolean {
    this.restore(this.best, this.problem.baskets.keys())
    const all = this.free.length <= TURN.baskets
    const around = this.free[this.source.integer(0, this.free.length - 1)]!
    const timeOf = (i: number) => this.best.get(i)?.startAt ?? this.problem.baskets[i]!.keepsUntil
    const some = all
      ? [...this.free]
      : [...this.free].sort((a, b) => Math.abs(timeOf(a) - timeOf(around)) - Math.abs(timeOf(b) - timeOf(around))).slice(0, TURN.baskets)
    for (const i of some) this.takeOut(i)
    const fits = new Map(some.map(i => [i, this.candidates[i]!.filter(candidate => this.fit.hinders(candidate) === undefined)]))
    const pools = new Map([...fits].map(([i, list]) => [i, withBest(list.slice(0, TURN.starts), this.best.get(i))]))
    const fixed = [...this.chosen.values()]
    let took = false
    try {
      const answer = solver.solve(exactModel(this.problem, pools, fixed), {
        time_limit: TURN.seconds,
        mip_rel_gap: 1e-6,
        output_flag: false,
      })
      const result = chosenBy(answer, pools)
      if (result) {
        for (const [i, candidate] of result.chosen) if (this.fit.hinders(candidate) === undefined) this.put(i, candidate)
        took = this.keepIfBetter()
        const whole = [...fits].every(([i, list]) => pools.get(i)!.length >= list.length)
        if (all && whole && answer.Status === 'Optimal') {
          this.proven = true
          this.bound = this.bestCost
        }
      }
    } finally {
      if (!took) this.restore(this.best, this.problem.baskets.keys())
    }
    return took || this.proven
  }

  step(): PlanStep {
    const { problem, best, bestCost: cost, bound } = this
    this.restore(best, problem.baskets.keys())
    const runs = [...best.values()]
      .sort((a, b) => a.startAt - b.startAt || a.basket - b.basket)
      .map(({ basket, option, prepareAt, startAt, ends }) => ({
        basketId: problem.baskets[basket]!.id,
        machineId: option.machineId,
        cardKey: option.cardKey,
        places: option.places,
        prepareAt,
        startAt,
        ends,
        ...(this.pinned.has(basket) && { pinned: true as const }),
      }))
    const lost = problem.baskets.flatMap(({ id: basketId, weightG }, i) =>
      best.has(i) ? [] : [{ basketId, weightG, why: this.whyLost(i) }],
    )
    return {
      plan: { format: 'dulse-plan', form: 2, runs, lost },
      worth: worthOf(problem, best),
      cost,
      bound,
      // Rounding of the solver's must not say that a plan is better than it can be.
      gap: bound === undefined ? undefined : cost <= 0 ? 0 : Math.max(0, (cost - bound) / cost),
      proven: this.proven || undefined,
    }
  }

  private whyLost(i: number): WhyLost {
    const { options } = this.problem.baskets[i]!
    const placesOf = (id: string) => this.problem.machines.find(machine => machine.id === id)?.places ?? 0
    if (!options.some(option => option.places <= placesOf(option.machineId))) return 'no-option'
    const list = this.candidates[i]!
    if (list.length === 0) return 'too-late'
    return list.every(candidate => this.fit.hinders(candidate) === 'no-hands') ? 'no-hands' : 'no-place'
  }
}

const withBest = (list: Priced[], best: Priced | undefined) => (best && !list.includes(best) ? [...list, best] : list)

/** Hours between the first and the last start that it has: who has few goes first. */
function slackOf(list: readonly Candidate[]): number {
  if (list.length === 0) return Infinity
  let [first, last] = [Infinity, -Infinity]
  for (const { startAt } of list) {
    first = Math.min(first, startAt)
    last = Math.max(last, startAt)
  }
  return last - first
}

function shuffled<T>(list: T[], source: ReturnType<typeof randomSource>): T[] {
  for (let i = list.length - 1; i > 0; i--) {
    const j = source.integer(0, i)
    ;[list[i], list[j]] = [list[j]!, list[i]!]
  }
  return list
}
