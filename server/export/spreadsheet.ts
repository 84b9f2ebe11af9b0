import * as XLSX from '@e965/xlsx'
import type { Context } from '#server/services/context'
import { tableOf, type TableName } from './tables'

/** All tables as a spreadsheet (ECMA-376), a sheet each. Text stays text: nothing in it runs as a formula. */
export function spreadsheet(context: Context, names: readonly TableName[]): Buffer {
  const book = XLSX.utils.book_new()
  for (const name of names) {
    const { fields, rows } = tableOf(context, name)
    XLSX.utils.book_append_sheet(book, XLSX.utils.json_to_sheet(rows, { header: fields }), name)
  }
  return XLSX.write(book, { type: 'buffer', bookType: 'xlsx', compression: true }) as Buffer
}
