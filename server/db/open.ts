import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import Database from 'better-sqlite3'
import { migrate } from './migrate'
import { statement } from './statement'

export type Db = Database.Database

/**
 * Opens the logbook, making its folder and file when missing, and brings it to the newest form.
 * WAL with full synchronisation: what was acknowledged is on the disk.
 * @param path file, or ":memory:"
 */
export function openDatabase(path: string): Db {
  if (path !== ':memory:') mkdirSync(dirname(path), { recursive: true })
  const db = new Database(path)
  db.pragma('journal_mode = WAL')
  db.pragma('synchronous = FULL')
  db.pragma('foreign_keys = ON')
  db.pragma('busy_timeout = 5000')
  migrate(db)
  return db
}

/** Changes with whatever is written, by this connection or another; the same while nothing is. */
export function writtenMark(db: Db): string {
  const { own } = statement<{ own: number }>(db, 'SELECT total_changes() AS own').get()!
  const { other } = statement<{ other: number }>(db, 'SELECT data_version AS other FROM pragma_data_version').get()!
  return `${own} ${other}`
}
