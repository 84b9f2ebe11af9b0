import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { NewBatch, NewEntry, NewJarEntry, NewRunEntry } from '#shared/contracts'
import { callServer, Refused } from '../utils/api'

/** One write on its way to the server. */
export interface Waiting {
  path: string
  body: NewEntry | NewRunEntry | NewJarEntry | NewBatch
  /** Batch whose page shows it meanwhile. */
  batchId: string
  /** What it is, in words, for the list of what waits. */
  words: string
}

/** A write that the server refused after the page had gone on. */
export interface RefusedWrite extends Waiting {
  refusal: Refused
}

/** One key a write, so that two open pages do not overwrite what the other keeps. */
const KEY = 'dulse.outbox.'
const RETRY_MS = 4000

/**
 * Everything written goes through here: first into the browser's own memory, then to the server, in
 * order. What does not arrive waits and is sent again; ids made here keep that harmless.
 */
export const useOutboxStore = defineStore('outbox', () => {
  const waiting = ref<Waiting[]>(remembered())
  const refused = shallowRef<RefusedWrite[]>([])
  const away = ref(false)
  let flushing: Promise<void> | undefined
  let timer: ReturnType<typeof setTimeout> | undefined

  /**
   * Sends, or keeps for later when the server is out of reach.
   * @returns whether it has arrived or waits
   * @throws Refused when the server says no; then it does not wait.
   */
  async function send(item: Waiting): Promise<'arrived' | 'waits'> {
    waiting.value.push(item)
    localStorage.setItem(KEY + item.body.id, JSON.stringify(item))
    await flush()
    // A flush that was under way may have ended before it saw this one.
    if (!away.value && isWaiting(item)) await flush()
    const no = refused.value.find(other => other.body.id === item.body.id)
    if (no) {
      dismiss(no)
      throw no.refusal
    }
    return isWaiting(item) ? 'waits' : 'arrived'
  }

  const isWaiting = (item: Waiting) => waiting.value.some(other => other.body.id === item.body.id)

  function remove(item: Waiting) {
    waiting.value = waiting.value.filter(other => other.body.id !== item.body.id)
    localStorage.removeItem(KEY + item.body.id)
  }

  /** Sends what waits, oldest first, until the server is away or nothing is left. */
  function flush(): Promise<void> {
    flushing ??= (async () => {
      while (waiting.value.length > 0) {
        const item = waiting.value[0]!
        try {
          await callServer(item.path, { method: 'POST', body: item.body })
          away.value = false
          remove(item)
        } catch (error) {
          if (error instanceof Refused) {
            away.value = false
            refused.value = [...refused.value, { ...item, refusal: error }]
            remove(item)
            continue
          }
          away.value = true
          later()
          return
        }
      }
    })().finally(() => {
      flushing = undefined
    })
    return flushing
  }

  function later() {
    clearTimeout(timer)
    timer = setTimeout(() => void flush(), RETRY_MS)
  }

  function dismiss(item: RefusedWrite) {
    refused.value = refused.value.filter(other => other.body.id !== item.body.id)
  }

  if (waiting.value.length > 0) void flush()

  return { waiting, refused, away, send, flush, dismiss }
})

/** What an earlier visit left, oldest first: the ids begin with their time. */
function remembered(): Waiting[] {
  return Object.keys(localStorage)
    .filter(key => key.startsWith(KEY))
    .sort()
    .flatMap(key => {
      try {
        return [JSON.parse(localStorage.getItem(key)!) as Waiting]
      } catch {
        return []
      }
    })
}
