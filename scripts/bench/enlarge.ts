import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import { uuidv7 } from 'uuidv7'
import type { EntryBody } from '#core/batch'
import { openDatabase } from '#server/db/open'
import { openLogbook } from '#server/services/logbook'
import { rebuildProjections } from '#server/services/projections'

const YEAR_MS = 365.25 * 86_400_000

/**
 * Copies a logbook and adds its finished batches again and again, each round a year earlier, until it
 * holds `times` as many batches: one household's century. What is under way stays as it is.
 */
export function enlarge(from: string, to: string, times: number): { batches: number, entries: number, jars: number, rebuildMs: number } {
  mkdirSync(dirname(to), { recursive: true })
  // Not a copy of the file: what a server wrote last may stand in its journal yet.
  const source = openDatabase(from)
  source.prepare('VACUUM INTO ?').run(to)
  source.close()
  const context = openLogbook(to)
  const { db } = context
  db.pragma('synchronous = OFF')
  const count = (table: string) => (db.prepare(`SELECT count(*) AS count FROM ${table}`).get() as { count: number }).count
  const wanted = count('batch') * times
  const finished = (db.prepare('SELECT batch_id FROM batch_view WHERE stage = \'shelf\' ORDER BY number').all() as { batch_id: string }[]).map(row => row.batch_id)
  const runsOf = db.prepare('SELECT DISTINCT json_extract(body, \'$.runId\') AS id FROM entry WHERE batch_id = ? AND kind = \'load\'')
  const entriesOf = db.prepare('SELECT id, batch_id, run_id, kind, at, recorded_at, replaces, body FROM entry WHERE batch_id = ? OR run_id IN (SELECT value FROM json_each(?)) ORDER BY seq')
  const addBatch = db.prepare('INSERT INTO batch (id, number, created_at) VALUES (?, ?, ?)')
  const addRun = db.prepare('INSERT INTO run (id, machine_id, created_at) SELECT ?, machine_id, created_at FROM run WHERE id = ?')
  const addEntry = db.prepare('INSERT INTO entry (id, batch_id, run_id, kind, at, recorded_at, replaces, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)')
  let number = (db.prepare('SELECT max(number) AS number FROM batch').get() as { number: number }).number
  for (let round = 1; count('batch') < wanted; round++) {
    db.transaction(() => {
      for (const batch of finished) {
        // Twenty-five years back at most, so that no date leaves the range that the rules take.
        const shift = Math.round((1 + round % 24) * YEAR_MS)
        const names = new Map<string, string>()
        const rename = (id: string) => {
          if (!names.has(id)) names.set(id, uuidv7())
          return names.get(id)!
        }
        const runs = (runsOf.all(batch) as { id: string }[]).map(row => row.id)
        addBatch.run(rename(batch), ++number, Date.now() - shift)
        for (const run of runs) addRun.run(rename(run), run)
        for (const entry of entriesOf.all(batch, JSON.stringify(runs)) as { id: string, batch_id: string | null, run_id: string | null, kind: string, at: number, recorded_at: number, replaces: string | null, body: string }[]) {
          const body = JSON.parse(entry.body) as EntryBody & { runId?: string, jarId?: string, target?: string }
          for (const key of ['runId', 'jarId', 'target'] as const) if (body[key]) (body as Record<string, unknown>)[key] = rename(body[key])
          addEntry.run(rename(entry.id), entry.batch_id && rename(entry.batch_id), entry.run_id && rename(entry.run_id), entry.kind, entry.at - shift, entry.recorded_at - shift, entry.replaces && rename(entry.replaces), JSON.stringify(body))
        }
      }
    })()
  }
  const begun = performance.now()
  rebuildProjections(context)
  const rebuildMs = performance.now() - begun
  db.pragma('wal_checkpoint(TRUNCATE)')
  const sums = { batches: count('batch'), entries: count('entry'), jars: count('jar'), rebuildMs }
  db.close()
  return sums
}
