import type { GrindPlan } from '#core/grinding'
import { playTones } from '~/utils/tones'

export type PhaseKind = 'run' | 'rest' | 'lid'
/** A stretch of a round: the grinder runs, it cools, or the dust falls behind the closed lid. */
export interface Phase {
  kind: PhaseKind
  seconds: number
  number: number
}

const START = [880, 1180]
const STOP = [520]
const OPEN = [660, 880, 1100]

/**
 * The clock of one round in the cup: bursts and rests one after the other, then the lid. It goes on by
 * itself and tells by ear what to do, so that a tap with the elbow starts it and nothing else is needed.
 */
export function useRound(plan: Ref<Pick<GrindPlan, 'burstS' | 'restS' | 'burstsPerRound'> | undefined>, lidS: Ref<number>) {
  const phases = computed<Phase[]>(() => {
    if (!plan.value) return []
    const { burstS, restS, burstsPerRound } = plan.value
    const bursts = Array.from({ length: burstsPerRound }, (_, i): Phase[] => [
      { kind: 'run', seconds: burstS, number: i + 1 },
      ...(i + 1 < burstsPerRound ? [{ kind: 'rest' as const, seconds: restS, number: i + 1 }] : []),
    ]).flat()
    return [...bursts, { kind: 'lid', seconds: lidS.value, number: 1 }]
  })
  const startedAt = ref<number>()
  const pausedAt = ref<number>()
  const now = ref(0)
  let beat: ReturnType<typeof setInterval> | undefined
  let told = -1

  const elapsed = computed(() =>
    startedAt.value === undefined ? 0 : Math.max(0, ((pausedAt.value ?? now.value) - startedAt.value) / 1000),
  )
  /** Which phase it is in; past the last one the lid may be opened. */
  const at = computed(() => {
    let end = 0
    const index = phases.value.findIndex(({ seconds }) => (end += seconds) > elapsed.value)
    return index < 0 ? { index: phases.value.length, left: 0 } : { index, left: end - elapsed.value }
  })
  const running = computed(() => startedAt.value !== undefined && pausedAt.value === undefined && at.value.index < phases.value.length)
  const done = computed(() => startedAt.value !== undefined && phases.value.length > 0 && at.value.index >= phases.value.length)
  const phase = computed(() => (startedAt.value === undefined ? undefined : phases.value[at.value.index]))

  function step() {
    now.value = Date.now()
    if (at.value.index === told) return
    told = at.value.index
    const kind = phases.value[told]?.kind
    playTones(kind === undefined ? OPEN : kind === 'run' ? START : STOP)
    if (kind === undefined) stopBeat()
  }
  function stopBeat() {
    clearInterval(beat)
    beat = undefined
  }
  function go() {
    now.value = Date.now()
    if (startedAt.value === undefined || done.value) {
      startedAt.value = now.value
      told = -1
    } else if (pausedAt.value !== undefined) startedAt.value += now.value - pausedAt.value
    pausedAt.value = undefined
    stopBeat()
    beat = setInterval(step, 200)
    step()
  }
  function pause() {
    pausedAt.value = Date.now()
    stopBeat()
  }
  function reset() {
    stopBeat()
    startedAt.value = undefined
    pausedAt.value = undefined
    told = -1
  }
  /** One tap does the next thing. */
  const tap = () => (running.value ? pause() : go())
  onBeforeUnmount(stopBeat)
  return {
    phases,
    phase,
    left: computed(() => at.value.left),
    running,
    done,
    begun: computed(() => startedAt.value !== undefined),
    tap,
    reset,
  }
}
