import type { PackageKey } from '../keeping'

/** So many grams out of a jar. */
export interface JarDraw { jarId: string, weightG: number }

/** What is written into a jar's own log. */
export type JarBody
  = | { kind: 'take', jarId: string, weightG: number, use?: string }
    /** A jar goes to another place, which may be warmer or colder. */
    | { kind: 'moveJar', jarId: string, place: string, storageC?: number }
    /** What is left in a jar is thrown away, and why. */
    | { kind: 'discard', jarId: string, cause: string }
    | { kind: 'smell', jarId: string, smell: 'strong' | 'weaker' | 'crushed' | 'none' }
    /** What a look into a closed or opened jar shows. */
    | { kind: 'lookJar', jarId: string, saw: 'loose' | 'packed' | 'clumps' | 'moisture' | 'mould' | 'insects', note?: string }
    /** The powder weighed by the level spoon or cup. */
    | { kind: 'measure', jarId: string, ml: number, weightG: number }
    /** A new jar filled from others: split, or put together. */
    | { kind: 'fill', jarId: string, from: JarDraw[], packageKey: PackageKey, place: string, sizeMl?: number, storageC?: number, leakGDayKPa?: number }
    /** Poured onto what is in a jar. */
    | { kind: 'pour', jarId: string, from: JarDraw }

/** A word for next time, on a batch or on a jar: whether it is worth repeating, how its colour and taste came out. */
export interface Review { kind: 'review', jarId?: string, again: 'yes' | 'changed' | 'no', colour?: number, taste?: number, text?: string }
