import type { Restored } from '#shared/api'
import { randomUUID } from 'node:crypto'
import { copyFileSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { migrations } from '#migrations'
import { refuse } from '#core/errors'
import { countOf, lookAtFile, openBeside, type FileFacts } from '#server/db/file'
import { APPLICATION_ID, damagedWords, TABLES } from '#server/db/opening'
import { missingPictures, packPictures } from '#server/pictures/store'
import { openLogbook } from '#server/services/logbook'
import type { Context } from '#server/services/context'
import { Damaged } from '#server/services/refusals'

/** A file beside the logbook, on the same disk. */
export const besideLogbook = ({ db }: Context, ending: string) => join(dirname(db.name), `${ending}-${randomUUID()}.sqlite`)

/**
 * Copies the logbook into a file of its own while it is in use: whole, as it stood at one instant, its pictures in it.
 * @returns the file, which the caller removes, and the pictures that it has not got since they are gone or damaged
 */
export async function backUp(context: Context): Promise<{ path: string; leftOut: string[] }> {
  const path = besideLogbook(context, 'backup')
  try {
    await soundCopy(context, path)
    const copy = openBeside(path)
    try {
      return { path, leftOut: await packPictures(context.db, copy) }
    } finally {
      copy.close()
    }
  } catch (error) {
    forget(path)
    throw error
  }
}

/**
 * Copies the logbook to a path and looks the copy through to its last page: a copy that is not whole is worse than none.
 * @throws Damaged where it is not; the logbook is written to no more then
 */
export async function soundCopy(context: Context, path: string): Promise<void> {
  if (context.damaged) throw new Damaged(context.damaged)
  await context.db.backup(path)
  const facts = lookAtFile(path)
  if (facts?.integrity === 'ok' && facts.orphans === 0) return
  context.damaged = damagedWords(basename(context.db.name))
  throw new Damaged(context.damaged)
}

const refuseFile = (code: string, message: string): never => refuse('file', code, message)

/**
 * Looks at a file that is to become the logbook, and brings a copy's form up to date by opening it.
 * @throws InputError for what is no database, is damaged, is another program's, or is of a newer Dulse
 */
function checkBackup(path: string): void {
  const facts = readable(path)
  if (!facts) return refuseFile('not-backup-dulse', 'This is not a backup of Dulse: it is no SQLite database, or its head is damaged.')
  const { integrity, tables, mark, form, orphans } = facts
  if (integrity !== 'ok')
    refuseFile('file-damaged-some', 'This file is damaged: some of its pages do not hold together. Take an older backup.')
  if ((mark !== 0 && mark !== APPLICATION_ID) || form < 1 || TABLES.some(table => !tables.has(table)))
    refuseFile('database-but-not', 'This is a database, but not a logbook of Dulse.')
  if (form > migrations.length)
    refuseFile(
      'backup-written-by',
      `This backup was written by a newer Dulse (form ${form}, this one knows ${migrations.length}). Update Dulse first.`,
    )
  if (orphans > 0) refuseFile('file-damaged-refers', 'This file is damaged: it refers to rows that are gone. Take an older backup.')
}

function readable(path: string): FileFacts | undefined {
  try {
    return lookAtFile(path)
  } catch {
    return refuseFile('file-damaged-cannot', 'This file is damaged and cannot be read to its end. Take an older backup.')
  }
}

/**
 * Puts a backup in the logbook's place. It is checked and opened first, as a copy; what stood there before is kept
 * beside it under another name.
 * @throws InputError for a file that is not one; then the logbook is as it was
 */
export function restore(context: Context, path: string): Restored {
  const place = context.db.name
  checkBackup(path)
  // A whole opening, migrations and all, on a copy: what fails there has touched nothing.
  const trial = besideLogbook(context, 'trial')
  copyFileSync(path, trial)
  try {
    openLogbook(trial, context.now).db.close()
  } catch (error) {
    forget(trial)
    return refuseFile('backup-cannot-opened', `This backup cannot be opened: ${(error as Error).message}`)
  }
  const aside = place.replace(/\.sqlite$/, '') + `-before-restore-${new Date(context.now()).toISOString().replace(/[:.]/g, '-')}.sqlite`
  context.db.close()
  try {
    moveLogbook(place, aside)
    renameSync(trial, place)
    Object.assign(context, fresh(place, context))
  } catch (error) {
    // Back to what was: nothing may be lost to a disk that is full or a name that is taken.
    if (statSync(aside, { throwIfNoEntry: false })) moveLogbook(aside, place)
    Object.assign(context, fresh(place, context))
    throw error
  }
  context.damaged = undefined
  context.live.changed()
  return {
    batches: countOf(context.db, 'batch'),
    entries: countOf(context.db, 'entry'),
    aside: basename(aside),
    picturesMissing: missingPictures(context.db).length,
  }
}

/** Its write-ahead log goes along: somebody who still reads may have kept it from being folded in. */
function moveLogbook(from: string, to: string): void {
  for (const ending of ['-wal', '-shm', '']) if (statSync(from + ending, { throwIfNoEntry: false })) renameSync(from + ending, to + ending)
}

const fresh = (place: string, { now }: Context) => {
  const { db, foods } = openLogbook(place, now)
  return { db, foods }
}

/**
 * Undoes a restore that was cut off between its two renames: without this the next start would begin a new, empty logbook.
 * @returns what was done, in words; undefined where nothing was
 */
export function mendRestore(place: string): string | undefined {
  const folder = dirname(place)
  if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory()) return undefined
  const names = readdirSync(folder)
  const isThere = (path: string) => statSync(path, { throwIfNoEntry: false }) !== undefined
  const asides = names.filter(name => /^logbook-before-restore-.+\.sqlite$/.test(name)).sort()
  // Its write-ahead log had gone already, and it had not: what was acknowledged last stands in that.
  const lone = names.find(name => /^logbook-before-restore-.+\.sqlite-wal$/.test(name) && !names.includes(name.slice(0, -'-wal'.length)))
  if (isThere(place)) {
    if (!lone || isThere(`${place}-wal`)) return undefined
    const from = join(folder, lone.slice(0, -'-wal'.length))
    for (const ending of ['-shm', '-wal']) if (isThere(from + ending)) renameSync(from + ending, place + ending)
    return `A restore was cut off at its beginning: ${place} stands as it was before. Restore once more if you still want to.`
  }
  const newest = asides.at(-1)
  if (!newest || !names.some(name => /^trial-[0-9a-f-]{36}\.sqlite$/.test(name))) return undefined
  moveLogbook(join(folder, newest), place)
  return `A restore was cut off halfway: the logbook that stood before was put back as ${place}. Restore once more if you still want to.`
}

/** Copies that a power cut left half made, beside the logbook: nobody waits for them any more. */
export function sweepCopies({ db }: Context): void {
  const folder = dirname(db.name)
  for (const name of readdirSync(folder))
    if (/^(?:backup|incoming|trial)-[0-9a-f-]{36}\.sqlite/.test(name)) rmSync(join(folder, name), { force: true })
}

/** Removes a file with what SQLite may have put beside it. */
export function forget(path: string): void {
  for (const ending of ['', '-wal', '-shm', '-journal']) rmSync(path + ending, { force: true })
}
