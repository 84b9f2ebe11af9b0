import type { BodyOf } from '#core/log'
import type { Db } from './open'
import { statement } from './statement'

/** A picture in force of a food, with the batch or the jar that it hangs on. */
export interface PictureRow {
  id: string
  at: number
  body: BodyOf<'picture'>
  batchId?: string
  batchNumber?: number
  jarId?: string
  jarNumber?: number
}

interface Row {
  id: string
  at: number
  body: string
  batch_id: string | null
  batch_number: number | null
  jar_id: string | null
  jar_number: number | null
}

const FROM = `
    SELECT e.id, e.at, e.body, e.batch_id, b.number AS batch_number, e.jar_id, j.number AS jar_number
    FROM entry_in_force e
    LEFT JOIN batch_view b ON b.batch_id = e.batch_id
    LEFT JOIN jar_view j ON j.jar_id = e.jar_id
    WHERE e.kind = 'picture'`

const toPicture = (row: Row): PictureRow => ({
  id: row.id,
  at: row.at,
  body: JSON.parse(row.body) as BodyOf<'picture'>,
  batchId: row.batch_id ?? undefined,
  batchNumber: row.batch_number ?? undefined,
  jarId: row.jar_id ?? undefined,
  jarNumber: row.jar_number ?? undefined,
})

/** Pictures of a food in force, newest first: of its batches, and of what stands in its jars. */
export const picturesOfFood = (db: Db, foodKey: string, most: number): PictureRow[] =>
  statement<Row>(db, `${FROM} AND coalesce(b.food_key, j.food_key) = ? ORDER BY e.at DESC LIMIT ?`).all(foodKey, most).map(toPicture)

/** Pictures in force of a batch, and of the jars that were packed from it first, newest first. */
export const picturesOfBatch = (db: Db, batchId: string, most: number): PictureRow[] =>
  statement<Row>(db, `${FROM} AND (e.batch_id = ? OR j.batch_id = ?) ORDER BY e.at DESC LIMIT ?`).all(batchId, batchId, most).map(toPicture)

/** Every picture that the log names, in the order of their names; those that were corrected or removed too. */
export const namedPictures = (db: Db): string[] =>
  statement<{ name: string }>(db, "SELECT DISTINCT json_extract(body, '$.picture') AS name FROM entry WHERE kind = 'picture' ORDER BY name")
    .all()
    .map(row => row.name)

/** Makes room in a backup for the pictures themselves. @returns puts one in */
export function packInto(copy: Db): (name: string, bytes: Buffer) => void {
  copy.exec('CREATE TABLE picture_packed (name TEXT PRIMARY KEY, bytes BLOB NOT NULL) STRICT')
  const insert = copy.prepare<[string, Buffer]>('INSERT INTO picture_packed (name, bytes) VALUES (?, ?)')
  return (name, bytes) => void insert.run(name, bytes)
}

/** Whether a file carries its pictures within it, as a backup does. */
export const carriesPictures = (db: Db): boolean =>
  db.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'picture_packed'").get() !== undefined

/** Hands them out, one at a time. */
export const packedPictures = (db: Db): IterableIterator<{ name: string; bytes: Buffer }> =>
  db.prepare<[], { name: string; bytes: Buffer }>('SELECT name, bytes FROM picture_packed').iterate()

/** Lets go of what was handed out, and of the room that it took. */
export function dropPacked(db: Db): void {
  db.exec('DROP TABLE picture_packed')
  db.exec('VACUUM')
}
