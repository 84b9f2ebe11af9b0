import type { Household } from '../planning/day'
import type { Interval } from '../stats'

/** A stretch of time, instants. */
export interface Stretch {
  from: number
  to: number
}

/** What stands in a machine already, or was pinned by hand. */
export interface Busy extends Stretch {
  places: number
  /** Heats that it takes, °C; any where it is not given. */
  heat?: Heat
  smell?: boolean
}

/** Lowest and highest heat that suits, °C. */
export interface Heat {
  lowC: number
  highC: number
}

export interface PlanMachine {
  id: string
  name: string
  places: number
  /** Somebody must be awake and at home as long as it runs: an oven, a smoker. */
  attended: boolean
  /** Its end wakes nobody: sun and room air, or a machine that switches itself off and keeps what is in it. */
  endsAlone: boolean
  /** Smells do not go from one tray to the next. */
  tasteless: boolean
  busy: readonly Busy[]
}

/** One way of going about a basket: a cut in a machine. */
export interface PlanOption {
  machineId: string
  cardKey: string
  places: number
  /** Hours from loading to taking out, with their doubt. */
  hours: Interval
  heat: Heat
  /** Work before loading, minutes. */
  handsMinutes: number
  kWh: number
}

export interface PlanBasket {
  id: string
  title: string
  weightG: number
  /** When it can be worked on at the earliest, and by when it must be in a machine: beyond it, it spoils. */
  readyAt: number
  keepsUntil: number
  smell: boolean
  options: readonly PlanOption[]
}

/** What there is to do and what limits it: documented JSON that any solver may read. */
export interface PlanProblem {
  format: 'dulse-plan-problem'
  form: 1
  from: number
  until: number
  household: Household
  /** Nobody is at home. */
  away: readonly Stretch[]
  /** Minutes of preparing that the people have on a day. */
  handsMinutesADay: number
  machines: readonly PlanMachine[]
  baskets: readonly PlanBasket[]
}

/** A basket in a machine. */
export interface PlannedRun {
  basketId: string
  machineId: string
  cardKey: string
  places: number
  /** Preparing begins; loading; out at the earliest, most likely, at the latest in 8 cases of 10. */
  prepareAt: number
  startAt: number
  ends: Interval
}

export interface Plan {
  format: 'dulse-plan'
  form: 1
  runs: PlannedRun[]
  /** Baskets that find no place before they spoil, g each, and what stands in the way. */
  lost: { basketId: string; weightG: number; why: 'no-option' | 'no-place' | 'too-late' | 'no-hands' }[]
}

/** What a plan comes to, in the order in which it matters. */
export interface PlanWorth {
  lostG: number
  wakings: number
  /** Hours until each is out, summed. */
  waitingHours: number
  kWh: number
  handsMinutes: number
}
