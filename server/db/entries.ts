import type { Entry, EntryBody } from '#core/batch'
import type { Db } from './open'
import { statement } from './statement'

interface EntryRow { seq: number, id: string, at: number, recorded_at: number, replaces: string | null, body: string }

const COLUMNS = 'seq, id, at, recorded_at, replaces, body'

function toEntry(row: EntryRow): Entry {
  return {
    id: row.id, seq: row.seq, at: row.at, recordedAt: row.recorded_at, replaces: row.replaces ?? undefined,
    body: JSON.parse(row.body) as EntryBody,
  }
}

/** Where an entry belongs: a batch, or a run with all its batches. */
export type EntryPlace = { batchId: string, runId?: undefined } | { runId: string, batchId?: undefined }

/** Adds a row to the log and gives its place in it. */
export function insertEntry(db: Db, place: EntryPlace, entry: Omit<Entry, 'seq'>): number {
  return Number(statement(db, `
    INSERT INTO entry (id, batch_id, run_id, kind, at, recorded_at, replaces, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`)
    .run(entry.id, place.batchId ?? null, place.runId ?? null, entry.body.kind, entry.at, entry.recordedAt, entry.replaces ?? null, JSON.stringify(entry.body))
    .lastInsertRowid)
}

/** The entry with this id and where it belongs, or undefined. */
export function findEntry(db: Db, id: string): { entry: Entry, batchId?: string, runId?: string } | undefined {
  const row = statement<EntryRow & { batch_id: string | null, run_id: string | null }>(db, `SELECT ${COLUMNS}, batch_id, run_id FROM entry WHERE id = ?`).get(id)
  return row && { entry: toEntry(row), batchId: row.batch_id ?? undefined, runId: row.run_id ?? undefined }
}

/** A batch's own entries and the heat entries of the runs it was loaded into, in order of arrival. */
export function entriesOfBatch(db: Db, batchId: string): Entry[] {
  const own = statement<EntryRow>(db, `SELECT ${COLUMNS} FROM entry WHERE batch_id = ? ORDER BY seq`).all(batchId).map(toEntry)
  const runs = new Set(own.flatMap(entry => (entry.body.kind === 'load' ? [entry.body.runId] : [])))
  if (runs.size === 0) return own
  return [...own, ...[...runs].flatMap(run => entriesOfRun(db, run))].sort((a, b) => a.seq - b.seq)
}

/** The heat entries of a run, in order of arrival. */
export function entriesOfRun(db: Db, runId: string): Entry[] {
  return statement<EntryRow>(db, `SELECT ${COLUMNS} FROM entry WHERE run_id = ? ORDER BY seq`).all(runId).map(toEntry)
}

/** The newest room air in force, of whatever run. */
export function newestAir(db: Db): Entry | undefined {
  const row = statement<EntryRow>(db, `
    SELECT ${COLUMNS} FROM entry e
    WHERE kind = 'air' AND json_extract(body, '$.roomC') IS NOT NULL
      AND NOT EXISTS (SELECT 1 FROM entry later WHERE later.run_id = e.run_id AND (later.replaces = e.id OR json_extract(later.body, '$.target') = e.id))
    ORDER BY at DESC LIMIT 1`).get()
  return row && toEntry(row)
}

/** Every row of the log with its place, oldest first, one at a time: for export. */
export function* allEntries(db: Db): Generator<{ entry: Entry, batchNumber?: number, runId?: string }> {
  const rows = db.prepare<[], EntryRow & { number: number | null, run_id: string | null }>(`
    SELECT e.seq, e.id, e.at, e.recorded_at, e.replaces, e.body, e.run_id, b.number
    FROM entry e LEFT JOIN batch b ON b.id = e.batch_id ORDER BY e.seq`).iterate()
  for (const row of rows) yield { entry: toEntry(row), batchNumber: row.number ?? undefined, runId: row.run_id ?? undefined }
}
