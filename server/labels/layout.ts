import { encode } from 'uqr'
import type { LabelTemplate } from './templates'
import type { JarLabel } from './words'

/** One line of text on the label; sizes and places in mm, the baseline's left end. */
export interface LabelLine {
  text: string
  x: number
  y: number
  sizeMm: number
  bold: boolean
}

/** Dark squares of the code, as runs along a row; mm. */
export interface LabelBar {
  x: number
  y: number
  width: number
  height: number
}

export interface LabelLayout {
  lines: LabelLine[]
  bars: LabelBar[]
}

type Size = Pick<LabelTemplate, 'width' | 'height'>

/** The size that the letters' heights are given for, mm. */
const BASE = { width: 70, height: 37 }
/** Average width of a letter over its height, for fitting a line. */
const LETTER = 0.56
/** The same of bold letters. */
const BOLD_LETTER = 0.6
/** The smallest letters that stand on a label, and what they may come to, mm. */
const SMALL_MM = 2.6
const READABLE_MM = 1
/** Letters of what goes over several lines, mm. */
const BROKEN_MM = 3
/** A text so much too long is only set smaller; what is longer goes on in the next line, whole. */
const SQUEEZED = 1.35
/** From baseline to baseline, in heights of the letters. */
const LEADING = 1.3
/** Smaller cannot be read at arm's length, mm. */
const LEAST_MM = 1.5

/**
 * Places text and code on a label of any size; SVG and PDF draw the same. On a small one the least needed
 * lines are left out: what, form, lot, date and allergens always stay.
 */
export function layOut(label: JarLabel, size: Size): LabelLayout {
  const codeMm = Math.min(0.757 * size.height, 0.4 * size.width)
  const margin = Math.min(3, 0.06 * size.height + 0.8)
  // Up to the code's quiet border, which must stay empty.
  const room = size.width - margin - codeMm - 0.5
  const scale = Math.min(1.8, Math.max(0.5, Math.min(size.height / BASE.height, size.width / BASE.width)))
  let lines = [
    { text: label.food, most: 5.2, bold: true, keep: 9 },
    { text: label.form, most: 3.1, bold: false, keep: 9 },
    { text: `Net ${label.netWeight}`, most: 3.4, bold: true, keep: 3 },
    { text: `Packed ${label.packed}`, most: 2.6, bold: false, keep: 9 },
    { text: label.best, most: 2.6, bold: false, keep: label.best.startsWith('Best') ? 4 : 9 },
    { text: label.lot, most: 2.6, bold: false, keep: 9 },
    { text: label.mixed, most: 2.6, bold: false, keep: 5 },
    { text: label.portion, most: 2.6, bold: false, keep: 1 },
    { text: label.allergens, most: 2.8, bold: true, keep: 9 },
    ...label.warnings.map(text => ({ text, most: 2.8, bold: true, keep: 9 })),
  ]
    .flatMap(line => (line.text ? [{ ...line, text: line.text }] : []))
    .flatMap(line => {
      // What goes over several lines is set no larger than it must be.
      const most = Math.min(line.most, BROKEN_MM)
      const parts = inLines(line.text, room / (most * scale * (line.bold ? BOLD_LETTER : LETTER)))
      return parts.map(text => ({ ...line, text, most: parts.length > 1 ? most : line.most }))
    })
  const tall = (list: typeof lines, by: number) => list.reduce((sum, line) => sum + line.most * by * LEADING, 0)
  const free = size.height - 2 * margin
  while (tall(lines, scale) > free * 1.12 && lines.some(line => line.keep < 9)) {
    const least = Math.min(...lines.map(line => line.keep))
    lines = lines.filter(line => line.keep !== least)
  }
  const fit = () => scale * Math.min(1, free / tall(lines, scale))
  // Warnings that can be read go before what its code leads to.
  for (const spare of [label.lot, label.form]) if (SMALL_MM * fit() < READABLE_MM) lines = lines.filter(line => line.text !== spare)
  const fitted = fit()
  let y = margin + Math.max(0, (free - tall(lines, fitted)) / 2)
  return {
    lines: lines.map(({ text, most, bold }) => {
      y += most * fitted * LEADING
      // A long text is set smaller, down to what can still be read.
      return {
        text,
        x: margin,
        y: y - 0.3 * most * fitted,
        sizeMm: Math.max(Math.min(LEAST_MM, most * fitted), Math.min(most * fitted, room / (text.length * LETTER))),
        bold,
      }
    }),
    bars: codeBars(label.url, codeMm, { x: size.width - codeMm - 0.5, y: (size.height - codeMm) / 2 }),
  }
}

/** A text in as many lines as it needs, broken between words: no allergen runs into the code or off the label. */
function inLines(text: string, letters: number): string[] {
  if (text.length <= letters * SQUEEZED) return [text]
  const lines: string[] = []
  for (const word of text.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= letters) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

/** The squares of a code in a square of so many mm, its quiet border included. */
export function codeBars(url: string, codeMm: number, at: { x: number; y: number }): LabelBar[] {
  // A quiet border of four squares is part of the standard (ISO/IEC 18004); readers fail without it.
  const code = encode(url, { ecc: 'M', border: 4 })
  const square = codeMm / code.size
  return code.data.flatMap((row, y) => {
    const bars: LabelBar[] = []
    for (let x = 0; x < row.length; x++) {
      if (!row[x]) continue
      let end = x
      while (row[end + 1]) end++
      bars.push({ x: at.x + x * square, y: at.y + y * square, width: (end - x + 1) * square, height: square })
      x = end
    }
    return bars
  })
}
