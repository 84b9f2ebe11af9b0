import Database from 'better-sqlite3'
import type { Db } from './open'

/** A second connection to the logbook, for long work beside the others; it may hold more in memory, since it writes much. */
export function openBeside(path: string): Db {
  const db = new Database(path)
  for (const setting of ['synchronous = FULL', 'foreign_keys = ON', 'busy_timeout = 5000', 'cache_size = -48000']) db.pragma(setting)
  return db
}

/** A connection that reads the logbook as it is at this instant, however long that takes; closing it ends that. */
export function openSnapshot(path: string): Db {
  const db = new Database(path, { readonly: true })
  db.exec('BEGIN')
  return db
}

/** What the head and the tables of a file say of it. */
export interface FileFacts {
  /** "ok", or the first thing that is wrong. */
  integrity: string
  tables: ReadonlySet<string>
  /** SQLite's application id; 0 where none was set. */
  mark: number
  /** Migrations that it has had. */
  form: number
  /** Rows that refer to rows that are gone. */
  orphans: number
}

/**
 * Looks at a file without changing a row.
 * @returns undefined where it is no database at all
 * @throws Error where its pages cannot be read to their end
 */
export function lookAtFile(path: string): FileFacts | undefined {
  let db: Db
  try {
    db = new Database(path, { fileMustExist: true })
    db.pragma('schema_version')
  } catch {
    return undefined
  }
  try {
    return {
      integrity: db.pragma('integrity_check', { simple: true }) as string,
      tables: new Set((db.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").all() as { name: string }[]).map(row => row.name)),
      mark: db.pragma('application_id', { simple: true }) as number,
      form: db.pragma('user_version', { simple: true }) as number,
      orphans: (db.pragma('foreign_key_check') as unknown[]).length,
    }
  } finally {
    db.close()
  }
}

/** How much a logbook holds. */
export function countOf(db: Db, table: 'batch' | 'entry'): number {
  return (db.prepare(`SELECT count(*) AS count FROM ${table}`).get() as { count: number }).count
}
