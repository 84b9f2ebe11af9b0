<script setup lang="ts">
import { STAGES, type Stage } from '#core/log'
import type { BatchSummary } from '#shared/contracts'

const route = useRoute()
const format = useFormat()
const { now } = useClock()
useHead({ title: 'Batches · Dulse' })
const stage = computed(() => (STAGES.includes(route.query.stage as Stage) ? (route.query.stage as Stage) : undefined))

const { answer, problem: lost, ready } = useServer('batches', () => ({ query: { stage: stage.value } }))
/** Older ones, asked for by hand. */
const older = ref<{ batches: BatchSummary[]; more: boolean }>()
const refused = ref('')
const problem = computed(() => refused.value || lost.value)
await ready()
watch(stage, () => {
  older.value = undefined
})
const loaded = computed(() => answer.value !== undefined || problem.value !== '')
const batches = computed(() => {
  const newest = answer.value?.batches ?? []
  const known = new Set(newest.map(batch => batch.batchId))
  return [...newest, ...(older.value?.batches ?? []).filter(batch => !known.has(batch.batchId))]
})
const more = computed(() => older.value?.more ?? answer.value?.more ?? false)

async function load() {
  try {
    const { batches: next, more: rest } = await call('batches', { query: { stage: stage.value, before: batches.value.at(-1)?.number } })
    older.value = { batches: [...(older.value?.batches ?? []), ...next], more: rest }
    refused.value = ''
  } catch (error) {
    refused.value = (error as Error).message
  }
}

function status(batch: BatchSummary): string {
  if (batch.stage === 'drying' && batch.finishFrom && batch.finishTo) return format.finish(batch.finishFrom, batch.finishTo, now.value)
  if (batch.stage === 'drying') return 'heat off, or no finish at this heat'
  if (batch.powderG) return `${format.weight(batch.powderG)} ground`
  if (batch.dryG) return `${format.weight(batch.dryG)} dry`
  return `${format.weight(batch.rawG)} in`
}
const choices = [{ value: 'all', words: 'All' }, ...STAGES.map(value => ({ value: value as string, words: STAGE_WORDS[value] }))]
const chosen = computed({
  get: () => stage.value ?? 'all',
  set: (value: string) => void navigateTo(value === 'all' ? '/batches' : `/batches?stage=${value}`),
})
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>{{ stage ? `${STAGE_WORDS[stage]}` : 'Batches' }}</h1>
      <div class="row">
        <ElButton @click="navigateTo('/insight')">What it taught</ElButton
        ><ElButton @click="navigateTo('/compare')">Runs side by side</ElButton
        ><ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton>
      </div>
    </header>
    <ChoiceField v-model="chosen" label="Stage" hide-label :choices="choices" />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <div v-if="loaded && batches.length === 0 && !problem" class="card">
      <p>{{ stage ? 'Nothing stands here.' : 'No batch yet. A batch follows one basket from the garden or the market to its jars.' }}</p>
    </div>
    <table v-else class="card list">
      <thead>
        <tr>
          <th>Batch</th>
          <th>Food</th>
          <th>Stage</th>
          <th class="wide">Came in</th>
          <th class="number wide">Basket</th>
          <th>Now</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="batch in batches" :key="batch.batchId" @click="navigateTo(`/batches/${batch.batchId}`)">
          <td>{{ batch.number }}</td>
          <td>
            <NuxtLink :to="`/batches/${batch.batchId}`" class="title">{{ batch.title }}</NuxtLink><span class="quiet small purpose"
              >for {{ PURPOSE_WORDS[batch.purpose] }}</span
            >
          </td>
          <td>
            <span
              class="stage"
              :style="{
                background:
                  batch.stage === 'drying'
                    ? rampColour(1 - (batch.waterGone ?? 0))
                    : `var(--${{ intake: 'brine', prep: 'brine', resting: 'straw', grinding: 'ochre', shelf: 'husk' }[batch.stage]})`,
              }"
            />{{ STAGE_WORDS[batch.stage]
            }}<span v-if="batch.stage === 'drying'" class="quiet small gone"
              >{{ Math.round((batch.waterGone ?? 0) * 100) }} % of the water gone</span
            >
          </td>
          <td class="wide">{{ format.date(batch.startedAt) }}</td>
          <td class="number wide">{{ format.weight(batch.rawG) }}</td>
          <td>{{ status(batch) }}</td>
        </tr>
      </tbody>
    </table>
    <ElButton v-if="more" @click="load">Older ones</ElButton>
  </div>
</template>

<style scoped>
.list {
  border-collapse: collapse;
  width: 100%;
  padding: 0;
  display: table;
}
th {
  text-align: left;
  font: 650 0.9rem var(--text);
  color: var(--quiet);
  padding: 0.7rem 0.8rem;
}
td {
  padding: 0.6rem 0.8rem;
  border-top: 1px solid var(--rule);
  vertical-align: middle;
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: var(--sunk);
}
td a {
  font-weight: 700;
  text-decoration: none;
  display: block;
}
.purpose,
.gone {
  display: block;
}
.number {
  text-align: right;
}
.stage {
  display: inline-block;
  width: 0.8rem;
  height: 0.8rem;
  border-radius: 3px;
  margin-right: 0.5rem;
  vertical-align: -1px;
}
@media (width <= 760px) {
  .wide {
    display: none;
  }
  th,
  td {
    padding: 0.55rem 0.45rem;
    font-size: 0.93rem;
  }
}
@media (width <= 760px) {
  .title {
    display: inline-block;
    padding: 0.7rem 0;
  }
}
</style>
