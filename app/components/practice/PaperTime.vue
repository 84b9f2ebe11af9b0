<script setup lang="ts">
import type { PaperView } from '~/workers/practice.worker'

/** The story's clock: time is let go by in pieces, or runs, an hour in a few seconds. It stops by itself at bedtime. */
const props = defineProps<{
  view: PaperView
  now: number
  sleep: { from: number; to: number }
  busy: boolean
  pass: (hours: number) => Promise<unknown>
}>()
const format = useFormat()
/** A quarter of an hour at a time, so often, ms: an hour takes three seconds. */
const TICK_MS = 750
const TICK_H = 0.25
const playing = ref(false)
const slow = usePreferredReducedMotion()
let timer: ReturnType<typeof setTimeout> | undefined
async function tick() {
  const before = props.view.asleep
  await props.pass(TICK_H)
  if (props.view.stage === 'ended' || (!before && bedtime.value)) playing.value = false
  if (playing.value) timer = setTimeout(tick, TICK_MS)
}
function turn() {
  playing.value = !playing.value
  clearTimeout(timer)
  if (playing.value) void tick()
}
onBeforeUnmount(() => {
  playing.value = false
  clearTimeout(timer)
})
/** The next quarter of an hour is the night's. */
const bedtime = computed(() => {
  const left = (props.sleep.from - props.view.clock + 24) % 24
  return !props.view.asleep && left <= TICK_H
})
const toMorning = computed(() => (props.sleep.to - props.view.clock + 24) % 24 || 24)
const resting = computed(() => ['jar', 'out', 'packed'].includes(props.view.stage))
async function go(hours: number) {
  playing.value = false
  clearTimeout(timer)
  await props.pass(hours)
}
const share = (hours: number) => `${((((hours % 24) + 24) % 24) / 24) * 100}%`
defineExpose({ bedtime, turn, quarter: () => go(TICK_H), hour: () => go(1) })
</script>

<template>
  <section class="card time" aria-label="The clock of the story">
    <p class="clock">
      <strong>{{ format.time(now) }}</strong>
      <span class="quiet">{{ format.day(now) }}, {{ format.hours(view.hours) }} since it began</span>
    </p>
    <div class="day" aria-hidden="true">
      <template v-if="sleep.from > sleep.to">
        <span class="night" :style="{ left: 0, width: share(sleep.to) }" /><span
          class="night"
          :style="{ left: share(sleep.from), right: 0 }"
        />
      </template>
      <span v-else class="night" :style="{ left: share(sleep.from), width: share(sleep.to - sleep.from) }" />
      <span class="hand" :class="{ glides: playing && slow !== 'reduce' }" :style="{ left: share(view.clock) }" />
    </div>
    <p v-if="view.asleep" class="caution">It is night, and people sleep: whatever is done now wakes you.</p>
    <div class="row">
      <ElButton :disabled="busy && !playing" class="play" :aria-pressed="playing" @click="turn">
        <component :is="playing ? IconPlayerPause : IconPlayerPlay" :size="20" aria-hidden="true" />{{
          playing ? 'Stop the clock' : 'Let it run'
        }}
        <kbd class="key">P</kbd></ElButton
      >
      <ElButton :disabled="busy" @click="go(0.25)">15 min <kbd class="key">,</kbd></ElButton>
      <ElButton :disabled="busy" @click="go(1)">1 h <kbd class="key">.</kbd></ElButton>
      <ElButton v-if="resting" :disabled="busy" @click="go(24)">A day</ElButton>
      <ElButton :disabled="busy" @click="go(toMorning)"><IconSunrise :size="20" aria-hidden="true" />To the morning</ElButton>
    </div>
  </section>
</template>

<style scoped>
.time {
  display: grid;
  gap: 0.6rem;
}
.clock {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  align-items: baseline;
}
.clock strong {
  font: 700 2.1rem/1 var(--display);
}
.day {
  position: relative;
  height: 14px;
  border-radius: 7px;
  background: color-mix(in oklab, var(--straw) 60%, var(--card));
  overflow: hidden;
}
.night {
  position: absolute;
  inset-block: 0;
  background: var(--ink);
  opacity: 0.75;
}
.hand {
  position: absolute;
  inset-block: 0;
  width: 4px;
  margin-left: -2px;
  background: var(--dulse);
}
.hand.glides {
  transition: left 750ms linear;
}
.row .el-button {
  margin: 0;
}
.row svg {
  margin-right: 0.35rem;
}
</style>
