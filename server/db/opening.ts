import { accessSync, closeSync, constants, mkdirSync, openSync, readSync, statSync } from 'node:fs'
import { dirname } from 'node:path'
import Database from 'better-sqlite3'

/** A logbook that cannot be opened: one sentence with file, cause and mend. */
export class CannotOpen extends Error {}

/** "DULS": the mark in the head of the file. Files from before the mark are known by their tables. */
export const APPLICATION_ID = 0x44_55_4c_53
/** Tables that every logbook has. */
export const TABLES = ['household', 'machine', 'run', 'batch', 'jar', 'entry', 'meta'] as const

/** What the first hundred bytes of an SQLite file say (its file format, section 1.3). */
interface Head {
  pageSize: number
  pages: number
  mark: number
}

const MAGIC = 'SQLite format 3\0'
const HEAD_BYTES = 100

/**
 * Looks at a logbook before it is opened, and changes nothing: what is empty, cut short, damaged or another program's is not written on.
 * @param newest the newest form that this Dulse knows
 * @throws CannotOpen in words for whoever started it
 */
export function lookBeforeOpening(path: string, newest: number): void {
  checkFolder(dirname(path))
  const file = statSync(path, { throwIfNoEntry: false })
  if (!file) return
  if (!file.isFile()) throw new CannotOpen(`${path} is no file: move it away, or start Dulse with another folder (DULSE_DATA).`)
  if (file.size === 0)
    throw new CannotOpen(
      `${path} is empty (0 bytes), and a logbook never is: put a copy back in its place; if nothing was ever logged, delete it and start again.`,
    )
  const head = headOf(path)
  if (!head)
    throw new CannotOpen(`${path} is no SQLite database, or its head is damaged: put a copy back in its place. It was left as it is.`)
  if (head.mark !== 0 && head.mark !== APPLICATION_ID)
    throw new CannotOpen(`${path} belongs to another program: start Dulse with another folder (DULSE_DATA). It was left as it is.`)
  const walled = statSync(`${path}-wal`, { throwIfNoEntry: false })
  if (!walled?.size && file.size < head.pageSize * head.pages)
    throw new CannotOpen(
      `${path} is cut short (${file.size} of ${head.pageSize * head.pages} bytes): put a copy back in its place. What is left may be saved by “sqlite3 ${path} .recover”.`,
    )
  lookInside(path, newest)
}

function checkFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true })
    if (!statSync(folder).isDirectory()) throw Object.assign(new Error(), { code: 'ENOTDIR' })
    accessSync(folder, constants.W_OK)
  } catch (error) {
    const { code } = error as { code?: string }
    if (code === 'EEXIST' || code === 'ENOTDIR')
      throw new CannotOpen(`${folder} is a file, and Dulse needs a folder there: move it away, or set DULSE_DATA to another folder.`)
    if (code === 'EACCES' || code === 'EROFS' || code === 'EPERM')
      throw new CannotOpen(`Dulse may not write in ${folder}: give yourself the right to, or set DULSE_DATA to another folder.`)
    if (code === 'ENOSPC') throw new CannotOpen(`The disk of ${folder} is full: make room and start again.`)
    throw error
  }
}

function headOf(path: string): Head | undefined {
  const bytes = Buffer.alloc(HEAD_BYTES)
  const file = openSync(path, 'r')
  try {
    if (readSync(file, bytes, 0, HEAD_BYTES, 0) < HEAD_BYTES) return undefined
  } finally {
    closeSync(file)
  }
  if (bytes.toString('latin1', 0, MAGIC.length) !== MAGIC) return undefined
  const size = bytes.readUInt16BE(16)
  return { pageSize: size === 1 ? 65_536 : size, pages: bytes.readUInt32BE(28), mark: bytes.readUInt32BE(68) }
}

function lookInside(path: string, newest: number): void {
  let db: Database.Database | undefined
  try {
    db = new Database(path, { readonly: true, timeout: 2000 })
    const form = db.pragma('user_version', { simple: true }) as number
    const tables = new Set(
      (db.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").all() as { name: string }[]).map(row => row.name),
    )
    if (form > newest)
      throw new CannotOpen(
        `${path} was written by a newer Dulse (form ${form}, this one knows ${newest}): update Dulse. It was left as it is.`,
      )
    // Killed in its very first moment: made, and not begun.
    if (form === 0 && tables.size === 0) return
    if (form < 1 || TABLES.some(table => !tables.has(table)))
      throw new CannotOpen(
        `${path} is a database, but no logbook of Dulse: move it away, or set DULSE_DATA to another folder. It was left as it is.`,
      )
  } catch (error) {
    if (error instanceof CannotOpen) throw error
    const { code = '' } = error as { code?: string }
    if (/^SQLITE_(?:NOTADB|CORRUPT)/.test(code)) throw new CannotOpen(damagedWords(path))
    if (code.startsWith('SQLITE_BUSY')) throw new CannotOpen(`${path} is held by another program: end it first. Nothing was changed.`)
    if (code.startsWith('SQLITE_CANTOPEN')) throw new CannotOpen(`Dulse may not read ${path}: give yourself the right to.`)
    throw error
  } finally {
    db?.close()
  }
}

/** What is said of a logbook of which pages do not hold together, at the start or later. */
export const damagedWords = (path: string) =>
  `${path} is damaged: some of its pages do not hold together. Nothing more is written to it. Put back the newest good copy; what is readable may be saved by “sqlite3 ${path} .recover”.`
