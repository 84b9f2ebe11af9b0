import { FACTORS } from './factors'
import { NUMBER, readingsOf, type ParsedQuantity } from './number'
import { figuresSaid } from './said'

/** The unit a household weighs in: grams and kilograms, or pounds and ounces. */
export type WeightUnit = 'g' | 'oz'

type UnitName = 'g' | 'kg' | 'oz' | 'lb' | 'pfund'

/** Units by their words, in English, German and French. A Pfund and a livre are half a kilogram. */
const UNITS: Readonly<Record<string, UnitName>> = Object.fromEntries(
  (
    [
      ['g', 'g gr grs gram grams gramme grammes gramm'],
      ['kg', 'kg kgs kilo kilos kilogram kilograms kilogramme kilogrammes kilogramm'],
      ['oz', 'oz ozs ounce ounces unze unzen once onces'],
      ['lb', 'lb lbs pound pounds'],
      ['pfund', 'pfund pfunde livre livres'],
    ] as const
  ).flatMap(([name, words]) => words.split(' ').map(word => [word, name])),
)
const GRAMS = { ...FACTORS.grams, pfund: 500 }
const UNIT_WORD = `(?:${Object.keys(UNITS)
  .sort((a, b) => b.length - a.length)
  .join('|')})(?![\\p{L}])`
/** A figure with a unit of weight, or with several one after the other. */
const WEIGHED = new RegExp(`(?:${NUMBER})\\s*${UNIT_WORD}\\.?(?:,?\\s*(?:and\\s+)?(?:${NUMBER})\\s*${UNIT_WORD}\\.?)*`, 'iu')
const NAMES_A_UNIT = new RegExp(`(?<![\\p{L}])${UNIT_WORD}`, 'iu')

/** Whether a text names a unit of weight anywhere: such a text is never a count. */
export const namesWeight = (text: string): boolean => NAMES_A_UNIT.test(text)

/** The first weight that stands in a text, and the words around it: "2 kg" and "tomatoes" in "2 kg of tomatoes". */
export function weightWithin(text: string): { weight: string; around: string } | undefined {
  const said = figuresSaid(text)
  const found = WEIGHED.exec(said)
  return found
    ? { weight: found[0], around: `${said.slice(0, found.index)} ${said.slice(found.index + found[0].length)}`.trim() }
    : undefined
}

const PART = new RegExp(`^(${NUMBER})\\s*(\\p{L}+)?\\.?,?\\s*(?:and\\s+)?`, 'iu')

/** Heaviest load that is taken for meant: a tonne is a slip of the unit, not a basket. */
const MOST_G = 1_000_000
/** Of two readings of a number one beyond this is not meant. */
const HARDLY_G = 100_000
/** So many ounces without a unit are as likely grams: nobody says six pounds in ounces. */
const DOUBTFUL_OZ = 100

/**
 * Reads a weight as people type it: "850", "1.2 kg", "1,2 kg", "1,200 g", "3 lb 4 oz", "9 lb 3½ oz", "1-1/2 lb", "3lb4"; numbers in words too
 * ("a pound and a half"), units in English, German and French.
 * A number without a unit is in `unit`; a bare number after pounds is ounces. What may mean two things is asked.
 * @returns grams, above 0 and at most a tonne.
 */
export function parseWeight(text: string, unit: WeightUnit = 'g'): ParsedQuantity {
  let rest = figuresSaid(text.trim())
  if (rest === '') return { problem: 'A weight is needed, such as 850, 1.2 kg or 3 lb 4 oz.' }
  let grams = 0
  let before: string | undefined
  while (rest !== '') {
    const match = PART.exec(rest)
    if (!match) return { problem: `“${text.trim()}” is not a weight. Write 850, 1.2 kg or 3 lb 4 oz.` }
    const given = match[2]?.toLowerCase()
    // "a" or "half" alone weighs nothing: a word is a weight with its unit only.
    if (!given && !before && !/\p{N}/u.test(text)) return { problem: `“${text.trim()}” is not a weight. Write 850, 1.2 kg or 3 lb 4 oz.` }
    const name = given ? (Object.hasOwn(UNITS, given) ? UNITS[given] : undefined) : before === 'lb' ? 'oz' : before ? undefined : unit
    if (!name) {
      return {
        problem: given
          ? `“${given}” is not a unit of weight here: use g, kg, oz or lb.`
          : `“${text.trim()}” has a number without a unit: write 1.2 kg or 3 lb 4 oz.`,
      }
    }
    if (before && !(before === 'lb' && name === 'oz') && !(before === 'kg' && name === 'g')) {
      return { problem: `“${text.trim()}” mixes units: write pounds then ounces, or kilograms then grams.` }
    }
    const [amount, other] = meant(match[1]!, name)
    if (other !== undefined)
      return { problem: `“${match[1]!.trim()} ${name}” may be ${other} or ${amount} ${name}: write it the plain way.` }
    if (!given && name === 'oz' && !before && amount! >= DOUBTFUL_OZ)
      return { problem: `${amount} ounces, or ${amount} g? Write the unit, or pounds and ounces.` }
    grams += amount! * GRAMS[name]
    before = name
    rest = rest.slice(match[0].length)
  }
  if (!Number.isFinite(grams)) return { problem: `“${text.trim()}” is not a weight.` }
  if (grams <= 0) return { problem: 'A weight must be above zero.' }
  if (grams > MOST_G) return { problem: 'That is over a tonne: check the unit.' }
  return { value: grams }
}

/** What a number in a unit of weight means: no scale in a kitchen shows thousandths of a gram, and nobody dries a hundred kilograms. */
function meant(text: string, unit: UnitName): number[] {
  const readings = readingsOf(text)
  if (readings.length === 1) return readings
  const [decimal, grouped] = readings as [number, number]
  if (unit === 'g' && text.includes(',')) return [grouped]
  return grouped * GRAMS[unit] > HARDLY_G ? [decimal] : readings
}

/** Grams in the given unit. */
export function gramsIn(grams: number, unit: 'g' | 'oz'): number {
  return grams / FACTORS.grams[unit]
}

/**
 * A weight in the household's unit, as precise as a kitchen scale is: "8.4 g", "812 g", "2.94 kg";
 * "0.3 oz", "12.4 oz", "3 lb 4 oz". The space before a unit does not break.
 */
export function formatWeight(grams: number, unit: WeightUnit): string {
  const sign = grams < 0 ? '−' : ''
  const size = Math.abs(grams)
  if (unit === 'g') {
    if (size >= 999.5) return `${sign}${(size / 1000).toFixed(2)}\u00A0kg`
    return `${sign}${size < 9.95 && size > 0 ? size.toFixed(1).replace(/\.0$/, '') : Math.round(size)}\u00A0g`
  }
  const ounces = gramsIn(size, 'oz')
  if (ounces < 15.95) return `${sign}${ounces.toFixed(ounces < 3 ? 2 : 1).replace(/\.?0+$/, '') || '0'}\u00A0oz`
  const whole = Math.round(ounces)
  const pounds = Math.floor(whole / 16)
  return `${sign}${pounds}\u00A0lb${whole % 16 ? `\u00A0${whole % 16}\u00A0oz` : ''}`
}
