<script setup lang="ts">
import { wrap } from 'comlink'
import { uuidv7 } from 'uuidv7'
import type { LoggerGuess, LoggerReadings, LoggerSettings } from '#core/readings'
import type { LoggerReader } from '~/workers/logger.worker'
import type { DeviceSettings, MachineAnswer, ReadingSeries } from '#shared/contracts'

/** Readings out of a logger's file: chosen, looked at, put right, and only then taken in. */
const format = useFormat()
const { settings: household } = storeToRefs(useHouseholdStore())
const { now } = useClock()
useHead({ title: 'A logger’s file · Dulse' })

const worker = new Worker(new URL('../workers/logger.worker.ts', import.meta.url), { type: 'module' })
const reader = wrap<LoggerReader>(worker)
onBeforeUnmount(() => worker.terminate())

const MOST_MB = 30
/** Readings sent at once. */
const PART = 2000
const machines = ref<MachineAnswer[]>(await call('machines').catch(() => []))
const machineId = ref(machines.value[0]?.id ?? '')
const where = ref<'probe' | 'hygrometer'>('probe')
const file = shallowRef<{ name: string; text: string }>()
const guess = shallowRef<LoggerGuess>()
const settings = ref<LoggerSettings>()
const readings = shallowRef<LoggerReadings>()
const problem = ref('')
const sent = ref<{ done: number; of: number; kept: number; repeated: number; refused: number }>()
const stopping = ref(false)
const finished = ref(false)

async function choose(chosen: File) {
  file.value = guess.value = readings.value = settings.value = sent.value = undefined
  finished.value = false
  problem.value = ''
  if (chosen.size > MOST_MB * 1024 * 1024) {
    problem.value = `This file is over ${MOST_MB} MB: export a shorter time, or fewer readings an hour.`
    return
  }
  file.value = { name: chosen.name, text: await chosen.text() }
  const answer = await reader.guess(file.value.text, household.value.timeZone)
  if ('problem' in answer) {
    problem.value = answer.problem
    return
  }
  guess.value = answer
  settings.value = { ...answer.settings }
  if (answer.settings.celsiusColumn === undefined) where.value = 'hygrometer'
}
let asked = 0
watch(
  settings,
  async chosen => {
    const turn = ++asked
    if (!chosen || !file.value || !guess.value) return
    const answer = await reader.read(
      file.value.text,
      JSON.parse(JSON.stringify(chosen)) as LoggerSettings,
      guess.value.firstLine,
      Date.now(),
    )
    if (turn !== asked) return
    problem.value = 'problem' in answer ? answer.problem : ''
    readings.value = 'problem' in answer ? undefined : answer
  },
  { deep: true },
)

const columns = computed(() => (guess.value?.columns ?? []).map((words, value) => ({ value, words })))
const optional = (key: 'celsiusColumn' | 'humidityColumn' | 'clockColumn') =>
  computed({
    get: () => settings.value?.[key] ?? -1,
    set: (column: number) => {
      settings.value = { ...settings.value!, [key]: column < 0 ? undefined : column }
    },
  })
const celsiusColumn = optional('celsiusColumn')
const humidityColumn = optional('humidityColumn')
const clockColumn = optional('clockColumn')
const rows = computed(() => readings.value?.rows ?? [])
const span = computed(() =>
  rows.value.length === 0 ? '' : `${format.moment(rows.value[0]!.at, now.value)} to ${format.moment(rows.value.at(-1)!.at, now.value)}`,
)

/** The file as the chart of heat and air draws it, thinned. */
const series = computed((): ReadingSeries[] => {
  const step = Math.max(1, Math.ceil(rows.value.length / 300))
  const of = (channel: 'celsius' | 'humidity') =>
    rows.value
      .filter((row, i) => i % step === 0 && row[channel] !== undefined)
      .map(row => ({ at: row.at, value: row[channel]!, low: row[channel]!, high: row[channel]! }))
  return (['celsius', 'humidity'] as const)
    .map(channel => ({
      deviceId: 'file',
      deviceName: 'file',
      kind: 'logger' as const,
      channel,
      count: rows.value.length,
      points: of(channel),
    }))
    .filter(item => item.points.length > 0)
})

async function takeIn() {
  if (!file.value || rows.value.length === 0) return
  problem.value = ''
  stopping.value = finished.value = false
  const device: DeviceSettings = { id: uuidv7(), name: file.value.name.slice(0, 80), kind: where.value, machineId: machineId.value || null }
  const all = rows.value.flatMap(({ at, celsius, humidity }) => [
    ...(celsius === undefined ? [] : [{ channel: 'celsius', at, value: celsius }]),
    ...(humidity === undefined ? [] : [{ channel: 'humidity', at, value: humidity }]),
  ])
  sent.value = { done: 0, of: all.length, kept: 0, repeated: 0, refused: 0 }
  try {
    // The same file again goes to the same device, where what is there already is passed over.
    const known = (await call('devices')).find(
      item => item.name === device.name && item.kind === device.kind && item.machineId === device.machineId,
    )
    if (!known) await call('saveDevice', { body: device })
    for (let i = 0; i < all.length && !stopping.value; i += PART) {
      const answer = await call('takeReadings', {
        body: { device: known?.id ?? device.id, readings: all.slice(i, i + PART) },
      })
      sent.value = {
        ...sent.value,
        done: Math.min(all.length, i + PART),
        kept: sent.value.kept + answer.kept,
        repeated: sent.value.repeated + answer.repeated,
        refused: sent.value.refused + answer.refused.length + answer.thinned,
      }
    }
    finished.value = true
  } catch (error) {
    problem.value = `${(error as Error).message} ${sent.value.kept + sent.value.repeated} readings are taken in; take it in again for the rest, nothing comes in twice.`
  }
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>A logger’s file</h1>
      <p class="quiet">Temperature and humidity that a logger wrote down beside the food, as CSV.</p>
    </header>
    <FileDrop
      :name="file?.name"
      label="File of the logger"
      accept=".csv,.txt,.tsv,text/csv,text/plain"
      hint="Any order of columns, any delimiter, °C or °F, decimal point or comma. Nothing is taken in before you have looked at it."
      @chosen="choose"
    />
    <div role="alert">
      <p v-if="problem" class="problem">{{ problem }}</p>
    </div>

    <div v-if="guess && settings" class="two">
      <section class="card stack" aria-label="What the columns are">
        <h2>What the columns are</h2>
        <p v-for="doubt in guess.doubts" :key="doubt" class="caution">{{ doubt }}</p>
        <div class="form">
          <div class="pair">
            <div class="field">
              <label for="time">Time</label
              ><ElSelect id="time" v-model="settings.timeColumn"
                ><ElOption v-for="column in columns" :key="column.value" :value="column.value" :label="column.words"
              /></ElSelect>
            </div>
            <div class="field">
              <label for="clock">Clock, if apart</label
              ><ElSelect id="clock" v-model="clockColumn"
                ><ElOption :value="-1" label="In the same column" /><ElOption
                  v-for="column in columns"
                  :key="column.value"
                  :value="column.value"
                  :label="column.words"
              /></ElSelect>
            </div>
            <div class="field">
              <label for="celsius">Temperature</label
              ><ElSelect id="celsius" v-model="celsiusColumn"
                ><ElOption :value="-1" label="None" /><ElOption
                  v-for="column in columns"
                  :key="column.value"
                  :value="column.value"
                  :label="column.words"
              /></ElSelect>
            </div>
            <div class="field">
              <label for="humidity">Humidity</label
              ><ElSelect id="humidity" v-model="humidityColumn"
                ><ElOption :value="-1" label="None" /><ElOption
                  v-for="column in columns"
                  :key="column.value"
                  :value="column.value"
                  :label="column.words"
              /></ElSelect>
            </div>
          </div>
          <ChoiceField
            v-model="settings.temperatureUnit"
            label="Temperatures in"
            :choices="[
              { value: 'C', words: '°C' },
              { value: 'F', words: '°F' },
            ]"
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
          <TextField v-model="settings.timeZone" label="Time zone of the logger" hint="such as Europe/Lisbon, or UTC" />
        </div>
      </section>

      <div class="stack">
        <section v-if="readings" class="card" aria-label="What would come in">
          <h2>{{ plural(rows.length, 'reading') }}{{ readings.errors.length ? `, ${plural(readings.errors.length, 'fault')}` : '' }}</h2>
          <p class="quiet">{{ span }}</p>
          <table v-if="rows.length" class="rows">
            <thead>
              <tr>
                <th>Line</th>
                <th>Time</th>
                <th v-if="settings.celsiusColumn !== undefined">Temperature</th>
                <th v-if="settings.humidityColumn !== undefined">Humidity</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows.slice(0, 6)" :key="row.line">
                <td>{{ row.line }}</td>
                <td>{{ format.day(row.at) }}, {{ format.time(row.at) }}</td>
                <td v-if="settings.celsiusColumn !== undefined">
                  {{ row.celsius === undefined ? '' : format.reading('celsius', row.celsius) }}
                </td>
                <td v-if="settings.humidityColumn !== undefined">
                  {{ row.humidity === undefined ? '' : format.reading('humidity', row.humidity) }}
                </td>
              </tr>
            </tbody>
          </table>
          <template v-if="readings.errors.length">
            <h3>What is left out</h3>
            <ul class="plain-list faults">
              <li v-for="error in readings.errors.slice(0, 8)" :key="`${error.line} ${error.field}`">
                <strong>Line {{ error.line }}, {{ error.field }}:</strong> {{ error.message }}
              </li>
            </ul>
            <p v-if="readings.errors.length > 8" class="quiet small">and {{ readings.errors.length - 8 }} more.</p>
          </template>
        </section>
        <LazyHeatChart v-if="rows.length > 1" :log="[]" :series="series" :from="rows[0]!.at" :now="rows.at(-1)!.at" />
        <section v-if="rows.length" class="card form" aria-label="Where it lay">
          <ChoiceField
            v-model="where"
            label="Where it lay"
            :choices="[
              { value: 'probe', words: 'Among the trays' },
              { value: 'hygrometer', words: 'In the room' },
            ]"
          />
          <ChoiceField
            v-model="machineId"
            label="At"
            :choices="[...machines.map(machine => ({ value: machine.id, words: machine.name })), { value: '', words: 'No machine' }]"
          />
          <p class="quiet small">
            Where the machine is running, its means of ten minutes go into the run’s log, and the drying clock counts what was measured.
          </p>
          <div class="row">
            <ElButton type="primary" :loading="Boolean(sent) && !finished && !problem && !stopping" @click="takeIn">Take it in</ElButton>
            <ElButton v-if="sent && !finished && !problem && !stopping" @click="stopping = true">Stop</ElButton>
            <span role="status" class="quiet">{{
              sent
                ? `${sent.done} of ${sent.of} sent: ${sent.kept} kept${sent.repeated ? `, ${sent.repeated} there already` : ''}${sent.refused ? `, ${sent.refused} left out` : ''}${stopping ? '; stopped' : ''}.`
                : ''
            }}</span>
          </div>
          <p v-if="finished && machineId"><NuxtLink :to="`/machines/${machineId}`">Look at it on the machine’s page</NuxtLink></p>
        </section>
      </div>
    </div>
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
  margin: 0.6rem 0;
}
.rows th {
  text-align: left;
  font-weight: 650;
  color: var(--quiet);
  font-size: 0.9rem;
}
.rows td,
.rows th {
  padding: 0.3rem 0.5rem 0.3rem 0;
  border-bottom: 1px solid var(--rule);
}
.faults {
  margin-top: 0.4rem;
}
.faults li {
  padding: 0.3rem 0;
}
@media (width <= 980px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
