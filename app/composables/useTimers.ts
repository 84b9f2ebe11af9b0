import { playTones } from '~/utils/tones'

/** A timer that runs: for which step of which batch, and when it rings. */
export interface RunningTimer {
  key: string
  words: string
  endsAt: number
}

const STORE = 'dulse.timers'
const timers = ref<RunningTimer[]>([])
const rung = ref<string[]>([])
let read = false

/**
 * Timers of steps. They are kept in the browser and ring on whatever page is open: a tone, and words in a
 * live region. They only tell: dry is when it is dry.
 */
export function useTimers() {
  if (!read) {
    read = true
    try {
      timers.value = JSON.parse(localStorage.getItem(STORE) ?? '[]') as RunningTimer[]
    } catch {
      timers.value = []
    }
  }
  const save = () => localStorage.setItem(STORE, JSON.stringify(timers.value))
  function start(key: string, words: string, minutes: number) {
    timers.value = [...timers.value.filter(timer => timer.key !== key), { key, words, endsAt: Date.now() + minutes * 60_000 }]
    rung.value = rung.value.filter(item => item !== key)
    save()
  }
  function stop(key: string) {
    timers.value = timers.value.filter(timer => timer.key !== key)
    rung.value = rung.value.filter(item => item !== key)
    save()
  }
  /** Rings what is due; called once a second by the frame. */
  function tick(now: number) {
    for (const timer of timers.value.filter(item => item.endsAt <= now && !rung.value.includes(item.key))) {
      rung.value = [...rung.value, timer.key]
      playTones([660, 880, 660])
    }
  }
  return { timers, rung, start, stop, tick }
}
