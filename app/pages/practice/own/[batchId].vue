<script setup lang="ts">
import type { Guess, Said } from '#core/practice'
import type { Entry } from '#core/log'
import type { BatchAnswer } from '#shared/contracts'
import { HOUR, MINUTE } from '#core/time'

/** One run of the logbook once more: the clock goes on, what was logged appears, and one says what one believes. */
const route = useRoute()
const batchId = String(route.params.batchId)
const format = useFormat()
const practice = usePracticeStore()
const { settings } = storeToRefs(useHouseholdStore())
const { answer, problem, ready } = useServer('batch', () => ({ params: { batchId } }))
await ready()
/** As it was when it was opened: what comes in meanwhile does not change a replay. */
const page = answer.value as BatchAnswer | undefined
const replay = page && replayOf(page)
useHead({ title: `${page?.food.name ?? 'A run'} once more · Dulse` })

const now = ref(replay?.from ?? 0)
const playing = ref(false)
const asking = ref(false)
const told = ref<{ at: number; guess?: Guess; dulse: Guess; truths: Said['truths'] }[]>([])
const LOOKS = ['weigh', 'feel', 'jarAir']
/** So much of the run goes by at a time: minutes, but for a run of days. */
const TICK_MS = 400
const stepMs = replay ? Math.max(5 * MINUTE, (replay.to - replay.from) / 150) : MINUTE
const seen = computed(() => replay?.events.filter(entry => entry.at <= now.value) ?? [])
const entries = computed<Entry[]>(() => [...(page?.entries.filter(entry => entry.at <= now.value) ?? [])])
const then = computed(() => replay?.thenAt(now.value))
const over = computed(() => replay !== undefined && now.value >= replay.to && !asking.value)
const last = computed(() => told.value.at(-1))
const showing = ref(false)

function go(to: number) {
  if (!replay || asking.value) return
  const next = replay.events.find(entry => LOOKS.includes(entry.body.kind) && entry.at > now.value && entry.at <= to)
  now.value = Math.min(replay.to, next?.at ?? to)
  showing.value = false
  if (next) {
    asking.value = true
    playing.value = false
  }
}
const nextEvent = () => go(replay?.events.find(entry => entry.at > now.value && LOOKS.includes(entry.body.kind))?.at ?? replay?.to ?? 0)
const { pause, resume } = useIntervalFn(
  () => {
    go(now.value + stepMs)
    if (over.value) playing.value = false
  },
  TICK_MS,
  { immediate: false },
)
watch(playing, on => (on ? resume() : pause()))

const dulseThen = (): Guess => {
  const { estimate, finish } = then.value!.assessment
  return {
    water: { low: estimate.moistureNow.p10, high: estimate.moistureNow.p90 },
    sure: estimate.probabilityDry,
    ...(Number.isFinite(finish.to) && {
      dryIn: { low: Math.max(0, (finish.from - now.value) / HOUR), high: Math.max(0, (finish.to - now.value) / HOUR) },
    }),
  }
}
function say(guess?: Guess) {
  const truths = replay!.truthAt(now.value)
  told.value = [...told.value, { at: now.value, guess, dulse: dulseThen(), truths }]
  if (guess) practice.keepSaid([{ at: Date.now(), of: batchId, guess, truths }])
  asking.value = false
  showing.value = true
}
const windowWords = (window: { low: number; high: number } | undefined) =>
  window ? `${format.share(window.low)} to ${format.share(window.high)}` : '–'
const held = (of: 'guess' | 'dulse') => {
  const list = told.value.flatMap(item => {
    const water = item[of]?.water
    return water ? [item.truths.water >= water.low && item.truths.water <= water.high] : []
  })
  return `${list.filter(Boolean).length} of ${list.length}`
}
const machine = computed(() => page?.machines.find(item => item.id === then.value?.state.run?.machineId))
const load = computed(() =>
  page && then.value && machine.value && !asking.value
    ? tryOfRun(page.food, then.value.state, entries.value, machine.value, now.value, settings.value)
    : undefined,
)
useKeys({
  p: () => {
    if (replay && !asking.value && !over.value) playing.value = !playing.value
  },
  '.': nextEvent,
})
</script>

<template>
  <section v-if="problem || !page || !replay" class="card stack">
    <h1>Nothing to go through</h1>
    <p>{{ problem ?? 'This batch has not left its machine, or was never weighed in it: there is nothing to guess at.' }}</p>
    <p><NuxtLink to="/practice/own">Your own runs</NuxtLink></p>
  </section>
  <div v-else class="stack">
    <header>
      <h1>{{ page.food.name }}, batch {{ page.number }}, once more</h1>
      <p class="quiet">
        Loaded {{ format.moment(replay.from, now) }} with {{ format.weight(then?.state.run?.loadedG ?? 0) }}. Dry is
        {{ format.share(replay.target) }} water. <NuxtLink to="/practice/own">Your own runs</NuxtLink>
      </p>
    </header>
    <div class="desk">
      <div class="stack">
        <section class="card stack" aria-label="The clock of the run">
          <p class="clock">
            <strong>{{ format.time(now) }}</strong>
            <span class="quiet">{{ format.day(now) }}, {{ format.hours((now - replay.from) / HOUR) }} since it was loaded</span>
          </p>
          <progress :value="now - replay.from" :max="replay.to - replay.from" aria-label="How far the run has gone" />
          <div class="row">
            <ElButton :disabled="asking || over" :aria-pressed="playing" @click="playing = !playing"
              ><component :is="playing ? IconPlayerPause : IconPlayerPlay" :size="20" aria-hidden="true" />{{
                playing ? 'Stop the clock' : 'Let it run'
              }}
              <kbd class="key">P</kbd></ElButton
            >
            <ElButton :disabled="asking || over" @click="nextEvent">To the next look <kbd class="key">.</kbd></ElButton>
          </div>
        </section>
        <LogList :entries="entries" :now="now" title="Logged until then" closed :way="then?.state.run?.way.way" />
      </div>
      <div class="stack">
        <GuessCard v-if="asking" :key="now" drying :target="replay.target" :busy="false" @say="say" @skip="say()" />
        <section v-else-if="showing && last" class="card stack" aria-label="What it was" role="status">
          <h2>It held {{ format.share(last.truths.water) }} water</h2>
          <p class="quiet">By all that was logged later too.</p>
          <table class="figures in-words">
            <thead>
              <tr>
                <th scope="col"><span class="visually-hidden">Of what</span></th>
                <th scope="col">You</th>
                <th scope="col">Dulse then</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">Water</th>
                <td>{{ windowWords(last.guess?.water) }}</td>
                <td>{{ windowWords(last.dulse.water) }}</td>
              </tr>
              <tr>
                <th scope="row">Dry now</th>
                <td>{{ last.guess?.sure === undefined ? '–' : format.share(last.guess.sure) }}</td>
                <td>{{ format.share(last.dulse.sure ?? 0) }}, and it was{{ last.truths.dry ? '' : ' not' }}</td>
              </tr>
              <tr>
                <th scope="row">Dry in</th>
                <td>{{ last.guess?.dryIn ? `${last.guess.dryIn.low} to ${last.guess.dryIn.high} h` : '–' }}</td>
                <td>
                  {{ last.dulse.dryIn ? `${format.hours(last.dulse.dryIn.low)} to ${format.hours(last.dulse.dryIn.high)}` : '–'
                  }}{{ last.truths.dryIn === undefined ? '' : `; it was ${format.hours(last.truths.dryIn)}` }}
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <section v-else class="card">
          <h3>{{ over ? 'That was it' : 'Dulse keeps still' }}</h3>
          <p class="quiet">
            {{ over ? `It came out ${format.moment(replay.to, now)}.` : 'At the next look you are asked what you believe.' }}
          </p>
        </section>
        <section v-if="told.length > 1" class="card" aria-label="So far">
          <p>Of the water: you {{ held('guess') }} windows held, Dulse {{ held('dulse') }}.</p>
        </section>
      </div>
    </div>
    <TryIt
      v-if="load && machine && seen.length > 0"
      :key="String(now)"
      :load="load"
      :machine-id="machine.id"
      :card-key="then!.state.card.key"
      :room="then!.state.run?.room"
      :start-at="now"
    />
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(300px, 1fr);
  gap: 1rem;
  align-items: start;
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
progress {
  width: 100%;
  height: 14px;
  accent-color: var(--dulse);
}
.row svg {
  margin-right: 0.35rem;
}
.row .el-button {
  margin: 0;
}
@media (width <= 900px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
