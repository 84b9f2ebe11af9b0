import { sweepCopies } from '#server/export/backup'
import { useLogbook } from '../utils/useLogbook'
import { watchFile } from '../utils/watchFile'

/** Opens and migrates before the first request: a logbook that cannot be opened stops the start. */
export default defineNitroPlugin(nitro => {
  const logbook = useLogbook()
  sweepCopies(logbook)
  const stop = watchFile(logbook)
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => logbook.live.end())
  nitro.hooks.hook('close', () => {
    stop()
    // A restore may have put another file in its place.
    logbook.db.close()
  })
})
