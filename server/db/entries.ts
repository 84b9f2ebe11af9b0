import type { Entry, EntryBody, EntryKind } from '#core/log'
import type { Db } from './open'
import { statement } from './statement'

interface EntryRow {
  seq: number
  id: string
  at: number
  recorded_at: number
  replaces: string | null
  body: string
  writer_id: string | null
  writer_name: string | null
}

const COLUMNS = 'seq, id, at, recorded_at, replaces, body, writer_id, writer_name'

function toEntry(row: EntryRow): Entry {
  return {
    id: row.id,
    seq: row.seq,
    at: row.at,
    recordedAt: row.recorded_at,
    ...(row.writer_id === null ? {} : { writer: { id: row.writer_id, name: row.writer_name ?? '' } }),
    replaces: row.replaces ?? undefined,
    body: JSON.parse(row.body) as EntryBody,
  }
}

/** Where an entry belongs: a batch, a run with all its batches, or a jar. */
export type EntryPlace =
  | { batchId: string; runId?: undefined; jarId?: undefined }
  | { runId: string; batchId?: undefined; jarId?: undefined }
  | { jarId: string; batchId?: undefined; runId?: undefined }

/**
 * Adds a row to the log and gives its place in it.
 * @param jars every jar that it names, or whose entry it corrects or voids
 */
export function insertEntry(db: Db, place: EntryPlace, entry: Omit<Entry, 'seq'>, jars: readonly string[] = []): number {
  const seq = Number(
    statement(
      db,
      `
    INSERT INTO entry (id, batch_id, run_id, jar_id, kind, at, recorded_at, replaces, body, writer_id, writer_name) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    ).run(
      entry.id,
      place.batchId ?? null,
      place.runId ?? null,
      place.jarId ?? null,
      entry.body.kind,
      entry.at,
      entry.recordedAt,
      entry.replaces ?? null,
      JSON.stringify(entry.body),
      entry.writer?.id ?? null,
      entry.writer?.name ?? null,
    ).lastInsertRowid,
  )
  placeUnderJars(db, seq, jars)
  return seq
}

/** Lets an entry be found under each of these jars. */
export function placeUnderJars(db: Db, seq: number, jars: readonly string[]): void {
  for (const jarId of jars) statement(db, 'INSERT OR IGNORE INTO entry_jar (jar_id, seq) VALUES (?, ?)').run(jarId, BigInt(seq))
}

/** The entry with this id and where it belongs, or undefined. */
export function findEntry(db: Db, id: string): { entry: Entry; batchId?: string; runId?: string; jarId?: string } | undefined {
  const row = statement<EntryRow & { batch_id: string | null; run_id: string | null; jar_id: string | null }>(
    db,
    `SELECT ${COLUMNS}, batch_id, run_id, jar_id FROM entry WHERE id = ?`,
  ).get(id)
  return row && { entry: toEntry(row), batchId: row.batch_id ?? undefined, runId: row.run_id ?? undefined, jarId: row.jar_id ?? undefined }
}

/** Every jar that an entry stands under. */
export function jarsOfEntry(db: Db, id: string): string[] {
  return statement<{ jar_id: string }>(db, 'SELECT ej.jar_id FROM entry e JOIN entry_jar ej ON ej.seq = e.seq WHERE e.id = ?')
    .all(id)
    .map(row => row.jar_id)
}

/** Every entry that names a jar, or corrects or voids one that does, in order of arrival. */
export function entriesOfJar(db: Db, jarId: string): (Entry & { batchId?: string })[] {
  return statement<EntryRow & { batch_id: string | null }>(
    db,
    `SELECT ${COLUMNS.split(', ')
      .map(column => `e.${column}`)
      .join(', ')}, e.batch_id FROM entry_jar ej JOIN entry e ON e.seq = ej.seq WHERE ej.jar_id = ? ORDER BY e.seq`,
  )
    .all(jarId)
    .map(row => ({ ...toEntry(row), batchId: row.batch_id ?? undefined }))
}

/** What came into a jar without a batch, in force. */
export function stockOfJar(db: Db, jarId: string): Entry | undefined {
  const row = statement<EntryRow>(
    db,
    `
    SELECT ${COLUMNS} FROM entry_in_force WHERE jar_id = ? AND kind = 'stock' ORDER BY seq DESC LIMIT 1`,
  ).get(jarId)
  return row && toEntry(row)
}

/** Jars in whose own log something waits to be settled. */
export function unsettledJars(db: Db): { jarId: string; number: number; writer: string | null }[] {
  return statement<{ jarId: string; number: number; writer: string | null }>(
    db,
    `
    SELECT j.id AS jarId, j.number, max(e.writer_name) AS writer FROM entry_in_force e JOIN jar j ON j.id = e.jar_id
    WHERE e.kind = 'unsettled' GROUP BY j.id ORDER BY j.number`,
  ).all()
}

/** A batch's own entries of the kinds that tell what is in its bowl, and what voids them. */
export function bowlEntries(db: Db, batchId: string): (Entry & { batchId: string })[] {
  return statement<EntryRow>(
    db,
    `SELECT ${COLUMNS} FROM entry WHERE batch_id = ? AND kind IN ('intake', 'grind', 'pack', 'void') ORDER BY seq`,
  )
    .all(batchId)
    .map(row => ({ ...toEntry(row), batchId }))
}

/** Logs that are kept as read: those of the batches and runs that are at work, and some more. */
const LOGS_KEPT = 120
const read = new WeakMap<Db, Map<string, readonly Entry[]>>()

/**
 * All rows of a batch or a run, in order of arrival. A row of the log never changes and new ones only come to its end (the table's
 * triggers see to that), so what was read once is read on from there: a write asks for the same log several times.
 */
function readOn(db: Db, column: 'batch_id' | 'run_id', id: string): Entry[] {
  let logs = read.get(db)
  if (!logs) read.set(db, (logs = new Map()))
  const before = logs.get(id) ?? []
  const rows = statement<EntryRow>(db, `SELECT ${COLUMNS} FROM entry WHERE ${column} = ? AND seq > ? ORDER BY seq`).all(
    id,
    before.at(-1)?.seq ?? 0,
  )
  const entries = [...before, ...rows.map(toEntry)]
  // What a transaction has written may yet be taken back.
  if (!db.inTransaction && entries.length > 0) {
    logs.delete(id)
    logs.set(id, entries)
    if (logs.size > LOGS_KEPT) logs.delete(logs.keys().next().value!)
  }
  return [...entries]
}

/** A batch's own entries and the heat entries of the runs it was loaded into, in order of arrival. */
export function entriesOfBatch(db: Db, batchId: string): Entry[] {
  const own = readOn(db, 'batch_id', batchId)
  const runs = new Set(own.flatMap(entry => (entry.body.kind === 'load' ? [entry.body.runId] : [])))
  if (runs.size === 0) return own
  return [...own, ...[...runs].flatMap(run => entriesOfRun(db, run))].sort((a, b) => a.seq - b.seq)
}

/** The heat entries of a run, in order of arrival. */
export const entriesOfRun = (db: Db, runId: string): Entry[] => readOn(db, 'run_id', runId)

/** The newest room air in force, of whatever run. */
/** Whether a batch was ever weighed since it was loaded. */
export const isWeighed = (db: Db, batchId: string): boolean =>
  statement(db, "SELECT 1 FROM entry_in_force WHERE batch_id = ? AND kind = 'weigh' LIMIT 1").get(batchId) !== undefined

export function newestAir(db: Db): Entry | undefined {
  const row = statement<EntryRow>(
    db,
    `
    SELECT ${COLUMNS} FROM entry_in_force WHERE kind = 'air' AND json_extract(body, '$.roomC') IS NOT NULL ORDER BY at DESC LIMIT 1`,
  ).get()
  return row && toEntry(row)
}

/** Every row of the log with its place, oldest first, one at a time: for export. */
export function* allEntries(db: Db): Generator<{ entry: Entry; batchNumber?: number; runId?: string; jarNumber?: number }> {
  const rows = db
    .prepare<[], EntryRow & { number: number | null; run_id: string | null; jar_number: number | null }>(
      `
    SELECT e.seq, e.id, e.at, e.recorded_at, e.replaces, e.body, e.writer_id, e.writer_name, e.run_id, b.number, j.number AS jar_number
    FROM entry e LEFT JOIN batch b ON b.id = e.batch_id LEFT JOIN jar j ON j.id = e.jar_id ORDER BY e.seq`,
    )
    .iterate()
  for (const row of rows)
    yield {
      entry: toEntry(row),
      batchNumber: row.number ?? undefined,
      runId: row.run_id ?? undefined,
      jarNumber: row.jar_number ?? undefined,
    }
}

/** An entry with the numbers that people know its place by. */
export interface PlacedEntry {
  entry: Entry
  batchNumber?: number
  jarNumber?: number
  foodKey?: string
  batches?: string
}

/** Entries in force of some kinds, oldest first: none that was corrected or voided. Of a run, with the batches in it. */
export function* entriesInForce(db: Db, kinds: readonly EntryKind[]): Generator<PlacedEntry> {
  const rows = db
    .prepare<[string], EntryRow & { number: number | null; jar_number: number | null; food_key: string | null; batches: string | null }>(
      `
    SELECT ${COLUMNS.split(', ')
      .map(column => `e.${column}`)
      .join(', ')}, b.number, j.number AS jar_number, v.food_key,
           (SELECT group_concat(number, ' ') FROM (SELECT DISTINCT lb.number FROM entry_in_force l JOIN batch lb ON lb.id = l.batch_id WHERE l.kind = 'load' AND json_extract(l.body, '$.runId') = e.run_id ORDER BY lb.number)) AS batches
    FROM entry_in_force e LEFT JOIN batch b ON b.id = e.batch_id LEFT JOIN jar j ON j.id = e.jar_id LEFT JOIN jar_view v ON v.jar_id = e.jar_id
    WHERE e.kind IN (SELECT value FROM json_each(?)) ORDER BY e.at, e.seq`,
    )
    .iterate(JSON.stringify(kinds))
  for (const row of rows)
    yield {
      entry: toEntry(row),
      batchNumber: row.number ?? undefined,
      jarNumber: row.jar_number ?? undefined,
      foodKey: row.food_key ?? undefined,
      batches: row.batches ?? undefined,
    }
}

/**
 * Words for next time in force on jars of a food, newest first, with the batch that was packed in them. From the few
 * words to their jars (a cross join keeps that order), not from all jars of a food to their words.
 */
export function jarReviewsOf(
  db: Db,
  foodKey: string,
  limit: number,
): { body: string; at: number; jar_id: string; jar_number: number; batch_id: string; number: number; card_key: string }[] {
  return statement<{ body: string; at: number; jar_id: string; jar_number: number; batch_id: string; number: number; card_key: string }>(
    db,
    `
    SELECT e.body, e.at, v.jar_id, v.number AS jar_number, b.batch_id, b.number, b.card_key
    FROM entry_in_force e CROSS JOIN jar_view v ON v.jar_id = e.jar_id JOIN batch_view b ON b.batch_id = v.batch_id
    WHERE v.food_key = ? AND e.kind = 'review' AND e.jar_id IS NOT NULL
    ORDER BY e.at DESC LIMIT ?`,
  ).all(foodKey, limit)
}

/** Grams a millilitre that weighed spoons gave of a food's powders, newest first. */
export function densitiesOf(db: Db, foodKey: string, limit: number): number[] {
  return statement<{ density: number }>(
    db,
    `
    SELECT json_extract(e.body, '$.weightG') * 1.0 / json_extract(e.body, '$.ml') AS density
    FROM jar_view v CROSS JOIN entry_in_force e ON e.jar_id = v.jar_id AND e.kind = 'measure'
    WHERE v.food_key = ? AND v.purpose = 'powder' ORDER BY e.at DESC LIMIT ?`,
  )
    .all(foodKey, limit)
    .map(row => row.density)
}

/** Smell tests in force on jars of a food and form, with the age of what was smelt. */
export function smellsOf(
  db: Db,
  foodKey: string,
  purpose: string,
): { at: number; smell: 'strong' | 'weaker' | 'crushed' | 'none'; oldest_at: number }[] {
  return statement<{ at: number; smell: 'strong' | 'weaker' | 'crushed' | 'none'; oldest_at: number }>(
    db,
    `
    SELECT e.at, json_extract(e.body, '$.smell') AS smell, v.oldest_at FROM jar_view v JOIN entry_in_force e ON e.jar_id = v.jar_id
    WHERE v.food_key = ? AND v.purpose = ? AND e.kind = 'smell' AND json_extract(e.body, '$.smell') NOT IN ('rancid', 'musty')
    ORDER BY e.at`,
  ).all(foodKey, purpose)
}

/** How warm it is in a place, by the newest packing or move that says so. */
export function warmthOf(db: Db, place: string): number | undefined {
  return statement<{ celsius: number }>(
    db,
    `
    SELECT json_extract(body, '$.storageC') AS celsius FROM entry_in_force
    WHERE kind IN ('pack', 'moveJar', 'fill', 'stock') AND json_extract(body, '$.place') = ? AND json_extract(body, '$.storageC') IS NOT NULL
    ORDER BY at DESC, seq DESC LIMIT 1`,
  ).get(place)?.celsius
}
