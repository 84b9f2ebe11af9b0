<script setup lang="ts">
import type { RackAnswer } from '#shared/contracts'
import { DAY, MINUTE } from '#core/time'
import { dueAt, isAsleep } from '#core/planning'

/**
 * For an old tablet on the counter: machines with what is left, the next thing, the running timer; to be read from three metres, dim at
 * night, the screen kept awake where the browser may.
 */
definePageMeta({ layout: 'door' })
useHead({ title: 'Counter · Dulse' })
// Light or dim as everywhere else.
useTheme()
const { choice: alarms } = usePageAlarms()
const { now } = useClock()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { answer, problem, ready, load } = useServer('now')
await ready()
useIntervalFn(load, MINUTE)

const { isSupported, isActive, request, release } = useWakeLock()
onMounted(() => {
  if (isSupported.value) void request('screen').catch(() => undefined)
})
onBeforeUnmount(() => void release())

const night = computed(() => isAsleep(now.value, settings.value))
const busy = computed(() => (answer.value?.racks ?? []).filter(rack => rack.finishes.length > 0))
const free = computed(() => (answer.value?.racks ?? []).filter(rack => rack.finishes.length === 0).map(rack => rack.machine.name))
const next = computed(
  () =>
    [...(answer.value?.todos ?? [])]
      .filter(todo => todo.kind !== 'dry' && (todo.to ?? todo.from) > now.value - 2 * DAY)
      .sort((a, b) => dueAt(a, now.value) - dueAt(b, now.value))[0],
)
const weighs = (rack: RackAnswer) => rack.finishes[0] && `/batches/${rack.finishes[0].batchId}?act=weigh`
</script>

<template>
  <main class="counter" :class="{ night }">
    <header>
      <h1>{{ format.time(now) }}</h1>
      <p>{{ format.day(now) }}</p>
      <NuxtLink to="/" class="leave">Leave</NuxtLink>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <section class="next" aria-label="The next thing" aria-live="polite">
      <template v-if="next">
        <p class="when">{{ next.from <= now ? 'now' : format.moment(next.from, now) }}</p>
        <h2>{{ next.title }}</h2>
        <p>{{ next.batchTitle }}</p>
      </template>
      <h2 v-else>Nothing to do now</h2>
    </section>
    <LazyAlarmBell v-if="alarms.on" />
    <TimerBar />
    <ul class="plain-list racks" aria-label="Machines">
      <li v-for="rack in busy" :key="rack.machine.id" class="rack">
        <div>
          <h2>{{ rack.machine.name }}</h2>
          <p>{{ [...new Set(rack.finishes.map(finish => finish.title))].join(', ') }}</p>
        </div>
        <p class="left">{{ leftWords(rack, now) }}</p>
        <NuxtLink class="el-button touch" :to="weighs(rack)"
          >Weigh<span class="visually-hidden">: {{ rack.machine.name }}</span></NuxtLink
        >
      </li>
    </ul>
    <p v-if="free.length > 0" class="free">Free: {{ free.join(', ') }}</p>
    <p class="free">{{ isActive ? 'This screen stays awake.' : 'This browser may let the screen sleep.' }}</p>
  </main>
</template>

<style scoped>
.counter {
  display: grid;
  gap: 1.2rem;
  padding: 1.2rem;
  max-width: 1280px;
  width: 100%;
  margin: 0 auto;
  font-size: 1.5rem;
}
header {
  display: flex;
  align-items: baseline;
  gap: 1.2rem;
}
h1 {
  font-size: clamp(3rem, 9vw, 6rem);
  line-height: 1;
}
h2 {
  font-size: clamp(1.6rem, 4vw, 2.6rem);
}
.leave {
  margin-left: auto;
  min-height: 44px;
  font-size: 1rem;
}
.next {
  padding: 1rem 1.3rem;
  border-radius: 14px;
  background: var(--amber-wash);
}
.when {
  font-weight: 750;
  color: var(--amber);
}
.racks {
  display: grid;
  gap: 0.8rem;
}
.rack {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 1.2rem;
  align-items: center;
  padding: 0.8rem 1.3rem;
  border-radius: 14px;
  background: var(--card);
  border: 1px solid var(--rule);
}
.left {
  font: 750 clamp(2rem, 6vw, 3.6rem) var(--display);
  white-space: nowrap;
}
.touch.el-button {
  min-height: 72px;
  min-width: 120px;
  font-size: 1.3rem;
}
.free {
  color: var(--quiet);
  font-size: 1.1rem;
}
/* Dim: dark ground, a quiet voice; whatever theme the page has else. */
.night {
  --paper: #14110e;
  --card: #1d1915;
  --ink: #c9b79c;
  --quiet: #93836c;
  --rule: #3a3229;
  --amber: #d0933f;
  --amber-wash: #2a2116;
  min-height: 100dvh;
  max-width: none;
  background: var(--paper);
  color: var(--ink);
}
@media (width <= 760px) {
  .rack {
    grid-template-columns: 1fr auto;
  }
  .touch.el-button {
    grid-column: 1 / -1;
  }
}
</style>
