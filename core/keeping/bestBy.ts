import { capital } from '../text'
import { InputError } from '../errors'
import type { Food, Purpose, Range } from '../foods'

/** What the food is kept in, and how its keeping compares with a lined screw jar (common practice). */
export interface Package {
  key: PackageKey
  name: string
  factor: number
  reason: string
  volumeMl?: number
}
export type PackageKey = 'screw-jar' | 'vacuum-jar' | 'plastic-lid' | 'bag' | 'foil-bag' | 'other'

export const PACKAGES: readonly Package[] = [
  { key: 'screw-jar', name: 'Screw jar, lined lid', factor: 1, reason: 'a lined lid keeps damp out' },
  { key: 'vacuum-jar', name: 'Jar sealed by vacuum', factor: 1.5, reason: 'little air is left in it until it is opened' },
  { key: 'plastic-lid', name: 'Jar with a plastic lid', factor: 0.6, reason: 'plastic lids let damp in' },
  { key: 'bag', name: 'Plastic bag', factor: 0.5, reason: 'plain bags let damp and air in' },
  { key: 'foil-bag', name: 'Foil-laminate bag', factor: 2, reason: 'foil keeps damp, air and light out' },
  { key: 'other', name: 'Another lid', factor: 0.8, reason: 'what its lid lets in was measured' },
]

/** The package with this key, or undefined. */
export function packageOf(key: string): Package | undefined {
  return PACKAGES.find(item => item.key === key)
}

/** How long a household says that a food keeps: in these packages only where they are named, or as guidance has it. */
export interface Said {
  months: Range
  packages?: readonly string[]
  /** By extension guidance: its months go by the kind of food and the warmth. */
  guidance?: boolean
}

export interface BestBy {
  /** Months from packing. */
  months: { low: number; high: number }
  /** Why, in a sentence or two, with the rule it comes from. */
  reason: string
  source: string
}

/** Four days, for what lies in oil in the refrigerator. */
const OIL_MONTHS = 4 / 30.4
const OIL_FROZEN = { low: 2, high: 4 }
const OIL_SOURCE = 'public-health guidance on botulism, from memory'
const FREEZER_C = -15

/**
 * Rate of fading for 10 °C more: dried fruit keeps a year at 60 °F and half of it at 80 °F (extension guidance: National Center for
 * Home Food Preservation, from memory), which is 1.9.
 */
const Q10 = 1.9
/** Colder than this fading slows little more: fat turns rancid in the freezer too (USDA keeping times of frozen food, from memory: fish 4 to 8 months). */
const COLDEST_C = 0

/**
 * Months at 20 °C by extension guidance (NCHFP, from memory): fruit 12 at 60 °F and 6 at 80 °F, vegetables half of that, jerky one to
 * two; the lower end is what the same guidance gives for warm cupboards.
 */
const GUIDANCE = {
  fruit: { low: 6, high: 9.2 },
  vegetable: { low: 3, high: 4.6 },
  meat: { low: 1, high: 2 },
} as const
const GUIDANCE_OF: Readonly<Record<string, keyof typeof GUIDANCE>> = {
  orchard: 'fruit',
  berry: 'fruit',
  citrus: 'fruit',
  meat: 'meat',
  fish: 'meat',
}
/** Meat and fish go rancid by what fat is left in them: foil and vacuum do not make them keep longer in the warm (USDA, from memory). */
const FAT_LIMITED: readonly string[] = ['meat', 'fish']

/** How much longer food keeps at a storage temperature than at 20 °C. */
const slowing = (storageC: number) => Q10 ** ((20 - Math.max(COLDEST_C, storageC)) / 10)

/**
 * Best quality, not safety, by rule of thumb: the food's own months at 20 °C in a lined jar, times the
 * package, times Q10 for another storage temperature, less where it was not rested.
 * @throws InputError for a storage temperature outside −30 to 45 °C.
 */
export function bestByWindow(input: {
  food: Food
  purpose: Purpose
  packageKey: PackageKey
  storageC?: number
  rested?: boolean
  inOil?: boolean
  /** How long the household says that it keeps, in these packages only where they are named; else by the rule. */
  said?: Said
}): BestBy {
  const storageC = input.storageC ?? 20
  if (!(storageC >= -30 && storageC <= 45)) {
    throw new InputError([{ field: 'storageC', code: 'out-of-range', message: 'must be between −30 and 45 °C' }])
  }
  const packed = packageOf(input.packageKey)
  if (!packed) throw new InputError([{ field: 'packageKey', code: 'unknown-package', message: 'is not a package Dulse knows' }])
  if (input.inOil && storageC <= FREEZER_C)
    return { months: OIL_FROZEN, reason: 'In oil and frozen it keeps some months; thawed it has its four days.', source: OIL_SOURCE }
  if (input.inOil) {
    return {
      months: { low: OIL_MONTHS, high: OIL_MONTHS },
      reason: 'Under oil it is kept at or below 4 °C and used within 4 days.',
      source: OIL_SOURCE,
    }
  }
  if (input.said?.guidance) {
    const { low, high } = GUIDANCE[GUIDANCE_OF[input.food.group] ?? 'vegetable']
    const scaled = (value: number) => Math.min(12, value * slowing(storageC))
    return {
      months: { low: scaled(low), high: scaled(high) },
      reason: 'As extension guidance says: vegetables half as long as fruit, and half as long again where it is 11 °C warmer.',
      source: 'National Center for Home Food Preservation, from memory',
    }
  }
  if (input.said && (!input.said.packages || input.said.packages.includes(input.packageKey)))
    return {
      months: input.said.months,
      reason: 'As you say that it keeps; by its kind alone it would be other.',
      source: 'your own choice',
    }
  const base = input.food.keepsMonths[input.purpose]
  const warmth = slowing(storageC)
  // Food ground straight from the machine may hold a wet piece that nobody saw: the lower half only.
  const rested = input.rested === false ? 0.8 : 1
  const byPackage = FAT_LIMITED.includes(input.food.group) && storageC > 10 ? Math.min(1, packed.factor) : packed.factor
  const factor = byPackage * warmth * rested
  const months = (value: number) => Math.max(0.5, Math.min(120, value * factor))
  const reasons = [`${input.food.keepsReason} ${capital(packed.reason)}.`]
  if (Math.abs(storageC - 20) >= 1) reasons.push(`At ${Math.round(storageC)} °C it fades ${warmth > 1 ? 'slower' : 'faster'} than at 20.`)
  if (input.rested === false) reasons.push('It was not rested, so a fifth is taken off.')
  return { months: { low: months(base.low), high: months(base.high) }, reason: reasons.join(' '), source: input.food.keepsSource }
}
