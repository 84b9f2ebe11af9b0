import { expose } from 'comlink'
import loadHighs from 'highs'
import wasm from 'highs/runtime?url'
import {
  improvingPlans,
  variantOf,
  yearOf,
  type PlanProblem,
  type PlanSolver,
  type PlanStep,
  type Variant,
  type YearMonth,
  type YearProblem,
} from '#core/plan'

/** The solver is a megabyte and is fetched when somebody asks for it first. */
let loading: Promise<PlanSolver> | undefined
const solver = () => (loading ??= loadHighs({ locateFile: () => wasm }) as unknown as Promise<PlanSolver>)

/** Plans, away from the thread that draws: tells each better one as it is found. Whoever has enough of it ends the worker. */
const desk = {
  /** A first plan at once, and better ones. @param forMs so long it is looked on, ms */
  async improve(problem: PlanProblem, forMs: number, tell: (step: PlanStep) => unknown): Promise<void> {
    const begun = performance.now()
    // The first is there before the solver is.
    const [first] = improvingPlans(problem, { rounds: 0 })
    void tell(first!)
    const highs = await solver()
    for (const step of improvingPlans(problem, { stop: () => performance.now() - begun > forMs, solver: highs }))
      if (step.cost <= first!.cost) void tell(step)
  },
  /** The same baskets otherwise: the best of each in so many ms. */
  compare(problem: PlanProblem, variants: readonly Variant[], forMs: number, tell: (index: number, step: PlanStep) => unknown): void {
    for (const [i, variant] of variants.entries()) {
      const begun = performance.now()
      let last: PlanStep | undefined
      for (const step of improvingPlans(variantOf(problem, variant), { stop: () => performance.now() - begun > forMs })) last = step
      void tell(i, last!)
    }
  },
  async year(problem: YearProblem): Promise<YearMonth[]> {
    return yearOf(problem, await solver())
  },
}

export type PlanDesk = typeof desk

expose(desk)
