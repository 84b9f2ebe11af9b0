import type { Purpose } from '#core/foods'
import type { ShelfJar } from '#shared/contracts'
import { likesOf } from './batches'
import type { Db } from './open'
import { statement } from './statement'

export interface JarViewRow {
  jar_id: string
  number: number
  /** The batch that was packed in it first; null for one filled from other jars. */
  batch_id: string | null
  food_key: string
  purpose: Purpose
  place: string
  package_key: string
  net_g: number
  left_g: number
  size_ml: number | null
  packed_at: number
  filled_at: number
  oldest_at: number
  baskets: number
  best_from: number
  best_to: number
  best_limit: string
  moisture: number
  smell: string | null
  smelt_at: number | null
  saw: string | null
  looked_at: number | null
  /** What a blend or a packet is called. */
  name: string | null
  /** JSON: what is in it, see `core/jars/content`. */
  content: string
  /** JSON: a blend as a food of the shelf. */
  blend: string | null
}

/** Gives the jar its number; one that has it keeps it. */
export function ensureJar(db: Db, id: string): number {
  return findJar(db, id)?.number ?? addJar(db, id)
}

/** Gives a number to a jar that is known to have none. */
export function addJar(db: Db, id: string, number = nextJarNumber(db)): number {
  statement(db, 'INSERT INTO jar (id, number) VALUES (?, ?)').run(id, number)
  return number
}

export function nextJarNumber(db: Db): number {
  return statement<{ next: number }>(db, 'SELECT coalesce(max(number), 0) + 1 AS next FROM jar').get()!.next
}

export function findJar(db: Db, id: string): { id: string; number: number } | undefined {
  return statement<{ id: string; number: number }>(db, 'SELECT id, number FROM jar WHERE id = ?').get(id)
}

/** Jars that a batch was ever packed in, by number. */
export function jarsOfBatch(db: Db, batchId: string): { id: string; number: number }[] {
  return statement<{ id: string; number: number }>(
    db,
    `
    SELECT DISTINCT j.id, j.number FROM entry e JOIN jar j ON j.id = json_extract(e.body, '$.jarId')
    WHERE e.batch_id = ? AND e.kind = 'pack' ORDER BY j.number`,
  ).all(batchId)
}

/** Jars whose first filling came from a batch. */
export function jarsPackedFrom(db: Db, batchId: string): JarViewRow[] {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE batch_id = ? ORDER BY number').all(batchId)
}

/** Every jar that has a number: also such as are gone again. */
export function allJarIds(db: Db): string[] {
  return statement<{ id: string }>(db, 'SELECT id FROM jar ORDER BY number')
    .all()
    .map(row => row.id)
}

const COLUMNS = [
  'jar_id',
  'number',
  'batch_id',
  'food_key',
  'purpose',
  'place',
  'package_key',
  'net_g',
  'left_g',
  'size_ml',
  'packed_at',
  'filled_at',
  'oldest_at',
  'baskets',
  'best_from',
  'best_to',
  'best_limit',
  'moisture',
  'smell',
  'smelt_at',
  'saw',
  'looked_at',
  'name',
  'content',
  'blend',
] as const

const PUT_JAR_VIEW = `INSERT INTO jar_view (${COLUMNS.join(', ')}) VALUES (${COLUMNS.map(() => '?').join(', ')})`

/** Writes the line of a jar that has none: whoever makes one anew drops it first. */
export function putJarView(db: Db, row: JarViewRow): void {
  statement(db, PUT_JAR_VIEW).run(...COLUMNS.map(column => row[column]))
}

/** Forgets what follows of a jar: it is made anew, or its packing was voided. */
export function dropJarView(db: Db, jarId: string): void {
  for (const table of ['jar_view', 'jar_part', 'jar_use']) statement(db, `DELETE FROM ${table} WHERE jar_id = ?`).run(jarId)
}

export function putJarPart(db: Db, jarId: string, lotId: string, everG: number, leftG: number): void {
  statement(db, 'INSERT INTO jar_part (jar_id, lot_id, ever_g, left_g) VALUES (?, ?, ?, ?)').run(jarId, lotId, everG, leftG)
}

export function putJarUse(db: Db, use: { jarId: string; entryId: string; at: number; grams: number }, foodKey: string): void {
  statement(db, 'INSERT INTO jar_use (jar_id, entry_id, at, grams, food_key) VALUES (?, ?, ?, ?, ?)').run(
    use.jarId,
    use.entryId,
    Math.round(use.at),
    use.grams,
    foodKey,
  )
}

export interface JarPartRow {
  jar_id: string
  lot_id: string
  ever_g: number
  left_g: number
}

/** The lots of a jar, the largest first. */
export function partsOfJar(db: Db, jarId: string): JarPartRow[] {
  return statement<JarPartRow>(db, 'SELECT * FROM jar_part WHERE jar_id = ? ORDER BY ever_g DESC').all(jarId)
}

/** Every jar that a lot ever went into, whatever way it took: for a recall. */
export function jarsWithLot(db: Db, lotId: string): (JarViewRow & { ever_g: number; part_left_g: number })[] {
  return statement<JarViewRow & { ever_g: number; part_left_g: number }>(
    db,
    `
    SELECT v.*, p.ever_g, p.left_g AS part_left_g FROM jar_part p JOIN jar_view v ON v.jar_id = p.jar_id WHERE p.lot_id = ? ORDER BY v.number`,
  ).all(lotId)
}

export function jarView(db: Db, jarId: string): JarViewRow | undefined {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE jar_id = ?').get(jarId)
}

export function shelfSums(db: Db): { count: number; grams: number } {
  return statement<{ count: number; grams: number }>(
    db,
    'SELECT count(*) AS count, coalesce(sum(left_g), 0) AS grams FROM jar_view WHERE left_g > 0',
  ).get()!
}

/** Jars with something in them, by place and number. */
export function jarsOnShelf(db: Db): ShelfJar[] {
  return statement<Omit<ShelfJar, 'warm'> & { smell: string | null; saw: string | null; name: string | null; warm: number }>(
    db,
    `
    SELECT jar_id AS jarId, number, food_key AS foodKey, purpose, place, net_g AS netG, left_g AS leftG, packed_at AS packedAt, baskets, best_from AS bestFrom, best_to AS bestTo, smell, saw, name, best_limit = 'warm' AS warm
    FROM jar_view WHERE left_g > 0 ORDER BY place, number`,
  )
    .all()
    .map(({ smell, saw, name, warm, ...jar }) => ({
      ...jar,
      ...(name !== null && { name }),
      ...(smell !== null && { smell }),
      ...(saw !== null && saw !== 'loose' && { saw }),
      ...(warm === 1 && { warm: true }),
    }))
}

/** Places in use, the fullest first. */
export function placesInUse(db: Db): string[] {
  return statement<{ place: string }>(db, 'SELECT place FROM jar_view WHERE left_g > 0 GROUP BY place ORDER BY count(*) DESC LIMIT 24')
    .all()
    .map(row => row.place)
}

/** Jars of a food and form with something in them, those filled last first. */
export function jarsHolding(db: Db, foodKey: string, purpose: string, most: number): JarViewRow[] {
  return statement<JarViewRow>(
    db,
    'SELECT * FROM jar_view WHERE food_key = ? AND purpose = ? AND left_g > 0 ORDER BY filled_at DESC LIMIT ?',
  ).all(foodKey, purpose, most)
}

/** Weight left and eaten since an instant, by food. */
export function stockByFood(
  db: Db,
  since: number,
): { food_key: string; left_g: number; jars: number; used_g: number; first_at: number | null }[] {
  return statement<{ food_key: string; left_g: number; jars: number; used_g: number; first_at: number | null }>(
    db,
    `
    SELECT f.food_key, coalesce(s.left_g, 0) AS left_g, coalesce(s.jars, 0) AS jars, coalesce(u.used_g, 0) AS used_g, s.first_at
    FROM (SELECT DISTINCT food_key FROM jar_view) f
    LEFT JOIN (SELECT food_key, sum(left_g) AS left_g, sum(left_g > 0) AS jars, min(packed_at) AS first_at FROM jar_view GROUP BY food_key) s ON s.food_key = f.food_key
    LEFT JOIN (SELECT food_key, sum(grams) AS used_g FROM jar_use WHERE at >= ? GROUP BY food_key) u ON u.food_key = f.food_key`,
  ).all(since)
}

/** What was eaten by month, as instants of its days, of all foods or one. */
export function usesSince(db: Db, since: number): { at: number; grams: number; food_key: string }[] {
  return statement<{ at: number; grams: number; food_key: string }>(
    db,
    'SELECT at, grams, food_key FROM jar_use WHERE at >= ? ORDER BY at',
  ).all(since)
}

/** Jars whose best time ends first, up to an instant. */
export function jarsToUse(db: Db, until: number, limit: number): JarViewRow[] {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE left_g > 0 AND best_from < ? ORDER BY best_from LIMIT ?').all(until, limit)
}

/** Jars of the foods named, or the jar of that number. */
export function findJarViews(db: Db, words: string, foodKeys: readonly string[], limit: number): JarViewRow[] {
  const number = /^#?\d+$/.test(words) ? Number(words.replace('#', '')) : -1
  return statement<JarViewRow>(
    db,
    `
    SELECT * FROM jar_view WHERE left_g > 0 AND (number = ? OR food_key IN (SELECT value FROM json_each(?)) OR NOT EXISTS (
      SELECT 1 FROM json_each(?) AS word WHERE coalesce(name, '') || ' ' || replace(food_key, '-', ' ') || ' ' || place || ' ' || purpose NOT LIKE word.value ESCAPE '\\'
    ))
    ORDER BY number = ? DESC, number DESC LIMIT ?`,
  ).all(number, JSON.stringify(foodKeys), likesOf(words), number, limit)
}

/** A blend as a food, by its key: as the jar that was filled with it last has it. */
export function blendFood(db: Db, foodKey: string): string | undefined {
  return statement<{ blend: string }>(
    db,
    'SELECT blend FROM jar_view WHERE food_key = ? AND blend IS NOT NULL ORDER BY filled_at DESC LIMIT 1',
  ).get(foodKey)?.blend
}

/** Every jar with something in it, in full, for the kitchen. */
export function jarsForKitchen(db: Db): JarViewRow[] {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view WHERE left_g > 0 ORDER BY number').all()
}

/** Every jar, by number, also such as are empty. */
export function allJarViews(db: Db): JarViewRow[] {
  return statement<JarViewRow>(db, 'SELECT * FROM jar_view ORDER BY number').all()
}

/** The lots in all jars that are not empty. */
export function partsOnShelf(db: Db): JarPartRow[] {
  return statement<JarPartRow>(db, 'SELECT p.* FROM jar_part p JOIN jar_view v ON v.jar_id = p.jar_id WHERE v.left_g > 0').all()
}

export function jarOfNumber(db: Db, number: number): string | undefined {
  return statement<{ id: string }>(db, 'SELECT id FROM jar WHERE number = ?').get(number)?.id
}
