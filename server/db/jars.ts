import type { Purpose } from '#core/foods'
import { likeOf } from './batches'
import type { Db } from './open'
import { statement } from './statement'

export interface JarViewRow {
  jar_id: string
  batch_id: string
  number: number
  food_key: string
  purpose: Purpose
  place: string
  package_key: string
  net_g: number
  left_g: number
  size_ml: number | null
  packed_at: number
  best_from: number
  best_to: number
  smell: string | null
}

/** Gives the jar its number; one that has it keeps it. */
export function ensureJar(db: Db, id: string, batchId: string): number {
  const known = statement<{ number: number }>(db, 'SELECT number FROM jar WHERE id = ?').get(id)
  if (known) return known.number
  const number = statement<{ next: number }>(db, 'SELECT coalesce(max(number), 0) + 1 AS next FROM jar').get()!.next
  statement(db, 'INSERT INTO jar (id, number, batch_id) VALUES (?, ?, ?)').run(id, number, batchId)
  return number
}

export function findJar(db: Db, id: string): { id: string, number: number, batch_id: string } | undefined {
  return statement<{ id: string, number: number, batch_id: string }>(db, 'SELECT id, number, batch_id FROM jar WHERE id = ?').get(id)
}

export function jarsOfBatch(db: Db, batchId: string): { id: string, number: number }[] {
  return statement<{ id: string, number: number }>(db, 'SELECT id, number FROM jar WHERE batch_id = ? ORDER BY number').all(batchId)
}

const COLUMNS = ['jar_id', 'batch_id', 'number', 'food_key', 'purpose', 'place', 'package_key', 'net_g', 'left_g', 'size_ml', 'packed_at', 'best_from', 'best_to', 'smell'] as const

export function replaceJarViews(db: Db, batchId: string, rows: readonly JarViewRow[]): void {
  statement(db, 'DELETE FROM jar_view WHERE batch_id = ?').run(batchId)
  const insert = statement(db, `INSERT INTO jar_view (${COLUMNS.join(', ')}) VALUES (${COLUMNS.map(() => '?').join(', ')})`)
  for (const row of rows) insert.run(...COLUMNS.map(column => row[column]))
}

export function jarView(db: Db, jarId: string): JarViewRow | undefined {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE jar_id = ?').get(jarId)
}

export function shelfSums(db: Db): { count: number, grams: number } {
  return statement<{ count: number, grams: number }>(db, 'SELECT count(*) AS count, coalesce(sum(left_g), 0) AS grams FROM jar_view WHERE left_g > 0').get()!
}

/** Jars with something in them, by place and number. */
export function jarsOnShelf(db: Db, limit: number): JarViewRow[] {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE left_g > 0 ORDER BY place, number LIMIT ?').all(limit)
}

export function placesOfJars(db: Db): string[] {
  return statement<{ place: string }>(db, 'SELECT DISTINCT place FROM jar_view WHERE left_g > 0 ORDER BY place').all().map(row => row.place)
}

/** Jars whose best time ends first, up to an instant. */
export function jarsToUse(db: Db, until: number, limit: number): JarViewRow[] {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE left_g > 0 AND best_from < ? ORDER BY best_from LIMIT ?').all(until, limit)
}

/** Jars of the foods named, or the jar of that number. */
export function findJarViews(db: Db, words: string, foodKeys: readonly string[], limit: number): JarViewRow[] {
  const number = /^#?\d+$/.test(words) ? Number(words.replace('#', '')) : -1
  return statement<JarViewRow>(db, `
    SELECT * FROM jar_view WHERE left_g > 0 AND (number = ? OR place LIKE ? ESCAPE '\\' OR food_key IN (SELECT value FROM json_each(?)))
    ORDER BY number = ? DESC, number DESC LIMIT ?`).all(number, likeOf(words), JSON.stringify(foodKeys), number, limit)
}
