<script setup lang="ts">
/** Finished runs of a food side by side. */
const route = useRoute()
const format = useFormat()
useHead({ title: 'Runs side by side · Dulse' })
const foods = useFoods()
await foods.load()
/** The food that was dried most: there is something to be seen of it. */
async function foodWithRuns(): Promise<string | undefined> {
  const { groups } = await call('insight', { query: { by: 'food' } }).catch(() => ({ groups: [] }))
  return groups[0]?.key
}
const foodKey = ref(
  typeof route.query.food === 'string' && foods.list.some(item => item.key === route.query.food)
    ? route.query.food
    : ((await foodWithRuns()) ?? foods.list[0]?.key ?? ''),
)
const cardKey = ref(typeof route.query.card === 'string' ? route.query.card : '')
const chosen = ref<string | undefined>(typeof route.query.batch === 'string' ? route.query.batch : undefined)
const chart = ref<{ picture: () => string | undefined }>()
const food = computed(() => foods.list.find(item => item.key === foodKey.value))
const cards = computed(() => [
  { value: '', words: 'All cuts' },
  ...(food.value?.cards ?? []).map(card => ({ value: card.key, words: card.name })),
])
watch(foodKey, () => {
  cardKey.value = ''
})
const { answer, problem } = useServer('compare', () => ({ query: { food: foodKey.value, card: cardKey.value || undefined } }))
const asked = computed(() => answer.value !== undefined || problem.value !== '')
const runs = computed(() => answer.value ?? [])
const middle = computed(() => {
  const hours = runs.value
    .map(run => run.hoursToTarget.p50)
    .filter(Number.isFinite)
    .sort((a, b) => a - b)
  return hours.length < 2 ? undefined : { low: hours[0]!, high: hours.at(-1)!, middle: hours[Math.floor(hours.length / 2)]! }
})
const hours = (value: number) => (Number.isFinite(value) ? format.hours(value) : 'not reached')

/** Two batches to be laid side by side: a third takes the place of the older choice. */
const pair = ref<string[]>([])
function turn(batchId: string) {
  pair.value = pair.value.includes(batchId) ? pair.value.filter(id => id !== batchId) : [...pair.value, batchId].slice(-2)
}
watch([foodKey, cardKey], () => {
  pair.value = []
})

function savePicture() {
  const url = chart.value?.picture()
  if (url) saveFile(`${food.value?.name}, runs side by side.svg`, url)
}
async function saveFigures() {
  const { unparse } = (await import('papaparse')).default
  const rows = runs.value.flatMap(run =>
    run.weighed.map(point => ({
      batch: run.number,
      machine: run.machineName,
      loaded: new Date(run.loadedAt).toISOString(),
      thickness_mm: run.thicknessMm ?? '',
      set_c: run.setC ?? '',
      hours_of_heat: Math.round(point.hours * 100) / 100,
      water_left_share: Math.round(point.left * 1000) / 1000,
    })),
  )
  saveFile(
    `${food.value?.name}, runs side by side.csv`,
    `data:text/csv;charset=utf-8,${encodeURIComponent(unparse(rows, { escapeFormulae: true }))}`,
  )
}
</script>

<template>
  <div class="stack">
    <header class="page-head"><h1>Runs side by side</h1></header>
    <section class="card form">
      <div class="pair">
        <div class="field">
          <label for="food">Food</label
          ><ElSelect id="food" v-model="foodKey" filterable
            ><ElOption v-for="item in foods.list" :key="item.key" :value="item.key" :label="item.name"
          /></ElSelect>
        </div>
        <ChoiceField v-model="cardKey" label="Cut" :choices="cards" />
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </section>
    <section v-if="runs.length" class="card" aria-label="Runs">
      <div class="row between">
        <h2>{{ plural(runs.length, 'run') }} of {{ food?.name.toLowerCase() }}</h2>
        <div class="row">
          <ElButton v-if="pair.length === 2" type="primary" @click="navigateTo(`/trial?batches=${pair.join(',')}`)"
            >Say the difference</ElButton
          ><ElButton @click="savePicture">Save the picture</ElButton><ElButton @click="saveFigures">Save the figures</ElButton>
        </div>
      </div>
      <p v-if="middle" class="quiet">
        From {{ hours(middle.low) }} to {{ hours(middle.high) }} of heat to dry{{
          runs.length > 2 ? `, in the middle ${hours(middle.middle)}` : ''
        }}.
      </p>
      <CompareChart ref="chart" :runs="runs" :chosen="chosen" />
      <table>
        <thead>
          <tr>
            <th>Try</th>
            <th>Batch</th>
            <th>Loaded</th>
            <th>Machine</th>
            <th>Cut by</th>
            <th class="n">Thick</th>
            <th class="n">Load</th>
            <th class="n">Set</th>
            <th class="n">Room</th>
            <th class="n">To dry</th>
            <th class="n">Heat had</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="run in runs" :key="run.batchId" :class="{ on: run.batchId === chosen }" @click="chosen = run.batchId">
            <td>
              <input
                type="checkbox"
                class="try"
                :aria-label="`Batch ${run.number} side by side`"
                :checked="pair.includes(run.batchId)"
                @click.stop
                @change="turn(run.batchId)"
              />
            </td>
            <td>
              <NuxtLink :to="`/batches/${run.batchId}`">{{ run.number }}</NuxtLink>
            </td>
            <td>{{ format.date(run.loadedAt) }}</td>
            <td>{{ run.machineName }}</td>
            <td>{{ run.cutBy ?? '' }}</td>
            <td class="n">{{ run.thicknessMm ? format.length(run.thicknessMm) : '' }}</td>
            <td class="n">{{ format.weight(run.loadedG) }}</td>
            <td class="n">{{ run.setC === null ? '' : format.temperature(run.setC) }}</td>
            <td class="n">{{ run.roomHumidity === undefined ? '' : format.share(run.roomHumidity) }}</td>
            <td class="n">{{ hours(run.hoursToTarget.p50) }}</td>
            <td class="n">{{ hours(run.hoursOfHeat) }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-else-if="asked && !problem" class="card">
      <h2>No finished run of {{ food?.name.toLowerCase() }} yet</h2>
      <p class="quiet">Runs that were weighed at least once and have left the machine stand here side by side.</p>
    </section>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 0.6rem;
}
th {
  text-align: left;
  color: var(--quiet);
  font-size: 0.9rem;
  font-weight: 650;
}
td,
th {
  padding: 0.5rem 0.6rem 0.5rem 0;
  border-bottom: 1px solid var(--rule);
}
.n {
  text-align: right;
}
tr.on {
  background: var(--dulse-wash);
  font-weight: 650;
}
tbody tr {
  cursor: pointer;
}
.try {
  width: 22px;
  height: 22px;
  accent-color: var(--dulse);
}
section:has(table) {
  overflow-x: auto;
}
</style>
