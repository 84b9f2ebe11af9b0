import Papa from 'papaparse'
import { refuse } from '../errors'

/** The lines of a file that hold something, with their numbers counted from 1. */
export interface Table {
  cells: string[][]
  lines: number[]
}

/** A spreadsheet is a zip archive, whatever it is called. */
const ZIP = 'PK\u0003\u0004'

/**
 * Any delimiter, quoted or not (RFC 4180 and what comes near it).
 * @throws InputError for a spreadsheet, which is no text
 */
export function tableOf(text: string): Table {
  if (text.startsWith(ZIP))
    refuse(
      'file',
      'spreadsheet',
      'This is a spreadsheet (.xlsx or .ods), not a table of text: save it as CSV in the program that made it, and choose that.',
    )
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  const table: Table = { cells: [], lines: [] }
  parsed.data.forEach((row, i) => {
    if (row.every(cell => cell.trim() === '')) return
    table.cells.push(row.map(cell => cell.trim()))
    table.lines.push(i + 1)
  })
  return table
}
