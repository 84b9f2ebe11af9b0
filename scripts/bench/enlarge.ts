import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import { uuidv7 } from 'uuidv7'
import { openDatabase } from '#server/db/open'
import { openLogbook } from '#server/services/logbook'
import { rebuildProjections } from '#server/services/projections'

interface Row {
  seq: number
  id: string
  batch_id: string | null
  run_id: string | null
  jar_id: string | null
  kind: string
  at: number
  recorded_at: number
  replaces: string | null
  body: string
}
const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g
const YEAR_MS = 365.25 * 86_400_000

/**
 * Copies a logbook and adds its finished batches again and again, each round a year earlier, until it
 * holds `times` as many batches: one household's century. What is under way stays as it is.
 */
export function enlarge(from: string, to: string, times: number): { batches: number; entries: number; jars: number; rebuildMs: number } {
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
  const finished = (
    db.prepare("SELECT batch_id FROM batch_view WHERE stage = 'shelf' ORDER BY number").all() as { batch_id: string }[]
  ).map(row => row.batch_id)
  const runsOf = db.prepare("SELECT DISTINCT json_extract(body, '$.runId') AS id FROM entry WHERE batch_id = ? AND kind = 'load'")
  const columns = 'seq, id, batch_id, run_id, jar_id, kind, at, recorded_at, replaces, body'
  const entriesOf = db.prepare(`SELECT ${columns} FROM entry WHERE batch_id = ? OR run_id IN (SELECT value FROM json_each(?)) ORDER BY seq`)
  const entriesAtShelf = db.prepare(`SELECT ${columns} FROM entry WHERE jar_id IS NOT NULL AND seq <= ? ORDER BY seq`)
  const namesOf = db.prepare('SELECT jar_id FROM entry_jar WHERE seq = ?')
  const addBatch = db.prepare('INSERT INTO batch (id, number, created_at) VALUES (?, ?, ?)')
  const addRun = db.prepare('INSERT INTO run (id, machine_id, created_at) SELECT ?, machine_id, created_at FROM run WHERE id = ?')
  const addJar = db.prepare('INSERT OR IGNORE INTO jar (id, number) SELECT ?, max(number) + 1 FROM jar')
  const addEntry = db.prepare(
    'INSERT INTO entry (id, batch_id, run_id, jar_id, kind, at, recorded_at, replaces, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
  )
  const addName = db.prepare('INSERT OR IGNORE INTO entry_jar (jar_id, seq) VALUES (?, ?)')
  let number = (db.prepare('SELECT max(number) AS number FROM batch').get() as { number: number }).number
  const last = (db.prepare('SELECT max(seq) AS seq FROM entry').get() as { seq: number }).seq
  for (let round = 1; count('batch') < wanted; round++) {
    db.transaction(() => {
      // Twenty-five years back at most, so that no date leaves the range that the rules take.
      const shift = Math.round((1 + (round % 24)) * YEAR_MS)
      const names = new Map<string, string>()
      const rename = (id: string) => {
        if (!names.has(id)) names.set(id, uuidv7())
        return names.get(id)!
      }
      const copy = (entry: Row) => {
        // Every id within is a jar, a run, or another entry of the same year.
        const body = entry.body.replace(UUID, id => rename(id))
        const known = JSON.parse(entry.body) as { machineId?: string; grinderId?: string }
        const kept = Object.entries(known).reduce(
          (text, [key, id]) => (key === 'machineId' || key === 'grinderId' ? text.replace(rename(id), id) : text),
          body,
        )
        const jars = (namesOf.all(entry.seq) as { jar_id: string }[]).map(row => rename(row.jar_id))
        for (const jar of jars) addJar.run(jar)
        const { lastInsertRowid } = addEntry.run(
          rename(entry.id),
          entry.batch_id && rename(entry.batch_id),
          entry.run_id && rename(entry.run_id),
          entry.jar_id && rename(entry.jar_id),
          entry.kind,
          entry.at - shift,
          entry.recorded_at - shift,
          entry.replaces && rename(entry.replaces),
          kept,
        )
        for (const jar of jars) addName.run(jar, BigInt(lastInsertRowid))
      }
      for (const batch of finished) {
        const runs = (runsOf.all(batch) as { id: string }[]).map(row => row.id)
        addBatch.run(rename(batch), ++number, Date.now() - shift)
        for (const run of runs) addRun.run(rename(run), run)
        for (const entry of entriesOf.all(batch, JSON.stringify(runs)) as Row[]) copy(entry)
      }
      for (const entry of entriesAtShelf.all(last) as Row[]) {
        const jars = (namesOf.all(entry.seq) as { jar_id: string }[]).map(row => row.jar_id)
        if (jars.every(jar => names.has(jar) || jar === entry.jar_id)) copy(entry)
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
