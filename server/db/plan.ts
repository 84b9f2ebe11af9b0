import type { KeptRun, PlanBook } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

export function readPlanBook(db: Db): { book: PlanBook; version: number } | undefined {
  const row = statement<{ body: string; version: number }>(db, 'SELECT body, version FROM plan_book WHERE id = 1').get()
  return row && { book: JSON.parse(row.body) as PlanBook, version: row.version }
}

/** Writes the document; its version is one more than before. */
export function writePlanBook(db: Db, book: PlanBook): void {
  statement(
    db,
    `INSERT INTO plan_book (id, body, version) VALUES (1, ?, 1)
    ON CONFLICT (id) DO UPDATE SET body = excluded.body, version = plan_book.version + 1`,
  ).run(JSON.stringify(book))
}

export interface KeptRow {
  basketId: string
  batchId?: string
  takenAt: number
  run: KeptRun
}

interface PlanRunRow {
  basket_id: string
  batch_id: string | null
  taken_at: number
  body: string
}
const toKept = (row: PlanRunRow): KeptRow => ({
  basketId: row.basket_id,
  batchId: row.batch_id ?? undefined,
  takenAt: row.taken_at,
  run: JSON.parse(row.body) as KeptRun,
})

export const keptRuns = (db: Db) => statement<PlanRunRow>(db, 'SELECT * FROM plan_run').all().map(toKept)

/** What the plan has for a batch that is not loaded yet, its first part. */
export const plannedFor = (db: Db, batchId: string): KeptRun | undefined =>
  statement<PlanRunRow>(db, 'SELECT * FROM plan_run WHERE batch_id = ?')
    .all(batchId)
    .map(row => toKept(row).run)
    .sort((a, b) => a.startAt - b.startAt)[0]

/** A plan is taken as a whole. */
export function replaceKeptRuns(db: Db, rows: readonly KeptRow[]): void {
  statement(db, 'DELETE FROM plan_run').run()
  for (const { basketId, batchId, takenAt, run } of rows)
    statement(db, 'INSERT INTO plan_run (basket_id, batch_id, taken_at, body) VALUES (?, ?, ?, ?)').run(
      basketId,
      batchId ?? null,
      takenAt,
      JSON.stringify(run),
    )
}

/** What came in of each food in earlier years, by calendar month. */
export function broughtInByMonth(db: Db): { food_key: string; purpose: string; started_at: number; raw_g: number }[] {
  return statement<{ food_key: string; purpose: string; started_at: number; raw_g: number }>(
    db,
    'SELECT food_key, purpose, started_at, raw_g FROM batch_view ORDER BY started_at',
  ).all()
}

/** What stands on the shelf of each food and form, g. */
export const shelfByForm = (db: Db) =>
  statement<{ food_key: string; purpose: string; left_g: number }>(
    db,
    'SELECT food_key, purpose, sum(left_g) AS left_g FROM jar_view WHERE left_g > 0 GROUP BY food_key, purpose',
  ).all()
