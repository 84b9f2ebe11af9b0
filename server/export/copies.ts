import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, renameSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import type { Copy, CopyLoss } from '#shared/api'
import { DAY } from '#core/time'
import { openSnapshot } from '#server/db/file'
import type { Context } from '#server/services/context'
import { bringPictures, copyPictures } from '#server/pictures/store'
import { forget, soundCopy } from './backup'

/** So many of the newest days, weeks and months are kept. */
const KEPT = { days: 7, weeks: 5, months: 12 }
const NAME = /^logbook-(\d{4}-\d{2}-\d{2})\.sqlite$/

/** Where the copies lie: a folder of one's choice (`DULSE_COPIES`, best on another disk), or beside the logbook. */
const copiesFolder = ({ db }: Context) => process.env.DULSE_COPIES ?? join(dirname(db.name), 'copies')

/** Pictures lie once beside all copies: a picture never changes. */
const copiedPictures = (context: Context) => join(copiesFolder(context), 'pictures')
/** Brings back the pictures that lie beside the copies and are not here. */
export const bringCopiedPictures = (context: Context) => bringPictures(context.db, copiedPictures(context))

/** Whether they lie in a folder of one's choice. */
export const copiesApart = () => process.env.DULSE_COPIES !== undefined

/** Whether it is a day of the calendar: 2026-99-99 is none. */
function isDay(day: string | undefined): boolean {
  const at = Date.parse(day ?? '')
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(day!)
}

/** The copies that there are, newest first. */
export function listCopies(context: Context): Copy[] {
  const folder = copiesFolder(context)
  if (!existsSync(folder)) return []
  return (
    readdirSync(folder)
      // A file that somebody called after no day at all is none of ours.
      .filter(name => isDay(NAME.exec(name)?.[1]))
      .map(name => {
        const { mtimeMs, size } = statSync(join(folder, name))
        return { name, madeAt: Math.round(mtimeMs), bytes: size }
      })
      .sort((a, b) => b.name.localeCompare(a.name))
  )
}

/** The file of a copy by its name; undefined for one that is none of them. */
export function copyPath(context: Context, name: string): string | undefined {
  return listCopies(context).some(copy => copy.name === name) ? join(copiesFolder(context), name) : undefined
}

/**
 * Makes the copy of a day, whole and looked through to its last page, and lets go of those that are too many.
 * @throws what stands in the way: a folder that may not be written, a full disk, a logbook that is damaged
 */
export async function makeCopy(context: Context): Promise<Copy> {
  const folder = copiesFolder(context)
  mkdirSync(folder, { recursive: true })
  const name = `logbook-${new Date(context.now()).toISOString().slice(0, 10)}.sqlite`
  // Under another name until it is known to be good: a copy of the day that was good is not written over by one that is not.
  const trial = join(folder, `copying-${randomUUID()}.sqlite`)
  try {
    await soundCopy(context, trial)
    copyPictures(context.db, copiedPictures(context))
    renameSync(trial, join(folder, name))
  } finally {
    forget(trial)
  }
  for (const old of tooMany(listCopies(context))) forget(join(folder, old.name))
  return listCopies(context).find(copy => copy.name === name)!
}

/** Copies beyond the newest of each day, week and month that are kept. */
export function tooMany(copies: readonly Pick<Copy, 'name'>[]): Pick<Copy, 'name'>[] {
  const keep = new Set<string>()
  const days = [...copies].sort((a, b) => b.name.localeCompare(a.name))
  const newestOf = (period: (day: number) => string, most: number) => {
    const seen = new Set<string>()
    for (const { name } of days) {
      const key = period(Date.parse(NAME.exec(name)![1]!))
      if (seen.has(key) || seen.size >= most) continue
      seen.add(key)
      keep.add(name)
    }
  }
  newestOf(day => String(day), KEPT.days)
  // Weeks begin on Monday; the first of January 1970 was a Thursday.
  newestOf(day => String(Math.floor((day + 3 * DAY) / (7 * DAY))), KEPT.weeks)
  newestOf(day => new Date(day).toISOString().slice(0, 7), KEPT.months)
  return days.filter(({ name }) => !keep.has(name))
}

/** How often it is asked whether something was written. */
const LOOK_MS = 10 * 60_000

/**
 * Makes a copy each day on which something was written, some time after the first of it.
 * @param fail is told what stood in the way; it is tried again later
 * @returns stops it
 */
export function copyDaily(context: Context, fail: (error: unknown) => void): () => void {
  const look = async () => {
    if (context.busy || !context.db.open || context.damaged) return
    const last = listCopies(context)[0]
    const today = new Date(context.now()).toISOString().slice(0, 10)
    // What is written after the copy of a day goes into the next one's.
    if (last && (last.name >= `logbook-${today}.sqlite` || writtenAt(context) <= last.madeAt)) return
    await makeCopy(context)
  }
  const run = () => void look().catch(fail)
  const timer = setInterval(run, LOOK_MS)
  timer.unref()
  const soon = setTimeout(run, 30_000)
  soon.unref()
  return () => {
    clearInterval(timer)
    clearTimeout(soon)
  }
}

/** When the file, or the log of what is still to go into it, was written last. */
const writtenAt = ({ db: { name } }: Context) =>
  Math.max(...[name, `${name}-wal`].map(path => statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0))

/**
 * What putting a copy back would lose: entries that were written since, and batches that began since.
 * @param path of the copy
 */
export function lossOf({ db }: Context, path: string): CopyLoss {
  const copy = openSnapshot(path)
  try {
    const newest = copy.prepare('SELECT max(seq) AS seq, max(recorded_at) AS at FROM entry').get() as {
      seq: number | null
      at: number | null
    }
    const count = (sql: string) => (db.prepare(sql).get(newest.seq ?? 0) as { count: number }).count
    return {
      entries: count('SELECT count(*) AS count FROM entry WHERE seq > ?'),
      batches: count('SELECT count(DISTINCT batch_id) AS count FROM entry WHERE seq > ?'),
      lastAt: newest.at,
    }
  } finally {
    copy.close()
  }
}
