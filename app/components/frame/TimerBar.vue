<script setup lang="ts">
/** Timers of steps that run, on every page. */
const { timers, rung, stop, tick } = useTimers()
const now = ref(Date.now())
let beat: ReturnType<typeof setInterval> | undefined
watch(
  () => timers.value.length,
  count => {
    clearInterval(beat)
    if (count === 0) return
    now.value = Date.now()
    beat = setInterval(() => {
      now.value = Date.now()
      tick(now.value)
    }, 1000)
  },
  { immediate: true },
)
onBeforeUnmount(() => clearInterval(beat))
function left(endsAt: number): string {
  const seconds = Math.max(0, Math.round((endsAt - now.value) / 1000))
  const two = (value: number) => String(value).padStart(2, '0')
  return seconds >= 3600
    ? `${Math.floor(seconds / 3600)}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`
    : `${Math.floor(seconds / 60)}:${two(seconds % 60)}`
}
</script>

<template>
  <div v-if="timers.length" class="timers" role="region" aria-label="Timers">
    <div v-for="timer in timers" :key="timer.key" class="timer" :class="{ due: rung.includes(timer.key) }">
      <span>{{ timer.words }}</span>
      <strong v-if="rung.includes(timer.key)" role="alert">time is up</strong>
      <strong v-else aria-hidden="true">{{ left(timer.endsAt) }}</strong>
      <button type="button" :aria-label="`Stop the timer: ${timer.words}`" @click="stop(timer.key)">
        {{ rung.includes(timer.key) ? 'Done' : 'Stop' }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.timers {
  position: fixed;
  right: 1rem;
  bottom: 1rem;
  z-index: 30;
  display: grid;
  gap: 0.4rem;
}
.timer {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  padding: 0.2rem 0.3rem 0.2rem 0.9rem;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--card);
}
.timer strong {
  font: 700 1.2rem var(--display);
  min-width: 4rem;
  text-align: right;
}
.due {
  background: var(--amber-wash);
  border-color: var(--amber-mark);
}
button {
  min-height: 44px;
  padding: 0 0.8rem;
  border: 0;
  border-radius: 8px;
  background: var(--sunk);
  font-weight: 650;
  cursor: pointer;
}
@media (width <= 760px) {
  .timers {
    left: 0.6rem;
    right: 0.6rem;
    bottom: 76px;
  }
  .timer {
    justify-content: space-between;
  }
}
</style>
