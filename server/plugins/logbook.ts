import { useLogbook } from '../utils/useLogbook'

/** Opens and migrates before the first request: a logbook that cannot be opened stops the start. */
export default defineNitroPlugin((nitro) => {
  const { db } = useLogbook()
  nitro.hooks.hook('close', () => {
    db.close()
  })
})
