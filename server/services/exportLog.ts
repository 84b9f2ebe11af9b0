import Papa from 'papaparse'
import { allEntries } from '#server/db/entries'
import type { Context } from './context'

/**
 * The whole log as CSV (RFC 4180), one row an entry, corrections and voided ones included; weights in
 * the body are grams, temperatures °C, instants ISO 8601 in UTC. Signs that a spreadsheet would run as a
 * formula are defused.
 */
export function exportCsv({ db }: Context): string {
  const rows = [...allEntries(db)].map(({ entry, batchNumber, runId, jarNumber }) => ({
    seq: entry.seq,
    id: entry.id,
    batch: batchNumber ?? '',
    run: runId ?? '',
    jar: jarNumber ?? '',
    kind: entry.body.kind,
    happened: new Date(entry.at).toISOString(),
    written: new Date(entry.recordedAt).toISOString(),
    replaces: entry.replaces ?? '',
    body: JSON.stringify(entry.body),
  }))
  return Papa.unparse(rows, { escapeFormulae: true, newline: '\r\n' })
}
