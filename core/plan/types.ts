import type { Purpose } from '../foods'
import type { Household } from '../planning/day'
import type { Interval } from '../stats'
import type { SunSpell } from '../sun'

/** A stretch of time, instants. */
export interface Stretch {
  from: number
  to: number
}

/** What stands in a machine already. */
export interface Busy extends Stretch {
  places: number
  /** Heats that it takes, °C; any where it is not given. */
  heat?: Heat
  smell?: boolean
  /** Nothing dries in it then: an oven at supper. */
  closed?: true
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
  /** Under the sky: its hours are hours of sun, and come from `sun` alone. */
  outdoors: boolean
  busy: readonly Busy[]
}

/** One way of going about a basket: a cut in a machine. */
export interface PlanOption {
  machineId: string
  cardKey: string
  /** The cut in words. */
  cut: string
  places: number
  /** Hours from loading to taking out, with their doubt; of sun, outdoors. */
  hours: Interval
  heat: Heat
  /** Work before loading, minutes. */
  handsMinutes: number
  kWh: number
  /** In another machine first, with somebody about, so many hours: smoke. */
  first?: { machineId: string; places: number; hours: number; heat: Heat }
  /** Hours between preparing and loading, in the freezer. */
  leadHours?: number
  /** Hours after it is out before the machine takes anything again: defrosting. */
  clearHours?: number
  /** Trays change places halfway. */
  rotates?: boolean
  /** What it gives, g; when it has rested, days; grinding and packing, minutes. */
  productG: number
  restDays: number
  afterMinutes: number
}

export interface PlanBasket {
  id: string
  title: string
  foodKey: string
  purpose: Purpose
  weightG: number
  /** When it can be worked on at the earliest, and by when it must be in a machine: beyond it, it spoils. */
  readyAt: number
  keepsUntil: number
  /** Until when it keeps where it stands; what waits longer waits in the cold. */
  warmUntil?: number
  /** Picked yet: by the harvest calendar, its weight is a guess. */
  expected?: boolean
  smell: boolean
  options: readonly PlanOption[]
}

/** So much of a food is to stand on the shelf by an instant. */
export interface PlanWish {
  id: string
  title: string
  foodKey: string
  purpose: Purpose
  /** What is still to be made, g. */
  grams: number
  by: number
}

/** A run that stays where it was put by hand. */
export interface PlanPin {
  basketId: string
  machineId: string
  cardKey: string
  startAt: number
}

/** What there is to do and what limits it: documented JSON that any solver may read. */
export interface PlanProblem {
  format: 'dulse-plan-problem'
  form: 2
  from: number
  until: number
  household: Household
  /** Nobody is at home. */
  away: readonly Stretch[]
  /** Minutes of preparing that the people have on a day. */
  handsMinutesADay: number
  machines: readonly PlanMachine[]
  baskets: readonly PlanBasket[]
  wishes: readonly PlanWish[]
  /** Sun by day; nothing dries outdoors at other times. */
  sun: readonly SunSpell[]
  /** Price of a kilowatt-hour by hour of day, 24 of them; one price where there is one. */
  prices: readonly number[]
  pins: readonly PlanPin[]
  /** A plan that people have begun to live by: what need not change stays. */
  before?: readonly PlanPin[]
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
  pinned?: true
}

export type WhyLost = 'no-option' | 'no-place' | 'too-late' | 'no-hands'

export interface Plan {
  format: 'dulse-plan'
  form: 2
  runs: PlannedRun[]
  /** Baskets that find no place before they spoil, g each, and what stands in the way. */
  lost: { basketId: string; weightG: number; why: WhyLost }[]
}

/** What a plan comes to, in the order in which it matters. */
export interface PlanWorth {
  lostG: number
  /** Baskets saved, g. */
  savedG: number
  wakings: number
  /** Wishes that are not met, g. */
  shortG: number
  /** Hours until each is out, summed. */
  waitingHours: number
  kWh: number
  /** At the hours' own prices. */
  money: number
  handsMinutes: number
  /** When the last is out, 9 in 10; `from` where nothing runs. */
  doneAt: number
}
