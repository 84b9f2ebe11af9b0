export { expectAgain } from './again'
export { breachesOf, isMild, worthOfRuns, type Breach } from './check'
export { checkProblem } from './problem'
export type { PlanSolver } from './programme'
export { optionOf, runAt } from './run'
export { improvingPlans, type Planning, type PlanStep } from './solve'
export { handsByDay, ticketsOf, type Ticket } from './tickets'
export { MORE_MINUTES, variantOf, type Variant } from './variants'
export { countBack, FILLED, placeNights, yearOf, type YearLine, type YearMonth, type YearProblem } from './year'
export type {
  Busy,
  Heat,
  Plan,
  PlanBasket,
  PlanMachine,
  PlannedRun,
  PlanOption,
  PlanPin,
  PlanProblem,
  PlanWish,
  PlanWorth,
  Stretch,
  WhyLost,
} from './types'
