import type { Entry, JarDraw } from '../batch'
import type { Food, Purpose, Range } from '../foods'
import type { PackageKey } from '../keeping'

/** An entry about jars, with the batch in whose log it stands, if in one. */
export type JarItem = Entry & { batchId?: string }

/** What must be known of a lot, a batch or what was bought in, to tell how its product keeps and what it brings. */
export interface Lot {
  food: Food
  purpose: Purpose
  rested: boolean
  /** Water of the product, wet basis: measured, or its target. */
  moisture: number
  /** Beside the food's own, such as sulphites. */
  allergens?: readonly string[]
  /** Share of salt by weight. */
  saltShare?: number
  /** Scoville units of the dry product, where they differ from the food's. */
  heat?: Range
  /** Dried raw. */
  raw?: boolean
  /** The finest sieve that nine tenths of it are through, µm. */
  sievedUm?: number
  /** The date printed on what was bought in. */
  bestTo?: number
}
/** Gives a lot by its id: a batch's, or the jar's in which it was bought in. */
export type FindLot = (lotId: string) => Lot | undefined

/** A share of a jar that came from one basket or packet. */
export interface JarPart {
  /** The batch's id, or the jar's in which it was bought in. */
  lotId: string
  grams: number
  /** When it first went into a jar. */
  packedAt: number
  /** Share of its best time that was over at `since`, 0–1; from then on it ages as the jar does. */
  used: number
  since: number
  moisture: number
}

/** What was mixed in: starch against caking, salt. Grams, drawn down with the rest. */
export interface Mixed {
  starchG: number
  saltG: number
}

/** A jar as its entries leave it. */
export interface Jar {
  jarId: string
  /** The batch that was packed in it first; missing for one filled from other jars. */
  batchId?: string
  purpose: Purpose
  foodKey: string
  packageKey: PackageKey
  place: string
  sizeMl?: number
  storageC?: number
  inOil: boolean
  /** What its lid lets in where that was measured, g a day for each kPa. */
  leakGDayKPa?: number
  /** All that ever went in, g, and what is left. */
  inG: number
  leftG: number
  /** First filled, and last added to. */
  packedAt: number
  filledAt: number
  parts: JarPart[]
  mixed: Mixed
  discarded?: { at: number; cause: string }
  looks: { at: number; saw: JarSight }[]
  smells: { at: number; smell: Smell }[]
  /** What a blend or a packet is called. */
  name?: string
  /** The sieve that the whole of it went through, µm. */
  sievedUm?: number
  /** Weighed by the level spoon or cup, g/mL. */
  densityGMl?: number
  /** Every lot that was ever in it, with all that came from it, g. */
  ever: Map<string, number>
}

export type JarSight = 'loose' | 'packed' | 'clumps' | 'moisture' | 'mould' | 'insects'
export type Smell = 'strong' | 'weaker' | 'crushed' | 'none'

/** Something that left a jar for good, to be eaten. */
export interface JarUse {
  jarId: string
  entryId: string
  at: number
  grams: number
}

export type { JarDraw }
