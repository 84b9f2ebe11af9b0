/** What a typed quantity means, or the sentence that says why it means nothing. */
export type ParsedQuantity = { value: number; problem?: undefined } | { value?: undefined; problem: string }

const SIGNS: Record<string, number> = {
  '½': 1 / 2,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅕': 1 / 5,
  '⅖': 2 / 5,
  '⅗': 3 / 5,
  '⅘': 4 / 5,
  '⅙': 1 / 6,
  '⅚': 5 / 6,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
}
const SIGN = `[${Object.keys(SIGNS).join('')}]`
const SLASH = String.raw`\s*[/⁄]\s*`
const GROUP = String.raw`[,.'’\u00A0\u202F ]`

/**
 * A number in any common writing, to be put into a larger pattern: whole and fraction ("1 1/2", "1-1/2", "1½"), a fraction, digits
 * in groups of three ("1,200", "1.200,5", "1 200", "1’200"), a decimal with point or comma. Fractions first: "1 1/2" is no bare 1.
 */
export const NUMBER = [
  String.raw`\d+(?:\s+|\s*-\s*)\d+${SLASH}\d+`,
  String.raw`\d+\s*${SIGN}`,
  String.raw`\d+${SLASH}\d+`,
  SIGN,
  String.raw`\d{1,3}(?:${GROUP}\d{3})+(?![\d])(?:[.,]\d+)?`,
  String.raw`\d+(?:[.,]\d+)?`,
  String.raw`[.,]\d+`,
].join('|')

const WHOLE = new RegExp(`^(?:${NUMBER})$`)
/** One point or comma before just three digits: thousands to some, thousandths to others. */
const EITHER = /^([1-9]\d{0,2})([.,])(\d{3})$/

/**
 * What a number may mean: one figure, or two where some read thousands and others thousandths ("1,200"), the decimal first.
 * @param text as `NUMBER` finds it
 */
export function readingsOf(text: string): number[] {
  const clean = text.trim()
  const either = EITHER.exec(clean)
  if (either) return [Number(`${either[1]}.${either[3]}`), Number(`${either[1]}${either[3]}`)]
  const sign = SIGNS[clean.at(-1) ?? '']
  if (sign !== undefined) return [Number(clean.slice(0, -1).trim() || 0) + sign]
  const fraction = /^(?:(\d+)(?:\s+|\s*-\s*))?(\d+)\s*[/⁄]\s*(\d+)$/.exec(clean)
  if (fraction) return [Number(fraction[1] ?? 0) + Number(fraction[2]) / Number(fraction[3])]
  const marks = clean.replace(/\d/g, '')
  const last = marks.at(-1)
  // The last of two kinds is the decimal's; one kind again and again, or what is no point or comma, parts the thousands.
  const decimal = last !== undefined && /[.,]/.test(last) && marks.indexOf(last) === marks.length - 1 ? last : undefined
  const digits = [...clean].map(char => (char === decimal ? '.' : /\d/.test(char) ? char : '')).join('')
  return [Number(digits)]
}

/** A plain number as it is typed into a field of its own; what is ambiguous is asked. */
export function parseNumber(text: string): ParsedQuantity {
  const clean = text.trim()
  const negative = /^[-−]/.test(clean)
  const bare = clean.replace(/^[-−]\s*/, '')
  if (!WHOLE.test(bare)) return { problem: `“${clean}” is not a number.` }
  const [value, other] = readingsOf(bare) as [number, number?]
  if (other !== undefined)
    return { problem: `“${clean}” may be ${other} or ${value}: write it without the comma or point, or with fewer decimals.` }
  if (!Number.isFinite(value)) return { problem: `“${clean}” is not a number.` }
  return { value: negative ? -value : value }
}
