import type { ToldAtUse } from '#core/safety'
import type { Breach, PlanProblem, YearProblem } from '#core/plan'
import type { KeptRun, PlanBook } from './plan'
import type { Problem } from '#core/errors'
import type { CycleMate, RunOutline } from '#core/batch'
import type { Flow } from '#core/flow'
import type { Contains, Entry, HoldPlace, PictureSubject, Stage } from '#core/log'
import type { Food, Purpose, SchoolQuestion } from '#core/foods'
import type { Interval } from '#core/stats'
import type { Portion } from '#core/using'
import type { BestBy, Damp, Strength } from '#core/keeping'
import type { JarBest, JarWater } from '#core/jars'
import type { LearningPoint, Summary, TrialDifference, TrialSide, Worth } from '#core/insight'
import type { PlaceEvenness, UpkeepState } from '#core/machines'
import type { Effect, LearnedHours } from '#core/learning'
import type { TodoKind } from '#core/planning'
import type { HygrometerCalibration } from '#core/sorption'
import type { DeviceAnswer } from './readings'
import type { Recipe } from './recipes'
import type { HouseholdSettings, HygrometerSettings, MachineSettings, ToolSettings } from './settings'

/** What the server answers. Instants are milliseconds since 1970 UTC, weights grams. */
export type HouseholdAnswer = HouseholdSettings

export interface MachineAnswer extends MachineSettings {
  version: number
  /** How the machine runs against the cards, once it has run. */
  pace?: Effect
  /** Hours with the heat on, and what wear asks for. */
  hoursRun?: number
  upkeep?: UpkeepState[]
  /** How far the dial is off, once it was measured, °C. */
  thermostat?: { offC: number; sd: number; count: number }
  /** How places dry against the middle of the machine, from trays weighed one by one. */
  evenness?: PlaceEvenness[]
}

export interface MachinePageAnswer {
  machine: MachineAnswer
  devices: DeviceAnswer[]
  run?: { runId: string; entries: Entry[]; batches: { batchId: string; number: number; title: string; food: Food; entries: Entry[] }[] }
  /** Trays that should change places halfway. */
  swaps: { from: number; to: number }[]
  /** For a machine without runs: foods that its first run may be made with, and how many ordinary runs that is worth. */
  calibration?: {
    worth: number
    shares: readonly number[]
    foods: { foodKey: string; name: string; cardKey: string; cut: string; low: number; high: number }[]
  }
}

export interface HygrometerAnswer extends HygrometerSettings {
  version: number
  testedAt?: number
  calibration: HygrometerCalibration
}

export type ToolAnswer = ToolSettings & { version: number }

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
  /** Water in the food, wet basis, and what it must come to. */
  moisture?: number
  target?: number
  /** It was never weighed: that is a forecast. */
  guessed?: true
}

export interface RackAnswer {
  machine: MachineAnswer
  runId?: string
  setC?: number | null
  trays: RackTray[]
  finishes: { batchId: string; batchNumber: number; title: string; from?: number; to?: number }[]
}

/** What there is to plan; whoever likes lets another solver at it. */
export interface PlanAnswer {
  problem: PlanProblem
  /** Baskets that are not planned for: over their time, too long in the warm, or from jars, whose hours nobody knows. */
  apart: { batchId: string; title: string; why: 'late' | 'warm' | 'jars'; until: number }[]
  /** What stands on the shelf of each food and form, g. */
  shelf: { foodKey: string; purpose: string; leftG: number }[]
  /** Colours of the foods of the baskets. */
  colours: { [foodKey: string]: string }
  /** The plan that people work by, and what became of its runs. */
  kept: { run: KeptRun; batchId?: string; takenAt: number; actual?: { loadedAt: number; machineId: string; machineName: string } }[]
  /** Who foretold the sky, and when; nobody where it is not given. */
  weather?: { source: string; at: number }
}

/** What the household says for planning, and what its own log says beside. */
export interface PlanBookAnswer {
  book: PlanBook
  version: number
  ownYears: {
    foodKey: string
    foodName: string
    purpose: PlanBook['harvests'][number]['purpose']
    year: string
    from: string
    to: string
    baskets: number
    weightG: number
  }[]
  /** Taken from jars in the last twelve months, g by food. */
  usedLastYear: { [foodKey: string]: number }
  shelf: { foodKey: string; purpose: string; leftG: number }[]
}

/** Twelve months: a problem for the solver, and what needs none. */
export interface PlanYearAnswer {
  problem: YearProblem
  /** Beginnings of the months. */
  months: number[]
  lines: {
    id: string
    title: string
    purpose: PlanBook['harvests'][number]['purpose']
    lowKg: number
    highKg: number
    productG: number
    jars: number
  }[]
  wishes: {
    id: string
    title: string
    purpose: PlanBook['harvests'][number]['purpose']
    grams: number
    haveG: number
    missingG: number
    by: number
    /** The basket that gives what is missing, kg; what the calendar brings of it; loads in the quickest machine, and the last moment to begin. */
    needsKg?: number
    comingKg?: number
    machineName?: string
    loads?: number
    loadBy?: number
    impossible?: 'no-machine' | 'no-time'
  }[]
  shopping: { jarMl: number; jars: number; sachetCc?: number; sachets: number; silicaG: number }
}

export interface PlanCheckAnswer {
  breaches: Breach[]
}

export interface NowAnswer {
  at: number
  todos: TodoAnswer[]
  /** How many there are when the list is cut. */
  todoCount: number
  racks: RackAnswer[]
  useFirst: JarSummary[]
  stages: StageCount[]
  /** Jars in whose log something waits to be settled. */
  unsettledJars: { jarId: string; number: number; writer: string | null }[]
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
  others: { [machineId: string]: { food: Food; cardKey: string; cooked?: boolean; frozen?: boolean; waterG?: number }[] }
  /** What shares the chamber of its freeze dryer: one cycle, one end. */
  mates: CycleMate[]
  /** The batch's own entries and the heat entries of its runs, in order of arrival. */
  entries: Entry[]
  machines: MachineAnswer[]
  jars: { jarId: string; number: number }[]
  /** Words for next time on earlier batches of the same food, the same card first. */
  reviews: ReviewAnswer[]
  /** Jars of the shelf that it may be poured onto, or that may seed it. */
  shelf: JarSummary[]
  tools: ToolAnswer[]
  /** The newest air of the room in the log, of whatever run. */
  lastAir?: { at: number; roomC: number; roomHumidity: number }
  /** Usual hours of this batch's card in each machine, from own runs. */
  learned: { [machineId: string]: LearnedHours }
  /** Positions taken by other batches, by machine, for loading. */
  taken: { [machineId: string]: { runId: string; positions: number[]; setC: number | null } }
  /** The batch that it is a part of, and its own parts. */
  family: FamilyMember[]
  /** What the plan that people work by has for it, before it is loaded. */
  planned?: KeptRun
  stages: StageCount[]
}

/** A batch that another is a part of, or that is a part of another. */
export interface FamilyMember {
  batchId: string
  number: number
  title: string
  stage: Stage
  /** What it began with, g. */
  weightG: number
  hold?: { place: HoldPlace; until: number }
  /** The batch that it is a part of, where that is among those told of. */
  of?: string
}

/** Where the food of a basket went, batch by batch: the first, and after it the parts that became batches of their own. */
export interface FlowAnswer {
  batches: FlowOfBatch[]
}
export interface FlowOfBatch extends FamilyMember {
  flow: Flow
  jars: { jarId: string; number: number }[]
}

/** A finished run beside others of its food. Hours are of heat as it passed, at whatever temperature. */
export interface ComparedRun extends RunOutline {
  batchId: string
  number: number
  title: string
  machineName: string
}

export interface JarSummary {
  jarId: string
  number: number
  /** The batch that was packed in it first; missing for one filled from other jars. */
  batchId?: string
  foodKey: string
  foodName: string
  /** Of the powder. */
  colour: string
  purpose: Purpose
  place: string
  netG: number
  leftG: number
  packedAt: number
  /** When its oldest part was packed, and of how many baskets it is. */
  oldestAt: number
  baskets: number
  bestFrom: number
  bestTo: number
  smell?: string
  smeltAt?: number
  /** What the newest look showed. */
  saw?: string
  /** Too long in the warm before it was dry. */
  warm?: boolean
}

/** What there is of a food, what was eaten of it in a year, and what is wished. */
export interface StockAnswer {
  foodKey: string
  foodName: string
  colour: string
  leftG: number
  jars: number
  usedYearG: number
  /** Months that what is left lasts at the year's pace; missing where nothing was taken. */
  monthsLeft?: number
  leastG?: number
  low: boolean
}

/** A jar on the shelf; its food's name and colour stand once in `foods`. */
export type ShelfJar = Omit<JarSummary, 'foodName' | 'colour' | 'batchId' | 'oldestAt' | 'smeltAt'> & { name?: string }

export interface ShelfAnswer {
  jars: ShelfJar[]
  foods: { [foodKey: string]: { name: string; colour: string } }
  count: number
  totalG: number
  places: string[]
  stock: StockAnswer[]
  usedByMonth: { month: string; grams: number }[]
}

/** A basket in a jar, from the garden to the glass. */
export interface BasketAnswer {
  batchId: string
  number: number
  title: string
  /** Of it in the jar, ever and now. */
  everG: number
  leftG: number
  rawG: number
  source: string
  cultivar?: string
  receivedAt: number
  loadedG?: number
  dryG?: number
  powderG?: number
  dryHours?: number
  restDays?: number
  jars: number
}

/** What was bought in, as a part of a jar. */
export interface PacketAnswer {
  jarId: string
  number: number
  name: string
  source?: string
  at: number
  netG: number
  price?: number
  everG: number
  leftG: number
}

/** An entry of a jar, with the batch in whose log it stands, if in one. */
export interface LoggedOnJar extends Entry {
  batchId?: string
}

export interface JarAnswer extends JarSummary {
  /** Of the batch that was packed in it first, where one was. */
  batchNumber?: number
  /** Cut of that batch, or the food's first. */
  cardKey: string
  packageKey: string
  sizeMl?: number
  storageC: number
  /** When something last went in. */
  filledAt: number
  /** Water, wet basis, by balance over its parts, and the humidity of its air that goes with it. */
  moisture: number
  activity: number
  /** What was seen or smelt says that it is damper than was reckoned. */
  seen?: JarWater['seen']
  bestBy: BestBy
  bestLimit: JarBest['limit']
  allergens: string[]
  /** Share of salt by weight, and Scoville units where it is hot. */
  saltShare: number
  heat?: { low: number; high: number }
  mixed: { starchG: number; saltG: number }
  /** What the damp that the package lets in does over the months; missing in the cold. */
  damp?: Damp
  /** Strength over the months, as smell tests of this food have it. */
  strength: Strength
  /** Where it was spread as measured portions. */
  portion?: Portion
  /** Dried raw, and raw on the way back. */
  raw: boolean
  /** Too long in the warm before it was dry: to be discarded. */
  warm: boolean
  /** Cautions of its use: in a few words, and in full. */
  told: ToldAtUse
  inOil: boolean
  /** What was said of the jar itself. */
  contains?: Contains
  densityGMl: { p10: number; p50: number; p90: number }
  /** The density was weighed by the spoon. */
  measured: boolean
  /** Also what stands in a batch's log, such as its packing: with that batch. */
  entries: LoggedOnJar[]
  /** Every basket that is or was in it, the largest first. */
  pedigree: BasketAnswer[]
  /** Every packet that is or was in it. */
  packets: PacketAnswer[]
  /** Other jars of the same with something in them, to pour from. */
  others: JarSummary[]
}

/** Every jar that a basket went into. */
export interface RecallAnswer {
  jars: (JarSummary & { everG: number; partLeftG: number })[]
  eatenG: number
}

/** What batches taught, by food, card, purpose or machine. */
/** A finished run behind something that was learned. */
export interface RunBehind {
  batchId: string
  number: number
  title: string
  machineName: string
  loadedAt: number
  /** Its hours over the card's; how much it counts beside a new run that was weighed well, 0–1. */
  hours: number
  counts: number
  /** Left out by hand: why, and the entry that says so. */
  leftOut?: { reason: string; entryId: string }
}

/** One thing that runs have taught of hours, and the runs. */
export interface LearnedAnswer {
  kind: 'machine' | 'food' | 'person'
  key: string
  name: string
  effect?: Effect
  runs: RunBehind[]
}

/** Usual hours of each cut of a food in each machine, as every page tells them. */
export interface FoodHoursAnswer {
  machines: { machineId: string; name: string; cards: { [cardKey: string]: LearnedHours } }[]
}

export interface InsightAnswer {
  groups: { key: string; name: string; summary: Summary; reference?: { prep: number; drying: number; grinding: number }; worth?: Worth }[]
  all: Summary
  /** How well hours were told at loading, as runs came. */
  learning: LearningPoint[]
  /** Each run's hours as they were said at loading, against what it took; oldest first. */
  told: { batchId: string; number: number; at: number; low: number; middle: number; high: number; actual: number }[]
  /** What each basket gave, product of what came in; oldest first. */
  yields: { batchId: string; number: number; at: number; foodKey: string; name: string; share: number; reference?: number }[]
}

/** A size of label, and how it lies on its sheet; mm. */
export interface LabelTemplateAnswer {
  key: string
  name: string
  width: number
  height: number
  sheet?: { width: number; height: number; columns: number; rows: number; left: number; top: number; pitchX: number; pitchY: number }
}

/** A word for next time on a batch, or on a jar of it. */
export interface ReviewAnswer {
  batchId: string
  number: number
  jar?: { jarId: string; number: number }
  cardKey: string
  at: number
  again: 'yes' | 'changed' | 'no'
  colour?: number
  taste?: number
  text?: string
}

/** Two batches beside each other, and what they differ in. */
export interface TrialAnswer {
  sides: (TrialSide & { batchId: string; title: string; pictures: PictureAnswer[] })[]
  differences: TrialDifference[]
}

/** A picture of the log, with what it hangs on. */
export interface PictureAnswer {
  entryId: string
  /** Its name: SHA-256 of its bytes. */
  picture: string
  at: number
  shows: PictureSubject
  text?: string
  colour?: { l: number; a: number; b: number }
  batchId?: string
  batchNumber?: number
  jarId?: string
  jarNumber?: number
}

export interface FoundItem {
  kind: 'batch' | 'jar' | 'food'
  id: string
  title: string
  detail: string
}

/** Body of every refusal. */
export interface Refusal {
  statusCode: number
  message: string
  problems: Problem[]
}

/** A jar as a cook needs it. */
export interface KitchenJar extends Omit<JarSummary, 'smell' | 'smeltAt' | 'saw'> {
  /** Water of what is in it and of the raw food, wet basis. */
  moisture: number
  rawMoisture: number
  /** Spooned, g/mL; `measured` where a level spoon was weighed. */
  densityGMl: Interval
  measured: boolean
  /** Scoville units; missing where it is not hot. */
  heat?: { low: number; high: number }
  saltShare: number
  allergens: string[]
  /** Raw on the way back. */
  raw: boolean
  warm: boolean
  told: ToldAtUse
  mould: boolean
  sievedUm?: number
  /** Key of the food's family. */
  group: string
  /** Months in which its strength halves. */
  halfLife?: Interval
  /** In the household's money; missing where nobody knows. */
  costPerG?: number
}

export interface KitchenAnswer {
  jars: KitchenJar[]
  recipes: (Recipe & { version: number })[]
  /** What may be bought in. */
  goods: { key: string; name: string; colour: string; allergens: string[] }[]
}
