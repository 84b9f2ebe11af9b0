import type { Contains } from './draft'
import type { Air } from '../air'
import type { CardWay, Choices, Food, MethodCard, Purpose } from '../foods'
import type { DryingClock, Spell } from '../kinetics'
import type { PrepBalance, PrepLedger } from '../mass'
import type { EntryOf, Stage } from './entry'
import type { TrayWeight } from './fields'
import type { HoldPlace } from './kinds/hold'
import type { UsualHours } from './kinds/load'
import type { LookSight } from './kinds/look'
import type { RestJar } from './kinds/rest'

/** Where food waits between steps, since when, and until when it may. */
export interface Hold {
  place: HoldPlace
  since: number
  until: number
}

/** One state of the whole load, from one or several entries on the scale. */
export interface Weighing {
  /** Instant of the last entry in it. */
  at: number
  /** Equivalent hours on the drying clock. */
  hours: number
  /** The whole load, g; extrapolated where only some trays were weighed. */
  weightG: number
  /** Doubt from trays that were not weighed. */
  extraSdG?: number
  /** The heat was off since the weighing before. */
  afterOff?: boolean
  /** Places of the trays weighed, as they stood then; empty for the whole load in one. */
  positions: number[]
  entryIds: string[]
}

/**
 * Where the trays of a load stand. A tray is known by the place that it was loaded in; trays change
 * places, so a place means another tray before and after.
 */
export interface TrayPlaces {
  /** Place of a tray at an instant; for a tray that is out, the place it came from. */
  placeAt(tray: number, at: number): number
  /** The tray of this load that stands in a place at an instant; undefined where there is none. */
  trayAt(place: number, at: number): number | undefined
  /** When each tray came out. */
  outAt: ReadonlyMap<number, number>
  /** When trays last changed places; undefined where they stand as they were loaded. */
  movedAt?: number
  /** When the food on the last of its trays was turned over; undefined while one was not. */
  flippedAt?: number
}

/** A jar at rest, as its looks leave it. */
export interface RestingJar extends RestJar {
  /** Counted from 1. */
  number: number
  looks: EntryOf<'look'>[]
  /** What the newest look showed. */
  last?: LookSight
  mould: boolean
  /** Thrown away meanwhile. */
  out?: { weightG: number; cause: string }
}

/** The rest in closed jars since the food last left the machine. */
export interface RestState {
  /** Undefined while it waits beside the machine. */
  startedAt?: number
  endedAt?: number
  endWeightG?: number
  looks: EntryOf<'look'>[]
  jars: RestingJar[]
}

/** What was told of a freeze dryer's cycle. */
export interface CycleTold {
  /** Hours that were added by hand. */
  addedH: number
  /** Of those, what was added since the trays were last weighed. */
  sinceH: number
  /** When the machine itself says that it is through, by its display and what was added since; undefined where nobody read it, or weights are newer. */
  endsAt?: number
}

/** A spell of a batch in a machine, from loading to taking out. */
export interface RunState {
  runId: string
  machineId: string
  /** How it is dried there: heat and usual hours of the card for that kind of machine. */
  way: CardWay
  /** Trays that went in frozen solid. */
  frozen: number[]
  portions?: { count: number; ml: number }
  /** It went back in as powder. */
  powder: boolean
  /** What was said of the weather, outdoors. */
  outlook?: { duskMinute: number; rainAt?: number }
  /** The trays, each known by the place it was loaded in. */
  positions: number[]
  /** Trays still in the machine. */
  present: number[]
  /** Where the trays stand, since they change places. */
  places: TrayPlaces
  /** Weight by tray where trays were weighed; an even share otherwise. */
  trays: TrayWeight[]
  /** Whether the trays were weighed one by one. */
  traysWeighed: boolean
  loadedG: number
  /** Of one tray, m², where it was written down. */
  trayAreaM2?: number
  /** It was not weighed: its doubt, standard deviation, g. */
  loadedSdG?: number
  /** It was said to be all there was, though it was less than expected. */
  whole?: boolean
  /** What the hours were believed to be at loading; the card's where missing. */
  usualHours?: UsualHours
  loadedAt: number
  /** Set while the heat is on. */
  setC: number | null
  /** The room's air as last measured during the run. */
  room?: Air
  /** When its heat was last set. */
  setAt: number
  /** What was measured in the machine, oldest first, °C. */
  probed: { at: number; chamberC: number }[]
  /** What was last measured in the machine with the heat on, °C. */
  chamberC?: number
  clock: DryingClock
  /** Its hours as felt over the same by the dial alone: what was measured in the machine may tell of another heat. */
  feltOverDial: number
  /** Spells without heat, cut where something was weighed in their course; none where the food is cut off from the room. */
  spells: readonly Spell[]
  /** What hands said of it, with the hour of its clock and the heat of its air then, °C. */
  felt: readonly { at: number; hours: number; airC: number; check: EntryOf<'feel'>['body']['check'] }[]
  weighings: Weighing[]
  /** All of it once more at the end of its rest, where it was weighed then. */
  rested?: Weighing
  /** Single trays on the scale, oldest first. */
  trayWeights: { position: number; at: number; hours: number; weightG: number }[]
  unloadedAt?: number
  /** Its powder dried once more in an oven, with the weights before and after. */
  powderDries: readonly EntryOf<'powderDry'>[]
  cycle: CycleTold
}

/** Grams of dry food by its form. */
export type DryForms = Partial<Record<Purpose, number>>

/** What of the batch went into a jar; a jar that was topped up stands here once for each time. */
export interface JarState {
  jarId: string
  packEntryId: string
  netG: number
  packedAt: number
  body: EntryOf<'pack'>['body']
}

/** All that follows from a batch's log. Nothing here is stored. */
export interface BatchState {
  food: Food
  card: MethodCard
  purpose: Purpose
  intake: EntryOf<'intake'>
  stage: Stage
  /** Cut in words: what the prep said, or the card. */
  cutName: string
  /** Thickness on the trays, where known, mm. */
  thicknessMm?: number
  /** Who cut it, where noted. */
  cutBy?: string
  prep: EntryOf<'prep'>[]
  /** The steps from basket to trays, as the balance takes them. */
  ledger: PrepLedger
  /** Solids and moisture at (first) loading, or as far as prep has come. */
  balance: PrepBalance
  run?: RunState
  /** Runs before the present or last one. */
  earlierRuns: RunState[]
  feel?: EntryOf<'feel'>
  /** Newest reading of the air in a closed jar since the last loading. */
  jarAir?: EntryOf<'jarAir'>
  rest?: RestState
  /** Net dry weight: from the newest of grinding, end of rest, taking out, last weigh-in. */
  dryG?: number
  /** That weight was on the scale when it came out or since; otherwise it is the last one before, and the food may have lost more. */
  dryWeighed: boolean
  grinds: EntryOf<'grind'>[]
  /** Flakes and powder there are, packed or not; what was ground or dried once more stands here once. */
  powderG: number
  /** Dry pieces that went into the cup since it last came out. */
  piecesInG: number
  /** Dry food that is in no jar yet, by form, g; its pieces are missing where nobody weighed what came out. */
  left: DryForms
  /** What came of it in each form, less what was ground further: packed, left, and gone otherwise. */
  had: DryForms
  /** In jars, by form. */
  packed: DryForms
  /** Eaten, given or thrown away, or batches of their own, by form. */
  gone: DryForms
  /** What may be packed now, by form, g: missing before there is anything of it to pack. */
  unpacked: DryForms
  jars: JarState[]
  packedG: number
  finished: boolean
  /** Where it waits, while work stands still. */
  hold?: Hold
  /** Every word on where it waited, oldest first. */
  holds: EntryOf<'hold'>[]
  /** Mould was seen: nothing but discarding is left. */
  mould: boolean
  /** Rules whose caution was accepted. */
  accepted: ReadonlySet<string>
  /** Schools that were chosen for it, by question. */
  choices: Choices
  /** It was begun dry, from jars of the shelf or a part of another batch: to be ground, or dried again. */
  beganDry: boolean
  /** Why it is not to teach what the next ones take and give. */
  leftOut?: string
  /** Times that it was heated through once it was dry. */
  heated: EntryOf<'heatThrough'>[]
  /** Allergens that were said of it. */
  contains?: Contains
  /** What left it on its way: eaten, frozen, given or thrown away, or become batches of their own. */
  splits: EntryOf<'split'>[]
}
