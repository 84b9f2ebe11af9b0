import type { LiveEvent } from '#shared/contracts'

/** Server-sent events for open pages: readings as they come, and batches whose log has grown. */
export default defineEventHandler(event => {
  const stream = createEventStream(event)
  const stop = useLogbook().live.listen((news: LiveEvent) => void stream.push(JSON.stringify(news)))
  // A line now and then shows both ends that the other is there.
  const pulse = setInterval(() => void stream.push({ event: 'pulse', data: '' }), 20_000)
  stream.onClosed(() => {
    clearInterval(pulse)
    stop()
  })
  return stream.send()
})
