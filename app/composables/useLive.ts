import type { LiveEvent } from '#shared/contracts'

/**
 * What the server tells while the caller's page is open: readings as they come, and batches whose log has
 * grown. The browser takes the line up again by itself when it was cut.
 */
export function useLive(hear: (event: LiveEvent) => void) {
  let source: EventSource | undefined
  onMounted(() => {
    source = new EventSource('/api/live')
    source.onmessage = message => hear(JSON.parse(message.data as string) as LiveEvent)
  })
  onBeforeUnmount(() => source?.close())
}
