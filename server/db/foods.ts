import type { FoodSource, OwnCardSource } from '#core/foods'
import type { Db } from './open'
import { statement } from './statement'

interface Versioned<T> {
  source: T
  version: number
}

/** The household's own foods, by key. */
export function listOwnFoods(db: Db): Versioned<FoodSource>[] {
  return statement<{ body: string; version: number }>(db, 'SELECT body, version FROM own_food ORDER BY key')
    .all()
    .map(row => ({ source: JSON.parse(row.body) as FoodSource, version: row.version }))
}

export function listOwnCards(db: Db): (Versioned<OwnCardSource> & { cardKey: string })[] {
  return statement<{ card_key: string; body: string; version: number }>(
    db,
    'SELECT card_key, body, version FROM own_card ORDER BY food_key, card_key',
  )
    .all()
    .map(row => ({ cardKey: row.card_key, source: JSON.parse(row.body) as OwnCardSource, version: row.version }))
}

export function putOwnFood(db: Db, source: FoodSource): void {
  statement(
    db,
    'INSERT INTO own_food (key, body) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET body = excluded.body, version = own_food.version + 1',
  ).run(source.key, JSON.stringify(source))
}

export function putOwnCard(db: Db, cardKey: string, source: OwnCardSource): void {
  statement(
    db,
    'INSERT INTO own_card (food_key, card_key, body) VALUES (?, ?, ?) ON CONFLICT (food_key, card_key) DO UPDATE SET body = excluded.body, version = own_card.version + 1',
  ).run(source.food, cardKey, JSON.stringify(source))
}

export function dropOwnFood(db: Db, key: string): boolean {
  return statement(db, 'DELETE FROM own_food WHERE key = ?').run(key).changes > 0
}

export function dropOwnCard(db: Db, foodKey: string, cardKey: string): boolean {
  return statement(db, 'DELETE FROM own_card WHERE food_key = ? AND card_key = ?').run(foodKey, cardKey).changes > 0
}

/** Batches that a food (and one of its cards) carries: what they rest on is not taken away. */
export function countBatchesOf(db: Db, foodKey: string, cardKey?: string): number {
  return statement<{ count: number }>(
    db,
    'SELECT count(*) AS count FROM batch_view WHERE food_key = ? AND (? IS NULL OR card_key = ?)',
  ).get(foodKey, cardKey ?? null, cardKey ?? null)!.count
}

export function batchIdsOfFood(db: Db, foodKey: string): string[] {
  return statement<{ batch_id: string }>(db, 'SELECT batch_id FROM batch_view WHERE food_key = ? ORDER BY number')
    .all(foodKey)
    .map(row => row.batch_id)
}

/** Rules that were accepted in any batch and stand. */
export function acceptedCautions(db: Db, rules: readonly string[]): string[] {
  const one = statement<{ rule: string }>(db, 'SELECT rule FROM accepted_caution WHERE rule = ? LIMIT 1')
  return rules.filter(rule => one.get(rule) !== undefined)
}

/** Notes which cautions a batch's log has accepted. */
export function replaceAccepted(db: Db, batchId: string, rules: Iterable<string>): void {
  statement(db, 'DELETE FROM accepted_caution WHERE batch_id = ?').run(batchId)
  for (const rule of rules) statement(db, 'INSERT INTO accepted_caution (rule, batch_id) VALUES (?, ?)').run(rule, batchId)
}

export interface PickingRow {
  plant: string | null
  cultivar: string | null
  year: string
  baskets: number
  grams: number
  last_at: number
}

/** What came in of a food, by plant and kind and year, newest year first. A part of another batch's basket counts there. */
export function pickingsOf(db: Db, foodKey: string): PickingRow[] {
  return statement<PickingRow>(
    db,
    `
    SELECT json_extract(body, '$.plant') AS plant, json_extract(body, '$.cultivar') AS cultivar, strftime('%Y', at / 1000, 'unixepoch') AS year,
           count(*) AS baskets, sum(json_extract(body, '$.weightG')) AS grams, max(at) AS last_at
    FROM entry_in_force
    WHERE kind = 'intake' AND json_extract(body, '$.foodKey') = ? AND json_extract(body, '$.from') IS NULL
    GROUP BY plant, cultivar, year ORDER BY year DESC, grams DESC`,
  ).all(foodKey)
}
