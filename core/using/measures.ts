/** Spoons and cups that a kitchen has, mL. */
export type MeasureSystem = 'us' | 'metric'
interface Vessel {
  name: string
  many: string
  ml: number
  parts: readonly number[]
}

/** US spoons and cups by their legal volumes (15 CFR 13; a cup 236.588 mL); metric ones as they are sold. Fractions that exist as vessels. */
const VESSELS: Record<MeasureSystem, readonly Vessel[]> = {
  us: [
    { name: 'cup', many: 'cups', ml: 236.588, parts: [1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4, 1] },
    { name: 'tablespoon', many: 'tablespoons', ml: 14.787, parts: [1 / 2, 1] },
    { name: 'teaspoon', many: 'teaspoons', ml: 4.929, parts: [1 / 8, 1 / 4, 1 / 2, 1] },
  ],
  metric: [
    { name: 'cup', many: 'cups', ml: 250, parts: [1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4, 1] },
    { name: 'tablespoon', many: 'tablespoons', ml: 15, parts: [1 / 2, 1] },
    { name: 'teaspoon', many: 'teaspoons', ml: 5, parts: [1 / 8, 1 / 4, 1 / 2, 1] },
  ],
}
const SIGNS: readonly [number, string][] = [
  [1 / 8, '⅛'],
  [1 / 4, '¼'],
  [1 / 3, '⅓'],
  [1 / 2, '½'],
  [2 / 3, '⅔'],
  [3 / 4, '¾'],
]
/** More of a vessel than this is filled from the next larger, if that comes near enough. */
const MOST: Record<string, number> = { tablespoon: 4, teaspoon: 3 }
/** A vessel that misses by no more is near enough: a spoon heaped by eye differs as much. */
const NEAR = 0.07

export interface Measured {
  words: string
  ml: number
}

/**
 * A volume in the spoons and cups of a drawer, to the nearest that they can do: "1½ cups", "7 tablespoons" rather than half a cup
 * for 100 mL. One vessel only, since nobody measures with three.
 */
export function inVessels(ml: number, system: MeasureSystem): Measured {
  const vessels = VESSELS[system]
  const usual = vessels.findLastIndex(({ name, ml: each }) => ml < (MOST[name] ?? Infinity) * each * 0.97)
  const inTurn = vessels.slice(usual).map(vessel => fill(ml, vessel))
  const miss = (measured: Measured) => Math.abs(measured.ml / ml - 1)
  return inTurn.find(measured => miss(measured) <= NEAR) ?? inTurn.reduce((a, b) => (miss(b) < miss(a) ? b : a))
}

function fill(ml: number, vessel: Vessel): Measured {
  const count = ml / vessel.ml
  const whole = Math.floor(count)
  const part = [0, ...vessel.parts].reduce((a, b) => (Math.abs(b - (count - whole)) < Math.abs(a - (count - whole)) ? b : a))
  const total = whole + part === 0 ? vessel.parts[0]! : whole + part
  const sign = SIGNS.find(([value]) => Math.abs(value - (total - Math.floor(total))) < 1e-6)?.[1] ?? ''
  return {
    words: `${Math.floor(total) > 0 ? Math.floor(total) : ''}${sign} ${total > 1 ? vessel.many : vessel.name}`,
    ml: total * vessel.ml,
  }
}

/** The volume of so many of a vessel, mL. */
export function volumeOf(count: number, vessel: 'cup' | 'tablespoon' | 'teaspoon', system: MeasureSystem): number {
  return count * VESSELS[system].find(({ name }) => name === vessel)!.ml
}
