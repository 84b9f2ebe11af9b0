import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { CannotOpen } from './opening'

/** Who holds a folder, for whoever comes second. */
export interface Holder {
  pid: number
  address: string
  since: number
}

const LOCK = 'in-use.sqlite'
const HOLDER = 'in-use.json'

/**
 * Holds a data folder for as long as the server lives: two on one logbook would each keep what the other wrote from being seen, and a
 * restore on one leaves the other writing into a file that is aside. The lock is SQLite's own on a file beside the logbook, so that
 * the system lets it go with the process, however it ends.
 * @returns lets it go
 * @throws CannotOpen naming who holds it and where it listens
 */
export function holdFolder(folder: string, holder: Holder): () => void {
  let lock: Database.Database
  try {
    lock = locked(folder)
  } catch (error) {
    if (!/^SQLITE_(?:NOTADB|CORRUPT)/.test(String((error as { code?: string }).code))) throw error
    // Nothing is kept in it: a lock that was damaged is made anew, and is no fault of the logbook.
    rmSync(join(folder, LOCK), { force: true })
    lock = locked(folder)
  }
  writeFileSync(join(folder, HOLDER), JSON.stringify(holder))
  return () => {
    rmSync(join(folder, HOLDER), { force: true })
    lock.close()
  }
}

function locked(folder: string): Database.Database {
  const lock = new Database(join(folder, LOCK), { timeout: 0 })
  try {
    lock.pragma('journal_mode = DELETE')
    lock.exec('BEGIN EXCLUSIVE')
    return lock
  } catch (error) {
    lock.close()
    if (!String((error as { code?: string }).code).startsWith('SQLITE_BUSY')) throw error
    throw new CannotOpen(heldWords(folder, holderOf(folder)))
  }
}

/** Who says that it holds a folder; undefined where nobody does, or it cannot be read. */
export function holderOf(folder: string): Holder | undefined {
  try {
    return JSON.parse(readFileSync(join(folder, HOLDER), 'utf8')) as Holder
  } catch {
    return undefined
  }
}

function heldWords(folder: string, holder: Holder | undefined): string {
  const who = holder ? `a Dulse that listens at ${holder.address} (process ${holder.pid})` : 'another Dulse'
  return `The logbook in ${folder} is held by ${who}: use that one, or end it first. Nothing was changed.`
}
