import type { Stage } from '#core/log'
import type { Purpose } from '#core/foods'
import type { Db } from './open'
import { statement } from './statement'

export interface BatchViewRow {
  batch_id: string
  number: number
  food_key: string
  title: string
  stage: Stage
  purpose: Purpose
  card_key: string
  started_at: number
  touched_at: number
  machine_id: string | null
  run_id: string | null
  raw_g: number
  loaded_g: number | null
  dry_g: number | null
  powder_g: number | null
  /** What it gave: dry pieces, or powder with the pieces that were not ground. */
  product_g: number | null
  stage_g: number
  water_gone: number | null
  /** Since when it stands in its machine without heat. */
  off_from: number | null
  rest_from: number | null
  finish_from: number | null
  finish_to: number | null
  prep_yield: number | null
  drying_ratio: number | null
  recovery: number | null
  pace: number | null
  /** Doubt of the pace: standard deviation of its logarithm. */
  pace_doubt: number | null
  cut_by: string | null
  /** JSON: positions in the machine. */
  trays: string
  rested: 0 | 1
  /** Water of the product, wet basis. */
  moisture: number
  /** JSON: see `services/insight`. */
  insight: string | null
  /** JSON: the newest word for next time. */
  review: string | null
  /** JSON: what its product brings into a dish, see `services/projections`. */
  product: string | null
  /** JSON: what it teaches of its food, see `services/learning`. */
  taught: string | null
  /** Why it is not to teach. */
  left_out: string | null
  loaded_at: number | null
}

export function insertBatch(db: Db, id: string, createdAt: number): number {
  const number = statement<{ next: number }>(db, 'SELECT coalesce(max(number), 0) + 1 AS next FROM batch').get()!.next
  statement(db, 'INSERT INTO batch (id, number, created_at) VALUES (?, ?, ?)').run(id, number, createdAt)
  return number
}

export function findBatch(db: Db, id: string): { id: string; number: number } | undefined {
  return statement<{ id: string; number: number }>(db, 'SELECT id, number FROM batch WHERE id = ?').get(id)
}

export function allBatchIds(db: Db): string[] {
  return statement<{ id: string }>(db, 'SELECT id FROM batch ORDER BY number')
    .all()
    .map(row => row.id)
}

/** Every batch that was ever loaded in a run, where it may have gone since too. */
export function batchIdsEverIn(db: Db, runId: string): string[] {
  return statement<{ batch_id: string }>(
    db,
    `
    SELECT DISTINCT batch_id FROM entry WHERE kind = 'load' AND json_extract(body, '$.runId') = ?`,
  )
    .all(runId)
    .map(row => row.batch_id)
}

export function batchIdsOfRun(db: Db, runId: string): string[] {
  return statement<{ batch_id: string }>(
    db,
    `
    SELECT DISTINCT batch_id FROM batch_view WHERE run_id = ?`,
  )
    .all(runId)
    .map(row => row.batch_id)
}

const VIEW_COLUMNS = [
  'batch_id',
  'number',
  'food_key',
  'title',
  'stage',
  'purpose',
  'card_key',
  'started_at',
  'touched_at',
  'machine_id',
  'run_id',
  'raw_g',
  'loaded_g',
  'dry_g',
  'powder_g',
  'product_g',
  'stage_g',
  'water_gone',
  'off_from',
  'rest_from',
  'finish_from',
  'finish_to',
  'prep_yield',
  'drying_ratio',
  'recovery',
  'pace',
  'pace_doubt',
  'cut_by',
  'trays',
  'rested',
  'moisture',
  'insight',
  'review',
  'product',
  'taught',
  'left_out',
  'loaded_at',
] as const

const PUT_BATCH_VIEW = `INSERT OR REPLACE INTO batch_view (${VIEW_COLUMNS.join(', ')}) VALUES (${VIEW_COLUMNS.map(() => '?').join(', ')})`

export function putBatchView(db: Db, row: BatchViewRow): void {
  statement(db, PUT_BATCH_VIEW).run(...VIEW_COLUMNS.map(column => row[column]))
}

export function dropBatchView(db: Db, batchId: string): void {
  statement(db, 'DELETE FROM batch_view WHERE batch_id = ?').run(batchId)
}

export function batchView(db: Db, batchId: string): BatchViewRow | undefined {
  return statement<BatchViewRow>(db, 'SELECT * FROM batch_view WHERE batch_id = ?').get(batchId)
}

/** Newest first; `before` is the number to go on from. */
export function listBatchViews(db: Db, filter: { stage?: Stage; before?: number; limit: number }): BatchViewRow[] {
  const before = filter.before ?? Number.MAX_SAFE_INTEGER
  if (filter.stage) {
    return statement<BatchViewRow>(db, 'SELECT * FROM batch_view WHERE stage = ? AND number < ? ORDER BY number DESC LIMIT ?').all(
      filter.stage,
      before,
      filter.limit,
    )
  }
  return statement<BatchViewRow>(db, 'SELECT * FROM batch_view WHERE number < ? ORDER BY number DESC LIMIT ?').all(before, filter.limit)
}

export function dryingViews(db: Db): BatchViewRow[] {
  // The second condition says nothing new, but it is the index's own: without it every batch of all years is read.
  return statement<BatchViewRow>(db, `SELECT * FROM batch_view WHERE stage = 'drying' AND stage <> 'shelf' ORDER BY number`).all()
}

/** Sums for the stage band; the rest's share is of `restMs`. */
export function stageSums(db: Db, now: number, restMs: number): { stage: Stage; count: number; grams: number; share: number | null }[] {
  return statement<{ stage: Stage; count: number; grams: number; share: number | null }>(
    db,
    `
    SELECT stage, count(*) AS count, sum(stage_g) AS grams,
           CASE stage WHEN 'drying' THEN sum(water_gone * stage_g) / sum(stage_g)
                      WHEN 'resting' THEN avg(min(1.0, max(0.0, coalesce((? - rest_from) * 1.0 / ?, 0)))) END AS share
    FROM batch_view WHERE stage <> 'shelf' GROUP BY stage`,
  ).all(now, restMs)
}

/** What batches of a food taught, newest first, at most `limit`; JSON. */
export function taughtOf(db: Db, foodKey: string, limit: number): { batch_id: string; taught: string }[] {
  return statement<{ batch_id: string; taught: string }>(
    db,
    `
    SELECT batch_id, taught FROM batch_view
    WHERE food_key = ? AND taught IS NOT NULL AND left_out IS NULL ORDER BY number DESC LIMIT ?`,
  ).all(foodKey, limit)
}

export interface PastPace {
  batch_id: string
  pace: number
  pace_doubt: number
  machine_id: string
  food_key: string
  card_key: string
  cut_by: string | null
  loaded_at: number | null
}

/** Paces of finished runs against their cards, newest first. */
export function pacesOf(db: Db, limit: number): PastPace[] {
  return statement<PastPace>(
    db,
    `
    SELECT batch_id, pace, pace_doubt, machine_id, food_key, card_key, cut_by, loaded_at FROM batch_view
    WHERE pace IS NOT NULL AND left_out IS NULL ORDER BY number DESC LIMIT ?`,
  ).all(limit)
}

/** Runs that somebody left out of what is learned, newest first. */
export function leftOutViews(db: Db): BatchViewRow[] {
  return statement<BatchViewRow>(db, 'SELECT * FROM batch_view WHERE left_out IS NOT NULL ORDER BY number DESC').all()
}

/** Changes whenever a pace does, or what is known of a run that has one: who cut it, of what food. */
export function pacesMark(db: Db): string {
  const { runs, sum, touched } = statement<{ runs: number; sum: number; touched: number | null }>(
    db,
    'SELECT count(*) AS runs, total(pace * number) AS sum, max(touched_at) AS touched FROM batch_view WHERE pace IS NOT NULL',
  ).get()!
  return `${runs} ${sum} ${touched}`
}

export function findBatchViews(db: Db, words: string, limit: number): BatchViewRow[] {
  const number = /^#?\d+$/.test(words) ? Number(words.replace('#', '')) : -1
  return statement<BatchViewRow>(
    db,
    `
    SELECT * FROM batch_view WHERE number = ? OR NOT EXISTS (
      SELECT 1 FROM json_each(?) AS word WHERE title || ' ' || purpose || ' ' || stage NOT LIKE word.value ESCAPE '\\'
    ) ORDER BY number = ? DESC, number DESC LIMIT ?`,
  ).all(number, likesOf(words), number, limit)
}

/** Patterns for each of the words, as JSON: in whatever order they stand. */
export const likesOf = (words: string): string => JSON.stringify(words.split(/\s+/).filter(Boolean).map(likeOf))

/** A pattern that holds the words anywhere, with LIKE's own signs taken literally. */
function likeOf(words: string): string {
  return `%${words.replace(/[\\%_]/g, sign => `\\${sign}`)}%`
}

/** Batches of a food that have left the machine, newest first. */
export function finishedOf(db: Db, foodKey: string, cardKey: string | undefined, limit: number): BatchViewRow[] {
  return statement<BatchViewRow>(
    db,
    `
    SELECT * FROM batch_view WHERE food_key = ? AND stage IN ('resting', 'grinding', 'shelf') AND (? IS NULL OR card_key = ?) ORDER BY number DESC LIMIT ?`,
  ).all(foodKey, cardKey ?? null, cardKey ?? null, limit)
}

/** Words for next time on other batches of a food, those of the same card first, newest first. */
export function reviewsOf(
  db: Db,
  foodKey: string,
  cardKey: string,
  except: string,
  limit: number,
): { batch_id: string; number: number; card_key: string; review: string }[] {
  return statement<{ batch_id: string; number: number; card_key: string; review: string }>(
    db,
    `
    SELECT batch_id, number, card_key, review FROM batch_view WHERE food_key = ? AND review IS NOT NULL AND batch_id <> ?
    ORDER BY card_key = ? DESC, number DESC LIMIT ?`,
  ).all(foodKey, except, cardKey, limit)
}

/** Lines of every finished batch, for what they taught. */
export function finishedViews(db: Db, filter: { foodKey?: string; since?: number }): BatchViewRow[] {
  return statement<BatchViewRow>(
    db,
    `SELECT * FROM batch_view WHERE stage = 'shelf' AND (? IS NULL OR food_key = ?) AND started_at >= ? ORDER BY number`,
  ).all(filter.foodKey ?? null, filter.foodKey ?? null, filter.since ?? 0)
}

export function batchOfNumber(db: Db, number: number): string | undefined {
  return statement<{ id: string }>(db, 'SELECT id FROM batch WHERE number = ?').get(number)?.id
}
