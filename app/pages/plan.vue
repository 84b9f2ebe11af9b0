<script setup lang="ts">
import type { PlannedRun } from '#core/plan'

/** What to cut when, and where it goes: baskets in hand, the places that are free, the nights. */
useHead({ title: 'Plan · Dulse' })
const format = useFormat()
const { now } = useClock()
const handsHours = useLocalStorage<number | undefined>('dulse.plan.hands', 3)
const {
  answer,
  problem: lost,
  ready,
} = useServer('plan', () => ({ query: { handsMinutes: String(Math.round(60 * (handsHours.value ?? 3))) } }) as never)
await ready()
// What is shown again unchanged is not planned anew.
const problem = computed(() => answer.value?.problem)
const { plan, worth, refused, looking, stop } = usePlan(() => problem.value)
const chosen = ref<string>()
const basket = (id: string) => problem.value?.baskets.find(item => item.id === id)
const machine = (id: string) => problem.value?.machines.find(item => item.id === id)?.name ?? ''
const WHY = {
  'no-option': 'no machine here takes it in one load',
  'no-place': 'no machine has the places before it spoils',
  'too-late': 'no hour is left in which somebody is up before it spoils',
  'no-hands': 'the hands of these days are used up',
} as const
const batchOf = (run: Pick<PlannedRun, 'basketId'>) => run.basketId.split('#')[0]!
const days = computed(() => {
  const found = new Map<string, PlannedRun[]>()
  for (const run of [...(plan.value?.runs ?? [])].sort((a, b) => a.prepareAt - b.prepareAt)) {
    const day = format.day(run.prepareAt)
    found.set(day, [...(found.get(day) ?? []), run])
  }
  return [...found]
})
const lead = computed(() => {
  if (!worth.value || !plan.value) return 'Looking'
  const loads = plural(plan.value.runs.length, 'load')
  const wakings = worth.value.wakings === 0 ? 'nobody is woken' : `${plural(worth.value.wakings, 'end')} at night`
  return `${loads}, ${wakings}`
})
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Plan</h1>
      <p v-if="plan?.runs.length" class="quiet" role="status">{{ looking ? 'Looking for a better one' : 'The best that was found' }}</p>
    </header>
    <p v-if="lost" class="card problem">{{ lost }}</p>
    <p v-if="refused" class="card problem" role="alert">{{ refused }}</p>
    <section v-if="problem && problem.baskets.length === 0" class="card stack">
      <h2>No basket waits</h2>
      <p>
        What came in and is in no machine yet is planned here: what to cut when, and where it goes, so that nothing spoils and nobody is
        woken.
      </p>
      <div class="row"><ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton></div>
    </section>
    <template v-else-if="problem && plan && worth">
      <section class="card stack" aria-label="The plan">
        <div class="row between">
          <h2>{{ lead }}</h2>
          <ElButton v-if="looking" @click="stop">That will do</ElButton>
        </div>
        <p v-for="item in plan.lost" :key="item.basketId" class="caution">
          <strong>{{ basket(item.basketId)?.title }}, {{ format.weight(item.weightG) }}, finds no place:</strong> {{ WHY[item.why] }}. The
          freezer, a thinner cut or another machine would save it.
        </p>
        <dl class="sums">
          <div>
            <dt>Hands</dt>
            <dd>{{ format.hours(worth.handsMinutes / 60) }}</dd>
          </div>
          <div>
            <dt>Power</dt>
            <dd>{{ worth.kWh.toFixed(1) }} kWh</dd>
          </div>
          <div>
            <dt>All out</dt>
            <dd>{{ plan.runs.length ? format.moment(Math.max(...plan.runs.map(run => run.ends.p90)), now) : 'nothing goes in' }}</dd>
          </div>
        </dl>
        <div class="hands">
          <NumberField v-model="handsHours" label="Hours for preparing, a day" :least="0" :most="24" :decimals="1" bare />
        </div>
        <PlanBoard v-model:chosen="chosen" :problem="problem" :plan="plan" :now="now" />
      </section>
      <section v-for="[day, runs] in days" :key="day" class="card" :aria-label="day">
        <h2>{{ day }}</h2>
        <ul class="plain-list">
          <li v-for="run in runs" :key="run.basketId" class="item" :class="{ on: chosen === run.basketId }">
            <div>
              <strong>{{ basket(run.basketId)?.title }}</strong>
              <p>
                Ready it from {{ format.time(run.prepareAt) }}, into the {{ machine(run.machineId) }} at {{ format.time(run.startAt) }} on
                {{ plural(run.places, 'tray') }}.
              </p>
              <p class="quiet small">
                Out {{ format.window(run.ends.p10, run.ends.p90, now) }} in 8 of 10 cases; it keeps until
                {{ format.moment(basket(run.basketId)!.keepsUntil, now) }}.
              </p>
            </div>
            <ElButton :aria-label="`Open: ${basket(run.basketId)?.title}`" @click="navigateTo(`/batches/${batchOf(run)}`)">Open</ElButton>
          </li>
        </ul>
      </section>
    </template>
    <p v-else-if="problem && !refused" class="card quiet" aria-busy="true">Planning.</p>
  </div>
</template>

<style scoped>
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 2rem;
  margin: 0;
}
.sums div {
  display: flex;
  gap: 0.5rem;
}
.sums dt {
  color: var(--quiet);
}
.sums dd {
  margin: 0;
  font-weight: 700;
}
.hands {
  max-width: 16rem;
}
.item {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  align-items: center;
  padding: 0.6rem 0;
  border-top: 1px solid var(--rule);
}
.item:first-child {
  border: 0;
}
.item.on {
  background: var(--sunk);
  border-radius: 8px;
  padding-inline: 0.6rem;
}
</style>
