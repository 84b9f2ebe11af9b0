import { InputError } from '../errors'
import { dayOrderOf, type DayOrder } from '../readings'
import { TABLE_COLUMNS, type TableKind } from './columns'
import { tableOf } from './table'

export type TableUnit = 'g' | 'kg' | 'oz' | 'lb'

/** What is made of a file; guessed first, and to be set right by whoever knows better. Columns count from 0. */
export interface TableSettings {
  columns: Record<string, number | undefined>
  /** Of weights that have none of their own. */
  unit: TableUnit
  decimal: 'point' | 'comma'
  dayOrder: DayOrder
  timeZone: string
  /** Line of the first row, counting from 1. */
  firstLine: number
}

export interface TableGuess {
  settings: TableSettings
  /** Headings, made up where the file has none. */
  headings: string[]
  rows: number
  doubts: string[]
}

const LOOKED_AT = 60
const FIGURE = /^[+-]?\d+(?:[.,]\d+)?$/

/**
 * Guesses what the columns of a file are by their headings.
 * @param unit of the household's weights, for files that name none
 * @throws InputError for a file without rows
 */
export function guessTable(kind: TableKind, text: string, household: { timeZone: string; unit: 'g' | 'oz' }): TableGuess {
  const { cells, lines } = tableOf(text)
  const width = Math.max(0, ...cells.slice(0, LOOKED_AT).map(row => row.length))
  const head = cells.findIndex(row => row.filter(Boolean).length >= Math.min(2, width))
  if (head < 0)
    throw new InputError([
      { field: 'file', code: 'no-table', message: 'This file holds no table. Export it as CSV, with a line of headings.' },
    ])
  const named = cells[head]!.every(cell => !FIGURE.test(cell))
  if (!named)
    throw new InputError([
      {
        field: 'file',
        code: 'no-headings',
        message: `Line ${lines[head]} should be headings, such as ${TABLE_COLUMNS[kind]
          .filter(column => column.needed)
          .map(column => column.name.toLowerCase())
          .join(', ')}: put them above the rows.`,
      },
    ])
  const rows = cells.slice(head + 1)
  if (rows.length === 0)
    throw new InputError([{ field: 'file', code: 'unknown-column', message: 'There are headings in this file and no rows below them.' }])
  const headings = Array.from({ length: width }, (_, i) => cells[head]![i] || `Column ${i + 1}`)
  const free = new Set(headings.keys())
  const columns: TableSettings['columns'] = {}
  // What is needed chooses first; an exact name before one that only holds the word.
  for (const column of [...TABLE_COLUMNS[kind]].sort((a, b) => Number(b.needed) - Number(a.needed))) {
    const exact = [...free].find(
      i => headings[i]!.toLowerCase() === column.key.toLowerCase() || headings[i]!.toLowerCase() === column.name.toLowerCase(),
    )
    const found = exact ?? [...free].find(i => column.called.test(headings[i]!))
    columns[column.key] = found
    if (found !== undefined) free.delete(found)
  }
  const sample = rows.slice(0, LOOKED_AT)
  const at = (key: string) => sample.map(row => row[columns[key] ?? -1] ?? '').filter(Boolean)
  const heading = headings[columns.weight ?? -1] ?? ''
  const written = /\bkg\b/i.exec(heading) ?? /\b(?:oz|lb|g)\b/i.exec(heading)
  const doubts: string[] = []
  const unit = (written?.[0].toLowerCase() as TableUnit | undefined) ?? household.unit
  if (!written && at('weight').some(cell => FIGURE.test(cell))) doubts.push(`The file names no unit of weight; ${unit} is taken.`)
  const order = dayOrderOf(at('time'))
  if (!order.sure)
    doubts.push(
      `The dates do not say whether the day or the month comes first; the ${order.order === 'dayFirst' ? 'day' : 'month'} is taken.`,
    )
  return {
    settings: {
      columns,
      unit,
      decimal: at('weight').some(cell => /\d,\d{1,2}(?!\d)/.test(cell)) ? 'comma' : 'point',
      dayOrder: order.order,
      timeZone: household.timeZone,
      firstLine: lines[head + 1]!,
    },
    headings,
    rows: rows.length,
    doubts,
  }
}
