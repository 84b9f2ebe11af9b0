import { FACTORS } from './factors'
import { NUMBER, readingsOf, type ParsedQuantity } from './number'
import type { WeightUnit } from './weight'

const UNIT = String.raw`mm|millimet(?:er|re)s?|cm|centimet(?:er|re)s?|in|inch|inches|["”″]`
const LENGTH = new RegExp(`^(${NUMBER})\\s*-?\\s*(${UNIT})?\\.?$`, 'i')
const AREA = new RegExp(`^(${NUMBER})\\s*(${UNIT})?\\.?\\s*(?:x|×|by|\\*)\\s*(${NUMBER})\\s*(${UNIT})?\\.?$`, 'i')
const SQUARE = new RegExp(`^(${NUMBER})\\s*(m²|m2|sq\\.?\\s*m|cm²|cm2|sq\\.?\\s*cm|in²|in2|sq\\.?\\s*in(?:ch(?:es)?)?)?\\.?$`, 'i')

type Name = 'mm' | 'cm' | 'in'
const nameOf = (given: string): Name => (/^m/i.test(given) ? 'mm' : /^c/i.test(given) ? 'cm' : 'in')
/** Thicknesses and trays have no thousands of anything: a comma or point is a decimal's. */
const small = (text: string) => readingsOf(text)[0]!

/**
 * Reads a thickness as typed: "3", "3 mm", "0.5 cm", "1/4 in", "¼-inch", "3/8″". A bare number is millimetres where the
 * household weighs in grams, inches where it weighs in ounces.
 * @returns millimetres, above 0 and at most 200.
 */
export function parseLength(text: string, unit: WeightUnit = 'g'): ParsedQuantity {
  const match = LENGTH.exec(text.trim())
  if (!match) return { problem: `“${text.trim()}” is not a thickness. Write 3 mm or 1/4 in.` }
  const name = match[2] === undefined ? (unit === 'g' ? 'mm' : 'in') : nameOf(match[2])
  const mm = small(match[1]!) * FACTORS.mm[name]
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

/** Largest tray that is taken for meant, m². */
const MOST_M2 = 4

/**
 * Reads a tray's area: length × width ("30x33", "12 × 15 in", "30 by 33 cm"), or an area ("0.1", "0.1 m²", "155 sq in"). Lengths without
 * a unit are centimetres where the household weighs in grams, inches where it weighs in ounces; an area without one is in m².
 * @returns m², above 0 and at most 4
 */
export function parseArea(text: string, unit: WeightUnit = 'g'): ParsedQuantity {
  const clean = text.trim()
  const sides = AREA.exec(clean)
  const square = SQUARE.exec(clean)
  if (!sides && !square) return { problem: `“${clean}” is not a tray’s size. Write 30 × 33 cm, 12 × 15 in or 0.1 m².` }
  let m2: number
  if (sides) {
    const side = (amount: string, given: string | undefined) =>
      (small(amount) * FACTORS.mm[given === undefined ? (unit === 'g' ? 'cm' : 'in') : nameOf(given)]) / 1000
    m2 = side(sides[1]!, sides[2] ?? sides[4]) * side(sides[3]!, sides[4] ?? sides[2])
  } else {
    const name = square![2] === undefined || /^(?:sq\.?\s*)?m/i.test(square![2]) ? undefined : nameOf(square![2].replace(/^sq\.?\s*/i, ''))
    m2 = small(square![1]!) * (name === undefined ? 1 : (FACTORS.mm[name] / 1000) ** 2)
  }
  if (!(m2 > 0)) return { problem: 'A tray’s size must be above zero.' }
  if (m2 > MOST_M2) return { problem: 'That is larger than a door: check the unit, such as 30 × 33 cm.' }
  return { value: m2 }
}

/** An area as the household says it: "0.1 m²" or "155 sq in". */
export function formatArea(m2: number, unit: WeightUnit): string {
  if (unit === 'g') return `${Number(m2.toFixed(3))}\u00A0m²`
  return `${Math.round(m2 / (FACTORS.mm.in / 1000) ** 2)}\u00A0sq\u00A0in`
}
