import { useQueryCache } from '@pinia/colada'
import { createEventHook, useDebounceFn, useDocumentVisibility, useEventSource } from '@vueuse/core'
import type { Changed, LiveEvent } from '#shared/contracts'
import { signedOut } from './call'
import { useOutboxStore } from './outbox'
import { useProvision } from './provision'
import { firstAnswers } from './firstAnswers'
import { isTouched } from './touched'

type Readings = Extract<LiveEvent, { kind: 'readings' }>['readings']
// In an object: a list of its own would be taken for the hook's arguments.
const readings = createEventHook<{ readings: Readings }>()

/** What devices read, as it comes, while the caller's component stands. */
export const onReadings = (hear: (readings: Readings) => void) => readings.on(told => hear(told.readings))

/** So soon a page follows what others write; what comes in between is asked for once. */
const FOLLOW_MS = 120

/**
 * Keeps every open page true: what the server says was written, by another page, device, import, restore or script, makes
 * all that is on screen be asked for again, and so does a line or a tab that comes back. Called once, by the application.
 */
export function followServer(): void {
  const cache = useQueryCache()
  // What was heard since the pages were last asked for.
  let heard: { event: Changed; missed: boolean }[] = []
  const again = useDebounceFn(
    () => {
      const words = heard
      heard = []
      const predicate = ({ key }: { key: readonly unknown[] }) => words.some(({ event, missed }) => isTouched(key, event, missed))
      // Each question keeps its own failure, and says it where its answer would stand.
      void cache.invalidateQueries({ predicate }).catch(() => undefined)
    },
    FOLLOW_MS,
    { maxWait: 1000 },
  )
  const provisionSoon = useProvision()
  provisionSoon()
  const visibility = useDocumentVisibility()
  const line = useEventSource('/api/live', [], { immediate: false, autoReconnect: { delay: 1000 } })
  // A browser allows few lines to one server: a tab that nobody sees lets its own go.
  watch(
    visibility,
    seen => {
      if (seen === 'hidden') return line.close()
      line.open()
    },
    { immediate: true },
  )
  watch(signedOut, out => out && line.close())
  // Without a line nobody tells of what one writes oneself.
  const outbox = useOutboxStore()
  watch(
    () => outbox.arrived,
    () => {
      if (line.status.value === 'OPEN') return
      heard.push({ event: { kind: 'changed', turn: Infinity }, missed: true })
      void again()
    },
  )
  // Of what turn of the log the page is. A line that opens, for the first time or again, says where the log stands: what
  // happened before, or while it was cut, was told to nobody.
  let turn = firstAnswers()?.turn
  watch(
    line.data,
    text => {
      if (!text) return
      const event = JSON.parse(text) as LiveEvent
      if (event.kind === 'readings') return void readings.trigger({ readings: event.readings })
      if (event.turn !== turn) {
        heard.push({ event, missed: event.since !== turn })
        void again()
      }
      provisionSoon()
      turn = event.turn
    },
    { flush: 'sync' },
  )
}
