import { basename } from 'node:path'
import { DAY, HOUR } from '#core/time'
import { damagedWords } from '#server/db/opening'
import type { Context } from './context'

/** A table of the file at a time, so that others are served between. */
const BETWEEN_MS = 20
/** A small file is looked through at once. */
const SOON_MS = 2000

/**
 * Looks the file through, table by table with its indexes; what does not hold together makes the logbook one that is read only.
 * @returns whether it is sound; undefined where it could not be looked at
 */
export async function lookThrough(context: Context): Promise<boolean | undefined> {
  const { db } = context
  const damaged = () => {
    context.damaged = damagedWords(basename(db.name))
    return false
  }
  const tables = tablesOf(context)
  if (!tables) return damaged()
  for (const table of tables) {
    // Restored meanwhile: it is another file.
    if (context.db !== db || !db.open) return undefined
    if (!isSound(context, table)) return damaged()
    await new Promise(resolve => setTimeout(resolve, BETWEEN_MS))
  }
  return true
}

const isCorrupt = (error: unknown) => /^SQLITE_(?:CORRUPT|NOTADB)/.test((error as { code?: string }).code ?? '')

/** Names of its tables; undefined where not even those can be read. */
function tablesOf({ db }: Context): string[] | undefined {
  try {
    const rows = db.prepare("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'").all() as { name: string }[]
    return rows.map(row => row.name)
  } catch (error) {
    if (isCorrupt(error)) return undefined
    throw error
  }
}

function isSound({ db }: Context, table: string): boolean {
  try {
    return db.pragma(`integrity_check("${table}")`, { simple: true }) === 'ok'
  } catch (error) {
    if (isCorrupt(error)) return false
    throw error
  }
}

/** Looks it through soon after the start, and once a day. */
export function watchHealth(context: Context): () => void {
  let lookedAt = 0
  const look = () => {
    if (context.busy || !context.db.open || context.damaged || Date.now() - lookedAt < DAY) return
    lookedAt = Date.now()
    void lookThrough(context).catch((error: unknown) => console.error(error))
  }
  const soon = setTimeout(look, SOON_MS)
  const timer = setInterval(look, HOUR)
  soon.unref()
  timer.unref()
  return () => {
    clearTimeout(soon)
    clearInterval(timer)
  }
}
