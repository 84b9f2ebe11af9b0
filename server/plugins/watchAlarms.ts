import { watchAlarms } from '#server/alarms/watch'

/** Tells what is due, by the ways that the household chose. */
export default defineNitroPlugin(nitro => {
  const stop = watchAlarms(useLogbook(), useAlarmBook(), addressForOthers)
  nitro.hooks.hook('close', () => {
    stop()
    useAlarmBook().close()
  })
})
