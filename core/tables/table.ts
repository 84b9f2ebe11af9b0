import Papa from 'papaparse'

/** The lines of a file that hold something, with their numbers counted from 1. */
export interface Table {
  cells: string[][]
  lines: number[]
}

/** Any delimiter, quoted or not (RFC 4180 and what comes near it). */
export function tableOf(text: string): Table {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  const table: Table = { cells: [], lines: [] }
  parsed.data.forEach((row, i) => {
    if (row.every(cell => cell.trim() === '')) return
    table.cells.push(row.map(cell => cell.trim()))
    table.lines.push(i + 1)
  })
  return table
}
