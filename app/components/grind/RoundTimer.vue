<script setup lang="ts">
import type { GrindPlan } from '#core/grinding'

/** The clock of a round: one tap anywhere starts it, and tones tell the rest. */
const props = defineProps<{ plan?: GrindPlan; lidS: number; round: number; rounds: number; hot: boolean }>()
const emit = defineEmits<{ done: [] }>()
const { phase, left, running, done, begun, tap, reset, phases } = useRound(toRef(props, 'plan'), toRef(props, 'lidS'))
watch(() => props.round, reset)
watch(done, is => {
  if (is) emit('done')
})
const WORDS = { run: 'Grind', rest: 'Let it cool', lid: 'Leave the lid on' } as const
const clock = computed(() => {
  const seconds = Math.ceil(left.value)
  return seconds >= 100 ? `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}` : String(seconds)
})
const title = computed(() =>
  done.value ? 'Open it' : phase.value ? WORDS[phase.value.kind] : begun.value ? 'Paused' : `Round ${props.round}`,
)
/** Said aloud where that is wished: eyes are on the cup. */
const aloud = useLocalStorage('dulse.voice', false)
const speaks = typeof window !== 'undefined' && 'speechSynthesis' in window
const said = computed(() => (done.value ? `Round ${props.round} is done. Open it.` : running.value ? title.value : ''))
watch(said, words => {
  if (!aloud.value || !speaks || words === '') return
  window.speechSynthesis.cancel()
  window.speechSynthesis.speak(new SpeechSynthesisUtterance(words))
})
onBeforeUnmount(() => {
  if (speaks) window.speechSynthesis.cancel()
})
const under = computed(() => {
  if (done.value) return `Turn your face away${props.hot ? '; mask and goggles on' : ''}. Empty the cup, brush it out.`
  if (!props.plan) return 'Say how much is to be ground: the bursts and rests follow from the cup and its power.'
  if (!phase.value)
    return `Fill the cup, close it, then tap here, or press Space. ${phases.value.filter(item => item.kind === 'run').length} bursts, then the lid.`
  if (phase.value.kind === 'run')
    return `Burst ${phase.value.number} of ${props.plan!.burstsPerRound}: ${phase.value.number === 1 ? 'pulse first' : 'go'}`
  return phase.value.kind === 'rest' ? 'Shake the cup, closed' : 'Fine dust is falling'
})
// With full hands: Space anywhere, unless it belongs to a field or a button.
function onSpace(event: KeyboardEvent) {
  const own = event.target instanceof Element && event.target.closest('input, textarea, button, a, label, [role=radio], [role=checkbox]')
  if (event.code !== 'Space' || own || !props.plan) return
  event.preventDefault()
  tap()
}
onMounted(() => window.addEventListener('keydown', onSpace))
onBeforeUnmount(() => window.removeEventListener('keydown', onSpace))
</script>

<template>
  <button
    type="button"
    class="timer"
    :class="[phase?.kind ?? (done ? 'open' : 'idle'), { paused: begun && !running && !done }]"
    :aria-label="running ? 'Pause the round' : 'Start the round'"
    :disabled="!plan"
    @click="tap"
  >
    <span class="of">Round {{ round }} of {{ rounds }}</span>
    <strong class="word">{{ title }}</strong>
    <span v-if="phase" class="left">{{ clock }}</span>
    <span class="under">{{ under }}</span>
    <span class="visually-hidden" role="status">{{ title }}</span>
  </button>
  <ElCheckbox v-if="speaks" v-model="aloud">Say the rounds aloud</ElCheckbox>
</template>

<style scoped>
.timer {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 0.3rem;
  width: 100%;
  min-height: 260px;
  padding: 1.2rem;
  border: 2px solid var(--rule);
  border-radius: 10px;
  background: var(--sunk);
  color: var(--ink);
  cursor: pointer;
  text-align: center;
}
.word {
  font: 700 2.4rem var(--display);
}
.left {
  font: 700 5rem/1 var(--display);
  font-variant-numeric: tabular-nums;
}
.of,
.under {
  color: var(--quiet);
}
/* The same dark green in both themes: white must be read on it from across the kitchen. */
.run {
  background: #4d6a39;
  border-color: #4d6a39;
  color: #fff;
}
.run .of,
.run .under {
  color: #fff;
}
.rest {
  background: var(--amber-wash);
  border-color: var(--amber-mark);
}
.lid {
  border-style: dashed;
  border-color: var(--brine);
}
.open {
  border-color: var(--kelp);
}
.paused {
  opacity: 0.75;
}
</style>
