import type { Entry, RunOutline, Stage } from '#core/batch'
import type { Food, Purpose, SchoolQuestion } from '#core/foods'
import type { Interval } from '#core/stats'
import type { Portion } from '#core/using'
import type { BestBy, Damp } from '#core/keeping'
import type { PlaceEvenness, UpkeepState } from '#core/machines'
import type { LearnedHours, TodoKind } from '#core/planning'
import type { HygrometerCalibration } from '#core/sorption'
import type { DeviceAnswer } from './readings'
import type { HouseholdSettings, HygrometerSettings, MachineSettings } from './settings'

/** What the server answers. Instants are milliseconds since 1970 UTC, weights grams. */
export type HouseholdAnswer = HouseholdSettings

export interface MachineAnswer extends MachineSettings {
  version: number
  /** How the machine runs against the cards, once it has run. */
  pace?: { hours: Interval, runs: number }
  /** Hours with the heat on, and what wear asks for. */
  hoursRun?: number
  upkeep?: UpkeepState[]
  /** How far the dial is off, once it was measured, °C. */
  thermostat?: { offC: number, sd: number, count: number }
  /** How places dry against the middle of the machine, from trays weighed one by one. */
  evenness?: PlaceEvenness[]
}

export interface MachinePageAnswer {
  machine: MachineAnswer
  devices: DeviceAnswer[]
  run?: { runId: string, entries: Entry[], batches: { batchId: string, number: number, title: string, food: Food, entries: Entry[] }[] }
  /** Trays that should change places halfway. */
  swaps: { from: number, to: number }[]
}

export interface HygrometerAnswer extends HygrometerSettings { version: number, testedAt?: number, calibration: HygrometerCalibration }

export interface StageCount {
  stage: Stage
  /** Batches, or jars on the shelf. */
  count: number
  weightG: number
  /** How far along, 0–1: the share of the loaded water gone while drying, of a full rest while resting. */
  share: number
}

export interface TodoAnswer {
  batchId: string
  batchNumber: number
  batchTitle: string
  kind: TodoKind
  from: number
  to?: number
  title: string
  why: string
}

export interface RackTray {
  position: number
  batchId?: string
  batchNumber?: number
  title?: string
  /** Share of the loaded water still in the batch. */
  waterLeft?: number
}

export interface RackAnswer {
  machine: MachineAnswer
  runId?: string
  setC?: number | null
  trays: RackTray[]
  finishes: { batchId: string, batchNumber: number, title: string, from?: number, to?: number }[]
}

export interface NowAnswer {
  at: number
  todos: TodoAnswer[]
  /** How many there are when the list is cut. */
  todoCount: number
  racks: RackAnswer[]
  useFirst: JarSummary[]
  stages: StageCount[]
}

export interface BatchSummary {
  batchId: string
  number: number
  title: string
  foodKey: string
  stage: Stage
  purpose: Purpose
  startedAt: number
  touchedAt: number
  rawG: number
  loadedG?: number
  dryG?: number
  powderG?: number
  waterGone?: number
  finishFrom?: number
  finishTo?: number
}

export interface BatchAnswer {
  batchId: string
  number: number
  food: Food
  /** Questions on which practitioners disagree about it. */
  schools: SchoolQuestion[]
  /** Cautions that were accepted in any batch. */
  accepted: string[]
  /** What stands in each machine beside it. */
  others: Record<string, { food: Food, cardKey: string, frozen?: boolean }[] | undefined>
  /** The batch's own entries and the heat entries of its runs, in order of arrival. */
  entries: Entry[]
  machines: MachineAnswer[]
  jars: { jarId: string, number: number }[]
  /** The newest air of the room in the log, of whatever run. */
  lastAir?: { at: number, roomC: number, roomHumidity: number }
  /** Usual hours of this batch's card in each machine, from own runs. */
  learned: Record<string, LearnedHours | undefined>
  /** Positions taken by other batches, by machine, for loading. */
  taken: Record<string, { runId: string, positions: number[], setC: number | null } | undefined>
  stages: StageCount[]
}

/** A finished run beside others of its food. Hours are of heat as it passed, at whatever temperature. */
export interface ComparedRun extends RunOutline { batchId: string, number: number, title: string, machineName: string }

export interface JarSummary {
  jarId: string
  number: number
  batchId: string
  foodKey: string
  foodName: string
  /** Of the powder. */
  colour: string
  purpose: Purpose
  place: string
  netG: number
  leftG: number
  packedAt: number
  bestFrom: number
  bestTo: number
  smell?: string
}

export interface ShelfAnswer { jars: JarSummary[], count: number, totalG: number, places: string[] }

export interface JarAnswer extends JarSummary {
  batchNumber: number
  batchTitle: string
  packageKey: string
  sizeMl?: number
  bestBy: BestBy
  allergens: string[]
  /** What the damp that the package lets in does over the months; missing in the cold. */
  damp?: Damp
  /** Where it was spread as measured portions. */
  portion?: Portion
  /** Dried raw, and raw on the way back. */
  raw: boolean
  densityGMl: { p10: number, p50: number, p90: number }
  entries: Entry[]
  pedigree: { rawG: number, source: string, cultivar?: string, receivedAt: number, loadedG?: number, dryG?: number, powderG?: number, dryHours?: number, restDays?: number, jars: number }
}

export interface FoundItem { kind: 'batch' | 'jar' | 'food', id: string, title: string, detail: string }

/** Body of every refusal. */
export interface Refusal { statusCode: number, message: string, problems: { field: string, message: string }[] }
