import { playTones } from '~/utils/tones'
import { MINUTE } from '#core/time'

/** A timer that runs: for which step of which batch, and when it rings. */
export interface RunningTimer {
  key: string
  words: string
  endsAt: number
}

/**
 * Timers of steps. They are kept in the browser and ring on whatever page is open: a tone, and words in a
 * live region. They only tell: dry is when it is dry.
 */
export const useTimers = createSharedComposable(() => {
  const timers = useLocalStorage<RunningTimer[]>('dulse.timers', [])
  const rung = ref<string[]>([])
  function stop(key: string) {
    timers.value = timers.value.filter(timer => timer.key !== key)
    rung.value = rung.value.filter(item => item !== key)
  }
  function start(key: string, words: string, minutes: number) {
    stop(key)
    timers.value = [...timers.value, { key, words, endsAt: Date.now() + minutes * MINUTE }]
  }
  /** Rings what is due; called once a second by the frame. */
  function tick(now: number) {
    for (const timer of timers.value.filter(item => item.endsAt <= now && !rung.value.includes(item.key))) {
      rung.value = [...rung.value, timer.key]
      playTones([660, 880, 660])
    }
  }
  return { timers, rung, start, stop, tick }
})
