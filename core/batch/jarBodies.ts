import type { Purpose, Range } from '../foods'
import type { PackageKey } from '../keeping'

/** So many grams out of a jar. */
export interface JarDraw {
  jarId: string
  weightG: number
}

/** What goes into a blend: `toastedG` is what it weighed once it was toasted, having lost water only. */
export interface BlendDraw extends JarDraw {
  toastedG?: number
}

/** What makes of a filling a blend. `sifted`: what stayed on the sieve at last, thrown out or ground again elsewhere. */
export interface Blend {
  name: string
  recipeId?: string
  purpose?: Purpose
  sifted?: { openingUm: number; overG: number }
}

/** What is written into a jar's own log. */
export type JarBody =
  | { kind: 'take'; jarId: string; weightG: number; use?: string }
  /** A jar goes to another place, which may be warmer or colder. */
  | { kind: 'moveJar'; jarId: string; place: string; storageC?: number }
  /** What is left in a jar is thrown away, and why. */
  | { kind: 'discard'; jarId: string; cause: string }
  | { kind: 'smell'; jarId: string; smell: 'strong' | 'weaker' | 'crushed' | 'none' }
  /** What a look into a closed or opened jar shows. */
  | { kind: 'lookJar'; jarId: string; saw: 'loose' | 'packed' | 'clumps' | 'moisture' | 'mould' | 'insects'; note?: string }
  /** The powder weighed by the level spoon or cup. */
  | { kind: 'measure'; jarId: string; ml: number; weightG: number }
  /** A new jar filled from others: split, put together, or blended. */
  | {
      kind: 'fill'
      jarId: string
      from: BlendDraw[]
      blend?: Blend
      packageKey: PackageKey
      place: string
      sizeMl?: number
      storageC?: number
      leakGDayKPa?: number
    }
  /** What stands in a jar without a batch: bought in, or from before the log. `at` is when it was opened or packed. */
  | {
      kind: 'stock'
      jarId: string
      foodKey: string
      name?: string
      purpose: Purpose
      netG: number
      packageKey: PackageKey
      place: string
      sizeMl?: number
      storageC?: number
      leakGDayKPa?: number
      source?: string
      price?: number
      moisture?: number
      saltShare?: number
      heat?: Range
      allergens?: string[]
      bestTo?: number
    }
  /** Poured onto what is in a jar. */
  | { kind: 'pour'; jarId: string; from: JarDraw }

/** A word for next time, on a batch or on a jar: whether it is worth repeating, how its colour and taste came out. */
export interface Review {
  kind: 'review'
  jarId?: string
  again: 'yes' | 'changed' | 'no'
  colour?: number
  taste?: number
  text?: string
}
