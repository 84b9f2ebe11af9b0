/** Figures of a refusal by name; the name's ending tells the unit: `leftG` grams, `setC` °C, `humidityShare` 0–1, `sizeMl`, `thickMm`. */
export type Quantities = Record<string, number | string>

/** One thing that is wrong with an input: which field, and what would mend it. */
export interface Problem {
  /** Path of the field, in the words of the contract, such as `weighIns.2.weightG`. */
  field: string
  /** What is wrong, for programs: it stays when the words change. */
  code: string
  /** A sentence that says what is wrong and what would mend it, in grams and °C. */
  message: string
  /** The sentence with its figures by name in braces, and the figures: so that it can be worded in a household's own units. */
  template?: string
  quantities?: Quantities
}

/** Gathers problems: field, code, sentence, figures of the sentence. */
export type Say = (field: string, code: string, template: string, quantities?: Quantities) => void

/** How figures are written, by the ending of their name. */
export interface QuantityWords {
  G: (grams: number) => string
  C: (celsius: number) => string
  Share: (share: number) => string
  Ml: (millilitres: number) => string
  Mm: (millimetres: number) => string
}

/** Whole from a hundred on, else with one decimal: what a kitchen scale shows. */
const short = (value: number) => String(Math.abs(value) >= 100 ? Math.round(value) : Math.round(value * 10) / 10)

/** As it goes over the wire and into a log: metric, unrounded no further than a scale reads. */
export const PLAIN_WORDS: QuantityWords = {
  G: grams => `${short(grams)} g`,
  C: celsius => `${short(celsius)} °C`,
  Share: share => `${Math.round(share * 1000) / 10} %`,
  Ml: millilitres => `${short(millilitres)} mL`,
  Mm: millimetres => `${short(millimetres)} mm`,
}

const UNIT = /(G|C|Share|Ml|Mm)$/

/** A sentence with its figures written out: `Only {leftG} is left.` with `{ leftG: 224 }` is "Only 224 g is left." */
export function fill(template: string, quantities: Quantities, words: QuantityWords = PLAIN_WORDS): string {
  return template.replace(/\{(\w+)\}/g, (whole, name: string) => {
    const value = quantities[name]
    if (value === undefined) return whole
    const unit = typeof value === 'number' ? (UNIT.exec(name)?.[1] as keyof QuantityWords | undefined) : undefined
    return unit ? words[unit](value as number) : String(value)
  })
}

/** A problem whose sentence may carry figures. */
export function problem(field: string, code: string, template: string, quantities?: Quantities): Problem {
  if (!quantities) return { field, code, message: template }
  return { field, code, message: fill(template, quantities), template, quantities }
}

/** The sentence of a problem in somebody's own units. */
export function wordsOf({ message, template, quantities }: Problem, words: QuantityWords): string {
  return template && quantities ? fill(template, quantities, words) : message
}

/** A list of problems, and what adds to it. */
export function gather(): { problems: Problem[]; say: Say } {
  const problems: Problem[] = []
  return { problems, say: (...told) => void problems.push(problem(...told)) }
}
