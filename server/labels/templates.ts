import type { LabelTemplateAnswer } from '#shared/contracts'

/** A size of label. On a sheet they lie in columns and rows, measured from the paper's upper left corner; mm. */
export type LabelTemplate = LabelTemplateAnswer

const A4 = { width: 210, height: 297 }
const LETTER = { width: 215.9, height: 279.4 }

/** Sizes that stationers sell cut (common practice), and widths of label printers' rolls. */
export const LABEL_TEMPLATES: readonly LabelTemplate[] = [
  {
    key: 'a4-24',
    name: '70 × 37 mm, 24 on A4',
    width: 70,
    height: 37,
    sheet: { ...A4, columns: 3, rows: 8, left: 0, top: 0.5, pitchX: 70, pitchY: 37 },
  },
  {
    key: 'a4-21',
    name: '63.5 × 38.1 mm, 21 on A4',
    width: 63.5,
    height: 38.1,
    sheet: { ...A4, columns: 3, rows: 7, left: 7.2, top: 15.15, pitchX: 66.04, pitchY: 38.1 },
  },
  {
    key: 'a4-65',
    name: '38.1 × 21.2 mm, 65 on A4',
    width: 38.1,
    height: 21.2,
    sheet: { ...A4, columns: 5, rows: 13, left: 4.67, top: 10.7, pitchX: 40.64, pitchY: 21.2 },
  },
  {
    key: 'a4-8',
    name: '99.1 × 67.7 mm, 8 on A4',
    width: 99.1,
    height: 67.7,
    sheet: { ...A4, columns: 2, rows: 4, left: 4.65, top: 13.1, pitchX: 101.6, pitchY: 67.7 },
  },
  {
    key: 'letter-30',
    name: '66.7 × 25.4 mm, 30 on US letter',
    width: 66.7,
    height: 25.4,
    sheet: { ...LETTER, columns: 3, rows: 10, left: 4.76, top: 12.7, pitchX: 69.85, pitchY: 25.4 },
  },
  { key: 'roll-62', name: '62 × 29 mm, roll', width: 62, height: 29 },
  { key: 'roll-57', name: '57 × 40 mm, roll', width: 57, height: 40 },
  { key: 'roll-40', name: '40 × 30 mm, roll', width: 40, height: 30 },
]

/** The template with this key; the first where none is named. */
export function templateOf(key: string | undefined): LabelTemplate | undefined {
  return key === undefined ? LABEL_TEMPLATES[0] : LABEL_TEMPLATES.find(template => template.key === key)
}
