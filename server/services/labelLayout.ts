import { encode } from 'uqr'
import { LABEL_MM, type JarLabel } from './label'

/** One line of text on the label; sizes and places in mm, the baseline's left end. */
export interface LabelLine { text: string, x: number, y: number, sizeMm: number, bold: boolean }

/** Dark squares of the code, as runs along a row; mm. */
export interface LabelBar { x: number, y: number, width: number, height: number }

export interface LabelLayout { lines: LabelLine[], bars: LabelBar[] }

const MARGIN = 3
const CODE_MM = 24
/** Average width of a letter over its height, for fitting the name. */
const LETTER = 0.56

/** Places text and code on the label; SVG and PDF draw the same. */
export function layOut(label: JarLabel): LabelLayout {
  // Up to the code's quiet border, which must stay empty.
  const room = LABEL_MM.width - MARGIN - CODE_MM - 4.5
  // A long text is set smaller, down to what can still be read.
  const line = (text: string, y: number, mostMm: number, bold = false): LabelLine =>
    ({ text, x: MARGIN, y, sizeMm: Math.max(1.9, Math.min(mostMm, room / (text.length * LETTER))), bold })
  const lines = [
    line(label.food, 7.6, 5.2, true),
    line(label.form, 12, 3.1),
    line(`Net ${label.netWeight}`, 17.4, 3.4, true),
    line(`Packed ${label.packed}`, 21.8, 2.6),
    line(`Best ${label.bestBy}`, 25.4, 2.6),
    line(label.lot, 29, 2.6),
    ...(label.portion ? [line(label.portion, label.allergens ? 32 : 33, 2.6)] : []),
    ...(label.allergens ? [line(label.allergens, label.portion ? 35.2 : 33.6, label.portion ? 2.6 : 2.8, true)] : []),
  ]
  return { lines, bars: codeBars(label.url) }
}

function codeBars(url: string): LabelBar[] {
  // A quiet border of four squares is part of the standard (ISO/IEC 18004); readers fail without it.
  const code = encode(url, { ecc: 'M', border: 4 })
  const square = (CODE_MM + 4) / code.size
  const left = LABEL_MM.width - CODE_MM - 4 - 0.5
  const top = (LABEL_MM.height - CODE_MM - 4) / 2
  return code.data.flatMap((row, y) => {
    const bars: LabelBar[] = []
    for (let x = 0; x < row.length; x++) {
      if (!row[x]) continue
      let end = x
      while (row[end + 1]) end++
      bars.push({ x: left + x * square, y: top + y * square, width: (end - x + 1) * square, height: square })
      x = end
    }
    return bars
  })
}
