import { dirname } from 'node:path'
import { migrations } from '#migrations'
import { holdFolder } from '#server/db/hold'
import { CannotOpen, damagedWords, lookBeforeOpening } from '#server/db/opening'
import { mendRestore, sweepCopies } from '#server/export/backup'
import { copyDaily } from '#server/export/copies'
import { watchHealth } from '#server/services/health'
import { logbookPath, useLogbook } from '../utils/useLogbook'
import { watchFile } from '../utils/watchFile'

/** Opens and migrates before the first request: a logbook that cannot be opened stops the start, in words. */
export default defineNitroPlugin(nitro => {
  const path = logbookPath()
  const opened = orEnd(() => {
    const mended = mendRestore(path)
    if (mended) console.error(mended)
    lookBeforeOpening(path, migrations.length)
    // While developing, one turn of the server follows the other before that has let go.
    const letGo = import.meta.dev ? () => {} : holdFolder(dirname(path), { pid: process.pid, address: addressOf(), since: Date.now() })
    return { letGo, logbook: useLogbook() }
  })
  const { logbook } = opened
  sweepCopies(logbook)
  const stops = [watchFile(logbook), watchHealth(logbook), copyDaily(logbook, error => console.error('No copy was made:', error))]
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => logbook.live.end())
  nitro.hooks.hook('close', () => {
    for (const stop of stops) stop()
    // A restore may have put another file in its place.
    logbook.db.close()
    opened.letGo()
  })
})

const addressOf = () =>
  `http://${process.env.NITRO_HOST ?? process.env.HOST ?? '127.0.0.1'}:${process.env.NITRO_PORT ?? process.env.PORT ?? 3000}`

/** What whoever started it can mend is said in a sentence, without the places in the code. */
function orEnd<Opened>(open: () => Opened): Opened {
  try {
    return open()
  } catch (error) {
    const { code = '' } = error as { code?: string }
    if (error instanceof CannotOpen) console.error(error.message)
    else if (/^SQLITE_(?:CORRUPT|NOTADB)/.test(code)) console.error(damagedWords(logbookPath()))
    else if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC')
      console.error(`The disk of ${logbookPath()} is full: make room and start again.`)
    else console.error(error)
    process.exit(1)
  }
}
