import { chmodSync, renameSync } from 'node:fs'
import { basename } from 'node:path'
import Database from 'better-sqlite3'
import type { Db } from './open'

/**
 * Opens a file beside the logbook that can be done without; one that is damaged is put aside in words, and begun anew: it is no reason not
 * to open the logbook.
 * @param begin makes its tables, and fails where pages do not hold together
 */
export function soundOrNew(path: string, begin: (db: Db) => void): Db {
  try {
    return opened(path, begin)
  } catch (error) {
    if (!isDamage(error)) throw error
    const aside = path.replace(/\.sqlite$/, `-damaged-${Date.now()}.sqlite`)
    renameSync(path, aside)
    console.error(`${path} was damaged: it is put aside as ${basename(aside)}, and begun anew. Choose what was in it once more.`)
    return opened(path, begin)
  }
}

function opened(path: string, begin: (db: Db) => void): Db {
  const db = new Database(path)
  try {
    chmodSync(path, 0o600)
    begin(db)
    return db
  } catch (error) {
    db.close()
    throw error
  }
}

/** A file that is no database, or of which pages do not hold together. */
export const isDamage = (error: unknown) => /^SQLITE_(?:NOTADB|CORRUPT)/.test(String((error as { code?: unknown }).code))
