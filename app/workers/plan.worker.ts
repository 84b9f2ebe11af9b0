import { expose } from 'comlink'
import { improvingPlans, type PlanProblem, type PlanStep } from '#core/plan'

/** Plans, away from the thread that draws: tells each better one as it is found. Whoever has enough of it ends the worker. */
const desk = {
  /** @param forMs so long it is looked on, ms */
  improve(problem: PlanProblem, forMs: number, tell: (step: PlanStep) => unknown): void {
    const begun = performance.now()
    for (const step of improvingPlans(problem, { stop: () => performance.now() - begun > forMs })) void tell(step)
  },
}

export type PlanDesk = typeof desk

expose(desk)
