import type { FeelCheck } from '../dryness'
import type { PackageKey } from '../keeping'
import type { JarBody, JarDraw, Review } from './jarBodies'
import type { PrepStepName, Purpose } from '../foods'
import type { MachineKind } from '../machines'
import type { HoldPlace } from './hold'
import type { HygrometerCalibration } from '../sorption'

/** What was believed of the hours when a load went in: from the card, and from so many own runs. */
export interface UsualHours {
  low: number
  high: number
  runs: number
}

export interface TrayWeight {
  position: number
  weightG: number
}

/** A tray that goes from one place to another, or stays; turned end for end, or its food turned over. */
export interface TrayMove {
  from: number
  to: number
  turned?: boolean
  flipped?: boolean
}

/** What came in. */
export interface IntakeBody {
  kind: 'intake'
  foodKey: string
  cultivar?: string
  source: string
  weightG: number
  condition?: string
  purpose: Purpose
  cardKey: string
  /** The plant or row that it was picked from: its pickings add up over the season. */
  plant?: string
  count?: number
  /** What was paid for it, in the household's money. */
  price?: number
  /** The batch whose basket it is a part of. */
  from?: string
  /** Begun from jars of the shelf, to be dried or ground again: dry already. */
  fromJars?: JarDraw[]
  /** What stood in those jars. */
  fromForm?: Purpose
}

/** A jar in which a part of the batch rests. */
export interface RestJar {
  name: string
  sizeMl?: number
  weightG?: number
}

/** One round in the cup. */
export interface GrindRound {
  inG: number
  outG?: number
}

/** A pass over a sieve: what fell through and what stayed on top; `back` where that went into the cup again. */
export interface GrindPass {
  openingUm: number
  throughG: number
  overG: number
  back?: boolean
}

/** Where the rest of a grinding went, g. */
export interface GrindLosses {
  dustG?: number
  filmG?: number
  rejectsG?: number
  cleaningG?: number
}

/** What is written into a batch's log. One kind a fact; grams are net of the tray. */
export type EntryBody =
  | IntakeBody
  /** `coreC`: what the thermometer showed inside, for what must be cooked. `school`: which way it was done, where practitioners differ. */
  | {
      kind: 'prep'
      step: PrepStepName
      effect: 'none' | 'waste' | 'water' | 'added'
      weightG?: number
      added?: AddedParts
      cutName?: string
      thicknessMm?: number
      coreC?: number
      minutes?: number
      school?: string
      by?: string
      note?: string
    }
  /** Part of the basket becomes a batch of its own. */
  | { kind: 'split'; weightG: number; to: string; what?: string }
  /** Work stops: where it is kept meanwhile; null when it is taken up again. */
  | { kind: 'hold'; place: HoldPlace | null; roomC?: number }
  /** A caution that was read and accepted. */
  | { kind: 'caution'; rule: string }
  /** `way`: the kind of machine, or none. `frozen`: trays that went in frozen solid. `portions`: sheets spread as measured amounts. */
  | {
      kind: 'load'
      runId: string
      machineId: string
      positions: number[]
      trays?: TrayWeight[]
      totalG: number
      usualHours?: UsualHours
      way?: MachineKind
      frozen?: number[]
      portions?: { count: number; ml: number }
    }
  | { kind: 'heat'; runId: string; setC: number | null }
  | { kind: 'air'; runId: string; roomC?: number; roomHumidity?: number; chamberC?: number }
  /** Trays change places in a machine, of whatever batch. */
  | { kind: 'move'; runId: string; trays: TrayMove[] }
  /** What is expected of the weather, for food outdoors: minute of the day at which it comes in, and an instant of rain. */
  | { kind: 'outlook'; runId: string; duskMinute: number; rainAt?: number }
  /** A line of the list that is gone through before or after a run. */
  | { kind: 'tick'; runId: string; list: 'start' | 'end'; item: string }
  | { kind: 'weigh'; trays?: TrayWeight[]; totalG?: number }
  | { kind: 'feel'; check: FeelCheck }
  /** All trays that are left, or those named. */
  | { kind: 'unload'; weightG?: number; positions?: number[] }
  | { kind: 'rest'; container?: string; jars?: RestJar[] }
  /** `jar`: which of the jars at rest, counted from 1; all of them where missing. */
  | { kind: 'look'; saw: LookSight; jar?: number; note?: string }
  /** One of the jars at rest is thrown away. */
  | { kind: 'restOut'; jar: number; weightG: number; cause: string }
  | { kind: 'jarAir'; shown: number; closedHours: number; celsius?: number; calibration: HygrometerCalibration }
  | { kind: 'restEnd'; weightG?: number }
  /** A session at the grinder. Powder out is what all rounds gave together, a seed of old powder included. */
  | {
      kind: 'grind'
      dryInG: number
      powderOutG: number
      grinderId?: string
      rounds?: GrindRound[]
      seed?: JarDraw
      passes?: GrindPass[]
      lost?: GrindLosses
      warm?: boolean
      note?: string
    }
  /** Damp powder dried in a thin layer. */
  | { kind: 'powderDry'; how: 'oven-off' | 'low-oven' | 'dryer'; minutes: number; beforeG?: number; afterG?: number }
  /** Into a new jar, or onto what is in one. `mixed`: what was stirred in beside. `leakGDayKPa`: what the lid lets in, where measured. */
  | {
      kind: 'pack'
      jarId: string
      netG: number
      packageKey: PackageKey
      place: string
      sizeMl?: number
      storageC?: number
      inOil?: boolean
      topUp?: boolean
      moisture?: number
      mixed?: { starchG?: number; saltG?: number }
      absorberCc?: number
      gelG?: number
      wrapped?: boolean
      leakGDayKPa?: number
    }
  | { kind: 'finish'; reason?: string }
  | { kind: 'note'; text: string }
  | Review
  | JarBody
  | { kind: 'void'; target: string; reason?: string }

export interface AddedParts {
  solidsG?: number
  waterG?: number
  saltG?: number
  sugarG?: number
  oilG?: number
}

/** What a look at a jar at rest shows; packed pieces hang at the top and fall when it is knocked. */
export const LOOK_SIGHTS = ['dry', 'hung', 'clumps', 'moisture', 'mould'] as const
export type LookSight = (typeof LOOK_SIGHTS)[number]

export type EntryKind = EntryBody['kind']

/** Kinds that belong to a run, and so to every batch in the machine. */
export const RUN_KINDS: readonly EntryKind[] = ['heat', 'air', 'move', 'tick', 'outlook']
/** Kinds that stand in a jar's own log. */
export const JAR_KINDS: readonly EntryKind[] = ['take', 'moveJar', 'discard', 'smell', 'lookJar', 'measure', 'fill', 'pour', 'stock']

/** An entry as it stands in the log. Instants are milliseconds since 1970, UTC. */
export interface Entry {
  id: string
  /** Order of arrival; breaks ties between entries of the same instant. */
  seq: number
  /** When it happened. */
  at: number
  /** When it was written down. */
  recordedAt: number
  /** The entry that this one corrects. */
  replaces?: string
  body: EntryBody
}

export type EntryOf<K extends EntryKind> = Entry & { body: Extract<EntryBody, { kind: K }> }

/** Where a batch stands, in the order of the stage band. */
export const STAGES = ['intake', 'prep', 'drying', 'resting', 'grinding', 'shelf'] as const
export type Stage = (typeof STAGES)[number]
