export { improvingPlans, type PlanStep } from './solve'
export type { Busy, Heat, Plan, PlanBasket, PlanMachine, PlannedRun, PlanOption, PlanProblem, PlanWorth, Stretch } from './types'
