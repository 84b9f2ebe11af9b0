import type { Statement } from 'better-sqlite3'
import type { Db } from './open'

const prepared = new WeakMap<Db, Map<string, Statement>>()

/** A prepared statement, made once for each database and text. */
export function statement<Row = unknown>(db: Db, sql: string): Statement<unknown[], Row> {
  let ofDb = prepared.get(db)
  if (!ofDb) prepared.set(db, (ofDb = new Map()))
  let found = ofDb.get(sql)
  if (!found) ofDb.set(sql, (found = db.prepare(sql)))
  return found as Statement<unknown[], Row>
}
