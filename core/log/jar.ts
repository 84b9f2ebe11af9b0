import type { Contains } from './draft'
import type { Entry } from './entry'
import type { JarDraw } from './fields'
import type { Food, Purpose, Range } from '../foods'
import type { PackageKey, Said } from '../keeping'
import type { ToldAtUse } from '../safety'
import type { JarSight } from './kinds/lookJar'
import type { Smell } from './kinds/smell'

/** An entry about jars, with the batch in whose log it stands, if in one. */
export type JarItem = Entry & { batchId?: string }

/** What must be known of a lot, a batch or what was bought in, to tell how its product keeps and what it brings. */
export interface Lot {
  food: Food
  purpose: Purpose
  rested: boolean
  /** Water of the product, wet basis: measured, or its target. */
  moisture: number
  /** The least and the most water that it may have by all that was known when it was packed, wet basis; missing where it was sold so. */
  driest?: number
  wettest?: number
  /** Beside the food's own, such as sulphites. */
  allergens?: readonly string[]
  /** The allergens are all of the lot's, its food's own among them: what was unknown may be answered. */
  whole?: boolean
  /** Share of salt by weight. */
  saltShare?: number
  /** Scoville units of the dry product, where they differ from the food's. */
  heat?: Range
  /** How long the household says that it keeps. */
  keeps?: Said
  /** Dried raw. */
  raw?: boolean
  /** What is told of it where it is used, of a mix of all that is in it; the food’s own where it is missing. */
  told?: ToldAtUse
  /** It stood too long in the warm before it was dry: nothing is eaten of it. */
  warm?: boolean
  /** The finest sieve that nine tenths of it are through, µm. */
  sievedUm?: number
  /** Bought in, or there before the log: it stood loose as it was. */
  sold?: boolean
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
  /** An absorber took its oxygen. */
  absorber?: boolean
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
  /** Allergens that were said of the jar itself. */
  contains?: Contains
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

/** Something that left a jar for good, to be eaten. */
export interface JarUse {
  jarId: string
  entryId: string
  at: number
  grams: number
}

/** What was taken out of a jar at an instant, part by part and aged to it. */
export interface Drawn {
  parts: JarPart[]
  mixed: Mixed
  grams: number
  jar?: Jar
}

/** What is in a batch's bowl beside its own basket: old powder that seeded it, or the jars it was begun from. */
export interface Bowl {
  ownG: number
  fromJars: boolean
  parts: JarPart[]
}

/** The jars while they are followed through their entries: what a kind's effect may do to them. */
export interface JarDesk {
  jars: Map<string, Jar>
  bowls: ReadonlyMap<string, Bowl>
  bowlOf: (batchId: string) => Bowl
  find: FindLot
  /** Refuses what cannot be; without it more is never taken than there is. */
  strict: boolean
  /** Takes from a jar: whatever leaves it leaves in the proportion of its parts. @throws InputError, strict only */
  draw: (source: JarDraw, at: number) => Drawn
  add: (jar: Jar, drawn: Drawn, at: number) => void
  age: (part: JarPart, jar: Jar, at: number) => JarPart
  /** Something left a jar for good. */
  used: (use: JarUse) => void
}

/** The scale's doubt: so much more may be taken than was put in, g. */
export const SCALE_G = 0.5
export const NOTHING: Mixed = { starchG: 0, saltG: 0 }

/** A jar before anything is in it. */
export const freshJar = (jarId: string, at: number) => ({
  jarId,
  inG: 0,
  leftG: 0,
  packedAt: at,
  filledAt: at,
  inOil: false,
  parts: [],
  mixed: NOTHING,
  looks: [],
  smells: [],
  ever: new Map<string, number>(),
})

/** Water in the jar by mass balance over its parts, wet basis; what is mixed in counts as dry. */
export function moistureOf(jar: { parts: readonly Pick<JarPart, 'grams' | 'moisture'>[]; leftG: number }): number {
  const partsG = jar.parts.reduce((sum, part) => sum + part.grams, 0)
  if (partsG <= 0) return jar.parts[0]?.moisture ?? 0
  return jar.parts.reduce((sum, part) => sum + part.grams * part.moisture, 0) / Math.max(partsG, jar.leftG)
}
