<script setup lang="ts">
import { wrap } from 'comlink'
import { TABLE_COLUMNS, type InventoryRow, type TableGuess, type TableKind, type TableSettings, type WeighInRow } from '#core/tables'
import type { TableImportAnswer } from '#shared/contracts'
import type { TablePreview, TableReader } from '~/workers/table.worker'

/** Weigh-ins or an inventory out of a table: chosen, its columns named, looked at line by line, and only then taken in. */
const route = useRoute()
const format = useFormat()
const { now } = useClock()
const { settings: household } = storeToRefs(useHouseholdStore())
useHead({ title: 'A table comes in · Dulse' })

const worker = new Worker(new URL('../../workers/table.worker.ts', import.meta.url), { type: 'module' })
const reader = wrap<TableReader>(worker)
onBeforeUnmount(() => {
  worker.terminate()
  stop?.abort()
})

const MOST_MB = 30
/** A longer file is held against the log when it is taken in, not at every change of a column. */
const CHECKED_AT_ONCE = 3000
const SHOWN_FAULTS = 10
const kind = ref<TableKind>(route.query.kind === 'inventory' ? 'inventory' : 'weighIns')
const file = shallowRef<{ name: string; text: string }>()
const guess = shallowRef<TableGuess>()
const settings = ref<TableSettings>()
const preview = shallowRef<TablePreview>()
const against = shallowRef<TableImportAnswer>()
const leaveOut = ref(false)
const problem = ref('')
const progress = ref<{ phase: string; done: number; of: number }>()
const busy = ref(false)
const told = ref('')
let stop: AbortController | undefined
let asked = 0

async function choose(chosen: File) {
  problem.value = told.value = ''
  guess.value = settings.value = preview.value = against.value = undefined
  if (chosen.size > MOST_MB * 1024 * 1024) {
    problem.value = `This file is over ${MOST_MB} MB: bring it in by parts.`
    return
  }
  file.value = { name: chosen.name, text: await chosen.text() }
  await look()
}
async function look() {
  if (!file.value) return
  const answer = await reader.guess(kind.value, file.value.text, { timeZone: household.value.timeZone, unit: household.value.weightUnit })
  if ('problem' in answer) {
    problem.value = answer.problem
    return
  }
  problem.value = ''
  guess.value = answer
  settings.value = { ...answer.settings }
}
watch(kind, look)
watch(
  settings,
  async chosen => {
    const turn = ++asked
    against.value = undefined
    told.value = ''
    if (!chosen || !file.value) return
    const answer = await reader.read(kind.value, file.value.text, JSON.parse(JSON.stringify(chosen)) as TableSettings, Date.now())
    if (turn !== asked) return
    problem.value = 'problem' in answer ? answer.problem : ''
    preview.value = 'problem' in answer ? undefined : answer
    if ('problem' in answer || answer.count === 0 || answer.count > CHECKED_AT_ONCE) return
    try {
      const checked = await send('check=true', () => {})
      if (turn === asked) against.value = checked.answer
    } catch (error) {
      if (turn === asked) problem.value = (error as Error).message
    }
  },
  { deep: true },
)

const send = (query: string, tell: (step: { phase: string; done: number; of: number }) => void, signal = new AbortController().signal) =>
  longWork<TableImportAnswer>(
    `/api/import/table?${query}`,
    JSON.stringify({ kind: kind.value, text: file.value!.text, settings: settings.value }),
    tell,
    signal,
  )

async function takeIn() {
  if (!file.value || !settings.value || busy.value) return
  busy.value = true
  problem.value = told.value = ''
  stop = new AbortController()
  try {
    const { answer, written } = await send(
      `leaveOut=${leaveOut.value}`,
      step => {
        progress.value = step
      },
      stop.signal,
    )
    against.value = answer
    if (written) told.value = `${plural(answer.kept, 'line')} came in${answer.repeated ? `; ${answer.repeated} were there already` : ''}.`
    else if (answer.kept === 0 && answer.repeated > 0) told.value = `${answer.repeated} lines were there already: nothing was doubled.`
    else
      problem.value = `${plural(new Set(answer.errors.map(error => error.line)).size, 'line is', 'lines are')} wrong, so nothing came in. Put them right in the file, or leave them out.`
  } catch (error) {
    problem.value = stop.signal.aborted ? 'Stopped: nothing came in.' : (error as Error).message
  } finally {
    busy.value = false
    progress.value = undefined
  }
}

const columns = computed(() => (guess.value?.headings ?? []).map((words, value) => ({ value, words })))
const errors = computed(() => {
  const all = against.value?.errors ?? preview.value?.errors ?? []
  return [...all].sort((a, b) => a.line - b.line)
})
const faults = computed(() => (against.value ? new Set(against.value.errors.map(error => error.line)).size : (preview.value?.faults ?? 0)))
const good = computed(() => (against.value ? against.value.kept : (preview.value?.count ?? 0)))
/** What the file itself calls a field. */
const headingOf = (field: string) => guess.value?.headings[settings.value?.columns[field] ?? -1] ?? field
const shown = computed(() => (preview.value?.rows ?? []).filter(row => !errors.value.some(error => error.line === row.line)))
const isWeighIn = (row: WeighInRow | InventoryRow): row is WeighInRow => 'batch' in row
const setColumn = (key: string, column: number) => {
  settings.value = { ...settings.value!, columns: { ...settings.value!.columns, [key]: column < 0 ? undefined : column } }
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>A table comes in</h1>
      <NuxtLink to="/data">Data in and out</NuxtLink>
    </header>
    <ChoiceField
      v-model="kind"
      label="What it holds"
      hide-label
      :choices="[
        { value: 'weighIns', words: 'Weigh-ins of batches' },
        { value: 'inventory', words: 'What stands on a shelf' },
      ]"
    />
    <FileDrop
      :name="file?.name"
      label="File of the table"
      accept=".csv,.txt,.tsv,text/csv,text/plain"
      hint="CSV with a line of headings; any order of columns, any delimiter. Nothing is taken in before you have looked at it."
      @chosen="choose"
    />
    <div role="alert">
      <p v-if="problem" class="problem">{{ problem }}</p>
    </div>
    <div v-if="guess && settings" class="two">
      <section class="card form" aria-label="What the columns are">
        <h2>What the columns are</h2>
        <p v-for="doubt in guess.doubts" :key="doubt" class="caution">{{ doubt }}</p>
        <div class="pair">
          <div v-for="column in TABLE_COLUMNS[kind]" :key="column.key" class="field">
            <label :for="`col-${column.key}`">{{ column.name }}<span v-if="!column.needed" class="quiet"> (if there)</span></label
            ><ElSelect
              :id="`col-${column.key}`"
              :model-value="settings.columns[column.key] ?? -1"
              @update:model-value="(value: number) => setColumn(column.key, value)"
              ><ElOption :value="-1" label="None" /><ElOption
                v-for="item in columns"
                :key="item.value"
                :value="item.value"
                :label="item.words"
            /></ElSelect>
          </div>
        </div>
        <ChoiceField
          v-model="settings.unit"
          label="Weights without a unit are"
          :choices="(['g', 'kg', 'oz', 'lb'] as const).map(value => ({ value, words: value }))"
        />
        <ChoiceField
          v-model="settings.decimal"
          label="Decimal sign"
          :choices="[
            { value: 'point', words: 'Point, 56.3' },
            { value: 'comma', words: 'Comma, 56,3' },
          ]"
        />
        <ChoiceField
          v-model="settings.dayOrder"
          label="Dates"
          :choices="[
            { value: 'dayFirst', words: 'Day first' },
            { value: 'monthFirst', words: 'Month first' },
          ]"
        />
        <TextField v-model="settings.timeZone" label="Time zone" hint="such as Europe/Lisbon, or UTC" />
      </section>
      <section class="card stack" aria-label="What would come in">
        <div>
          <h2>{{ plural(good, 'line') }} would come in{{ faults ? `, ${plural(faults, 'is', 'are')} wrong` : '' }}</h2>
          <p class="quiet">
            {{
              against
                ? `Held against the logbook${against.repeated ? `; ${against.repeated} are there already` : ''}.`
                : preview && preview.count > CHECKED_AT_ONCE
                  ? 'So long a file is held against the logbook when it is taken in.'
                  : 'By the file alone.'
            }}
          </p>
        </div>
        <table v-if="shown.length" class="rows">
          <thead>
            <tr>
              <th>Line</th>
              <template v-if="kind === 'weighIns'"
                ><th>Batch</th>
                <th>Time</th>
                <th>Tray</th></template
              ><template v-else
                ><th>What</th>
                <th>Packed</th>
                <th>Stands</th></template
              >
              <th class="n">Weight</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in shown" :key="row.line">
              <td>{{ row.line }}</td>
              <template v-if="isWeighIn(row)"
                ><td>{{ row.batch }}</td>
                <td>{{ format.moment(row.at, now) }}</td>
                <td>{{ row.tray ?? 'all' }}</td>
                <td class="n">{{ format.weight(row.weightG) }}</td></template
              ><template v-else
                ><td>{{ row.name ?? row.food }}, {{ row.purpose }}</td>
                <td>{{ format.date(row.at) }}</td>
                <td>{{ row.place ?? 'Shelf' }}</td>
                <td class="n">{{ format.weight(row.netG) }}</td></template
              >
            </tr>
          </tbody>
        </table>
        <div v-if="errors.length" class="faults">
          <h3>What is wrong</h3>
          <ul class="plain-list">
            <li v-for="error in errors.slice(0, SHOWN_FAULTS)" :key="`${error.line} ${error.field} ${error.message}`">
              <strong>Line {{ error.line }}, {{ headingOf(error.field) }}:</strong> {{ error.message }}
            </li>
          </ul>
          <p v-if="errors.length > SHOWN_FAULTS" class="quiet small">and {{ errors.length - SHOWN_FAULTS }} more.</p>
          <ElCheckbox v-model="leaveOut" size="large">Leave these lines out and take the rest</ElCheckbox>
        </div>
        <div class="row">
          <ElButton type="primary" :loading="busy" :disabled="good === 0 || (faults > 0 && !leaveOut)" @click="takeIn"
            >Take {{ plural(good, 'line') }} in</ElButton
          ><ElButton v-if="busy" @click="stop?.abort()">Stop</ElButton>
        </div>
        <ElProgress
          v-if="progress"
          :percentage="Math.round((100 * progress.done) / Math.max(1, progress.of))"
          :stroke-width="14"
          :aria-label="progress.phase"
        />
        <p v-if="told" class="good" role="status">
          {{ told }}
          <NuxtLink :to="kind === 'inventory' ? '/shelf' : '/batches'">{{
            kind === 'inventory' ? 'To the shelf' : 'To the batches'
          }}</NuxtLink>
        </p>
        <p class="quiet small">
          All or nothing: while it runs others may read but wait to write, and until its end the logbook is as it was. The same file twice
          brings nothing in twice.
        </p>
      </section>
    </div>
    <section v-else class="card" aria-label="An example">
      <h2>Such as</h2>
      <pre>{{
        kind === 'weighIns'
          ? 'batch,time,tray,weight (g)\n27,2026-11-20 18:30,1,212\n27,2026-11-20 18:31,2,208\n28,2026-11-20 19:00,,1.24 kg'
          : 'food,weight (g),packed,form,place,best before,price\nCumin,45,2026-05-01,powder,Spice shelf,2027-12-01,2.40\nTomato,380,2026-08-12,powder,Cellar,,'
      }}</pre>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 1rem;
  align-items: start;
}
.rows {
  width: 100%;
  border-collapse: collapse;
}
.rows th {
  text-align: left;
  font-weight: 650;
  color: var(--quiet);
  font-size: 0.9rem;
}
.rows td,
.rows th {
  padding: 0.35rem 0.6rem 0.35rem 0;
  border-bottom: 1px solid var(--rule);
}
.n,
.rows th.n {
  text-align: right;
}
.faults {
  display: grid;
  gap: 0.4rem;
  border-left: 4px solid var(--brick);
  padding-left: 0.9rem;
}
.faults li {
  padding: 0.2rem 0;
}
pre {
  margin: 0.5rem 0 0;
  font:
    0.95rem/1.5 ui-monospace,
    monospace;
  overflow-x: auto;
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
@media (width <= 980px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
