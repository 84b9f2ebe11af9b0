import type { WeightUnit } from './weight'

/** US vessels by their legal volumes, mL (NIST Handbook 44). */
const US: readonly [string, number][] = [
  ['gallon', 3785.411784],
  ['half gallon', 1892.705892],
  ['quart', 946.352946],
  ['pint', 473.176473],
  ['half pint', 236.5882365],
]
const OUNCE_ML = 29.5735295625
/** A jar that is sold as a pint holds one within this share. */
const CALLED_SO = 0.03

/** The volume of a vessel as a household says it: "750 mL", "1.5 L", "a pint" is "1 pint", "25 fl oz". */
export function formatVolume(ml: number, unit: WeightUnit): string {
  if (unit === 'g') return ml >= 1000 ? `${Number((ml / 1000).toFixed(2))}\u00A0L` : `${Math.round(ml)}\u00A0mL`
  const named = US.find(([, size]) => Math.abs(ml / size - 1) <= CALLED_SO)
  if (named) return `1\u00A0${named[0]}`
  const ounces = ml / OUNCE_ML
  return `${ounces >= 9.95 ? Math.round(ounces) : Number(ounces.toFixed(1))}\u00A0fl\u00A0oz`
}
