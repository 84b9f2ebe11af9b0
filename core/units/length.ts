import { FACTORS } from './factors'
import { numberOf, type ParsedQuantity, type WeightUnit } from './weight'

const LENGTH = /^(\d+\s+\d+\/\d+|\d+\/\d+|\d+(?:[.,]\d+)?|[.,]\d+)\s*(mm|cm|in|inch|inches|")?$/i

/**
 * Reads a thickness as typed: "3", "3 mm", "0.5 cm", "1/4 in". A bare number is millimetres where the
 * household weighs in grams, inches where it weighs in ounces.
 * @returns millimetres, above 0 and at most 200.
 */
export function parseLength(text: string, unit: WeightUnit = 'g'): ParsedQuantity {
  const match = LENGTH.exec(text.trim())
  if (!match) return { problem: `“${text.trim()}” is not a thickness. Write 3 mm or 1/4 in.` }
  const given = match[2]?.toLowerCase()
  const name = given === undefined ? (unit === 'g' ? 'mm' : 'in') : given === 'mm' || given === 'cm' ? given : 'in'
  const mm = numberOf(match[1]!) * FACTORS.mm[name]
  if (!(mm > 0)) return { problem: 'A thickness must be above zero.' }
  if (mm > 200) return { problem: 'That is thicker than a hand is wide: check the unit.' }
  return { value: mm }
}

const EIGHTHS = ['', '1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8']

/** Millimetres, or inches to the nearest eighth (tenth below one eighth), in the household's system. */
export function formatLength(mm: number, unit: WeightUnit): string {
  if (unit === 'g') return `${mm < 10 ? Number(mm.toFixed(1)) : Math.round(mm)}\u00A0mm`
  const inches = mm / FACTORS.mm.in
  const eighths = Math.round(inches * 8)
  if (eighths === 0) return `${inches.toFixed(2)}\u00A0in`
  const whole = Math.floor(eighths / 8)
  const part = EIGHTHS[eighths % 8]
  return `${[whole || '', part].filter(Boolean).join(' ')}\u00A0in`
}
