import type * as z from 'zod'
import type { Say } from '../errors'
import type { FindFood } from '../foods'
import type { WayKey } from '../ways'
import type { BatchDraft } from './draft'
import type { Entry } from './entry'
import type { FindLot, Jar, JarDesk, JarItem } from './jar'
import type { BatchState, RunState } from './state'

/** In whose log a kind stands: of a batch, of a run and so of every batch in the machine, or of a jar. */
export type LogScope = 'batch' | 'run' | 'jar'

/** The machine that a load goes into, and what stands in it now (of other batches). */
export interface LoadMachine {
  name: string
  kind: WayKey
  trays: number
  lowC: number
  highC: number
  taken: readonly number[]
  /** Ice that its coil holds, g, and what stands in it brings already. */
  iceG?: number
  iceTakenG?: number
}

/** What a kind's rules see of the batch that it comes to. */
export interface BatchScene {
  at: number
  /** The batch as it stood then, without the entry that this one corrects. */
  state: BatchState
  run?: RunState
  /** On trays in a machine; and out of one again. */
  inMachine: boolean
  out: boolean
  /** Entries in force. */
  before: readonly Entry[]
  machine?: LoadMachine
  /** The most water that what the batch gives may have, wet basis, by all that is known of it. */
  wettest: () => number
  /** It stood too long where things grow: nothing but discarding is left. */
  spoiled: () => boolean
  find: FindFood
  say: Say
  /** Refuses the whole entry where this does not hold. */
  need: (good: boolean, code: string, message: string) => boolean
}

/** What a kind's rules see of the jars that it touches, as they stood then. */
export interface JarScene {
  at: number
  jars: ReadonlyMap<string, Jar>
  find: FindLot
  /** The batch in whose log it stands, if in one. */
  batchId?: string
  say: Say
}

/** A body's schema: an object with the kind as its literal. */
export type BodySchema<Kind extends string = string> = z.ZodType<{ kind: Kind }>

/** An entry with this body. */
export type EntryWith<Body> = Omit<Entry, 'body'> & { body: Body }

/**
 * All that there is to know of a kind of entry. A kind is one file in `kinds/` that declares this, and a line in `kinds/index.ts`.
 */
export interface EntryKindOf<Schema extends BodySchema, Scope extends LogScope = 'batch'> {
  schema: Schema
  /** Logs that it may stand in; the first is its own. */
  scopes: readonly Scope[]
  words: {
    /** "weighing": for refusals. */
    doing: string
    /** "a weight": for what waits to be sent. */
    what: string
  }
  /** May be logged on a batch whatever its stage. */
  anytime?: boolean
  /** May be logged on a batch after mould was seen. */
  afterMould?: boolean
  /** Tells how it stood or stands: may be logged on what was too long in the warm, since it can show that it was not. */
  evidence?: boolean
  /**
   * Whom else it tells something, beside its batch: `machine` what a run teaches of it (hours of heat, dial, evenness), `traces` what is left in
   * a mill or on trays for others.
   */
  tells?: readonly ('machine' | 'traces')[]
  /** Shown where a finished run is gone through again. */
  replayed?: boolean
  /** What it lays into a batch's draft, from which the state is worked out; `none` where it only stands to be read. */
  effect: ((draft: BatchDraft, entry: EntryWith<z.infer<Schema>>) => void) | 'none'
  /** Whether it may be logged on this batch. The shape has been checked. */
  check: ((body: z.infer<Schema>, scene: BatchScene) => void) | 'none'
  /** For what touches jars: which, whether it may, and what it does to them. */
  jars?: {
    names: (body: z.infer<Schema>) => string[]
    check: (body: z.infer<Schema>, scene: JarScene) => void
    effect: ((desk: JarDesk, item: EntryWith<z.infer<Schema>> & Pick<JarItem, 'batchId'>) => void) | 'none'
  }
}
