<script setup lang="ts">
import { Temporal } from 'temporal-polyfill'
import { parseWeight } from '#core/units'
import type { EntryBody } from '#core/log'

/** What was written on the card at the machine, typed in afterwards, line by line. */
const route = useRoute()
const batchId = String(route.params.id)
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { page, state, problem, ready, write } = useBatch(batchId)
await ready()
useHead({ title: 'Figures from paper · Dulse' })

/** `weighed`: its weight is in the log already, whatever became of its note. */
interface Row {
  day: string
  time: string
  weight: string
  note: string
  told: string
  weighed: boolean
  done: boolean
}
const ROWS = 6
const zoned = (at: number) => Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(settings.value.timeZone)
const loaded = zoned(state.value?.run?.loadedAt ?? Date.now())
const firstDay = loaded.toPlainDate().toString()
const blank = (): Row => ({ day: '', time: '', weight: '', note: '', told: '', weighed: false, done: false })
const rows = ref<Row[]>(Array.from({ length: ROWS }, blank))
const busy = ref(false)
const told = ref('')

/** A line left without a day is of the day above it, or the next when its clock runs back. */
function instants(): (number | undefined)[] {
  let day = firstDay
  let last = loaded.hour * 60 + loaded.minute - 1
  return rows.value.map(row => {
    const clock = /^(\d{1,2})[:.h]?(\d{2})$/.exec(row.time.trim())
    if (!clock || Number(clock[1]) > 23 || Number(clock[2]) > 59) return undefined
    const minute = Number(clock[1]) * 60 + Number(clock[2])
    if (row.day) day = row.day
    else if (minute < last) day = Temporal.PlainDate.from(day).add({ days: 1 }).toString()
    last = minute
    return Temporal.PlainDate.from(day).toZonedDateTime({
      timeZone: settings.value.timeZone,
      plainTime: Temporal.PlainTime.from({ hour: Number(clock[1]), minute: Number(clock[2]) }),
    }).epochMilliseconds
  })
}
const when = computed(instants)
const used = (row: Row) => row.time.trim() !== '' || row.weight.trim() !== '' || row.note.trim() !== ''

/** Every line is looked at before the first is written; what is refused stays with its reason. */
async function save() {
  if (busy.value) return
  told.value = ''
  const wrong = rows.value.map((row, i) => {
    if (!used(row) || row.done) return ''
    if (when.value[i] === undefined) return `“${row.time}” is not a time: write 18:40.`
    if (row.weight.trim() === '' && row.note.trim() === '') return 'A line needs a weight or a note.'
    return row.weight.trim() === '' ? '' : (parseWeight(row.weight, settings.value.weightUnit).problem ?? '')
  })
  rows.value.forEach((row, i) => {
    row.told = wrong[i]!
  })
  if (wrong.some(Boolean)) return
  busy.value = true
  let written = 0
  for (const [i, row] of rows.value.entries()) {
    if (!used(row) || row.done) continue
    const log = (body: EntryBody) => write([body], { at: when.value[i] })
    try {
      if (row.weight.trim() !== '' && !row.weighed) {
        await log({ kind: 'weigh', totalG: parseWeight(row.weight, settings.value.weightUnit).value! })
        row.weighed = true
      }
      if (row.note.trim() !== '') await log({ kind: 'note', text: row.note.trim() })
      row.done = true
      row.told = 'Logged.'
      written++
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      row.told = row.weighed ? `Its weight is logged; its note is not. ${error.message}` : error.message
      break
    }
  }
  busy.value = false
  told.value = `${plural(written, 'line')} logged.${rows.value.some(row => used(row) && !row.done) ? ' Put the next one right, and go on from there.' : ''}`
}
</script>

<template>
  <div v-if="problem || !state" class="card">
    <h1>No such batch</h1>
    <p>{{ problem }}</p>
  </div>
  <div v-else class="stack">
    <header class="page-head">
      <div>
        <h1>Figures from paper</h1>
        <p class="quiet">
          {{ state.food.name }}, <NuxtLink :to="`/batches/${batchId}`">batch {{ page?.number }}</NuxtLink
          ><template v-if="state.run"
            >, {{ format.weight(state.run.loadedG) }} loaded {{ format.moment(state.run.loadedAt, Date.now()) }}</template
          >
        </p>
      </div>
      <a class="el-button el-button--large" :href="`/api/batches/${batchId}/card.pdf`" target="_blank">The card as PDF</a>
    </header>
    <p v-if="!state.run || state.run.unloadedAt !== undefined" class="card">
      Weights belong to a load in a machine. Load it first; notes go in at any time.
    </p>
    <form class="card scroll" @submit.prevent="save">
      <p class="quiet">A line without a day is of the day of loading, or of the line above; of the next one where the clock runs back.</p>
      <table>
        <thead>
          <tr>
            <th>Day</th>
            <th>Time</th>
            <th>Whole load</th>
            <th>Feel, trays moved, note</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in rows" :key="i" :class="{ done: row.done }">
            <td><input v-model="row.day" type="date" :aria-label="`Day of line ${i + 1}`" :disabled="row.done || row.weighed" /></td>
            <td>
              <input
                v-model="row.time"
                class="short"
                placeholder="18:40"
                :aria-label="`Time of line ${i + 1}`"
                :disabled="row.done || row.weighed"
              />
            </td>
            <td>
              <input
                v-model="row.weight"
                class="short"
                :placeholder="settings.weightUnit === 'g' ? '850' : '1 lb 4 oz'"
                :aria-label="`Weight of line ${i + 1}`"
                :disabled="row.done || row.weighed"
              />
            </td>
            <td><input v-model="row.note" :aria-label="`Note of line ${i + 1}`" :disabled="row.done" /></td>
            <td>
              <span v-if="row.told" :class="row.done ? 'good' : 'problem'" role="status">{{ row.told }}</span><span
                v-else-if="when[i] !== undefined"
                class="quiet small"
                >{{ format.moment(when[i]!, Date.now()) }}</span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="busy">Log all lines</ElButton
        ><ElButton @click="rows.push(blank())">One line more</ElButton><span role="status" class="good">{{ told }}</span>
      </div>
    </form>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  margin: 0.6rem 0;
}
th {
  text-align: left;
  color: var(--quiet);
  font: 650 0.9rem var(--text);
}
td {
  padding: 0.25rem 0.6rem 0.25rem 0;
}
input {
  min-height: 44px;
  width: 100%;
  padding: 0 0.6rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
.short {
  width: 7rem;
}
.done input {
  background: var(--sunk);
  color: var(--quiet);
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
</style>
