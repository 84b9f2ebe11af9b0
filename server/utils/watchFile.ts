import type { Context } from '#server/services/context'

/** How often the file is looked at: a page is to show within two seconds what another program wrote. */
const LOOK_MS = 250

/**
 * Tells open pages when another connection has written the logbook: an import's, or another program's.
 * @returns stops the looking
 */
export function watchFile(context: Context): () => void {
  let db = context.db
  let seen = versionOf(context)
  const timer = setInterval(() => {
    if (context.busy || !context.db.open) return
    const now = versionOf(context)
    // A restored file counts anew; that it was restored was told already.
    if (db === context.db && now !== seen) context.live.changed()
    db = context.db
    seen = now
  }, LOOK_MS)
  timer.unref()
  return () => clearInterval(timer)
}

/** Grows when another connection has changed the file; one's own writes do not count. */
const versionOf = ({ db }: Context) => db.pragma('data_version', { simple: true })
