import { readInventory, readWeighIns, type LineError } from '#core/tables'
import type { TableImport, TableImportAnswer } from '#shared/contracts'
import type { Context } from '#server/services/context'
import type { Progress } from './apart'
import { takeInInventory } from './inventory'
import type { Taken } from './taken'
import { takeInWeighIns } from './weighIns'

/** Brings a table in, or finds out what would come of it; the caller decides whether it is kept. */
export function* importTable(context: Context, { kind, text, settings }: TableImport): Generator<Progress, TableImportAnswer> {
  yield { phase: 'reading', done: 0, of: 1 }
  const summary = (read: { rows: readonly unknown[]; errors: LineError[] }, { kept, repeated, errors }: Taken) => ({
    rows: read.rows.length + new Set(read.errors.map(error => error.line)).size,
    kept,
    repeated,
    errors: [...read.errors, ...errors].sort((a, b) => a.line - b.line),
  })
  if (kind === 'weighIns') {
    const read = readWeighIns(text, settings, context.now())
    return summary(read, yield* takeInWeighIns(context, read.rows))
  }
  const read = readInventory(text, settings, context.now())
  return summary(read, yield* takeInInventory(context, read.rows))
}
