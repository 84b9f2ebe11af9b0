<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { HouseholdSettings, MachineAnswer, MachineSettings } from '#shared/contracts'
import { temperatureFrom, temperatureIn } from '#core/units'

const store = useHouseholdStore()
const format = useFormat()
useHead({ title: 'Workshop · Dulse' })
void useStagesStore().refresh()

const household = reactive<HouseholdSettings>({ ...store.settings })
const clockOf = (minute: number) => `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
const nights = reactive({ from: clockOf(household.sleepFrom), to: clockOf(household.sleepTo) })
const pantry = ref(String(Math.round(temperatureIn(household.pantryC, household.temperatureUnit))))
const jarMl = ref(String(household.jarMl))
const householdProblems = ref<Record<string, string>>({})
const told = ref('')

const minuteOf = (text: string) => {
  const match = /^(\d{1,2}):(\d{2})$/.exec(text.trim())
  const minute = match ? Number(match[1]) * 60 + Number(match[2]) : NaN
  return match && Number(match[1]) < 24 && Number(match[2]) < 60 ? minute : NaN
}
function fieldsOf(error: unknown): Record<string, string> {
  if (!(error instanceof Refused)) return { all: (error as Error).message }
  return Object.fromEntries([...error.problems.map(problem => [problem.field, problem.message]), ...(error.problems.length === 0 || error.status === 409 ? [['all', error.message]] : [])])
}

async function saveHousehold() {
  householdProblems.value = {}
  told.value = ''
  const from = minuteOf(nights.from)
  const to = minuteOf(nights.to)
  if (Number.isNaN(from)) householdProblems.value.sleepFrom = 'Write a time such as 22:30.'
  if (Number.isNaN(to)) householdProblems.value.sleepTo = 'Write a time such as 06:30.'
  const pantryC = temperatureFrom(Number(pantry.value.replace(',', '.')), store.settings.temperatureUnit)
  if (pantry.value.trim() === '' || Number.isNaN(pantryC)) householdProblems.value.pantryC = `“${pantry.value}” is not a temperature.`
  if (!/^\d+$/.test(jarMl.value.trim())) householdProblems.value.jarMl = `“${jarMl.value}” is not a volume in mL.`
  if (Object.keys(householdProblems.value).length > 0) return
  try {
    await store.save({ ...household, sleepFrom: from, sleepTo: to, pantryC, jarMl: Number(jarMl.value), version: store.settings.version })
    pantry.value = String(Math.round(temperatureIn(store.settings.pantryC, store.settings.temperatureUnit)))
    told.value = 'Saved.'
  }
  catch (error) {
    householdProblems.value = fieldsOf(error)
    if (error instanceof Refused && error.status === 409) {
      await store.load()
      householdProblems.value.all = `${error.message} Yours are still in the form; save again to put them in place.`
    }
  }
}

const machines = ref<MachineAnswer[]>([])
interface MachineForm { id: string, version?: number, name: string, trays: string, area: string, tare: string, watts: string, low: string, high: string }
const form = ref<MachineForm>()
const machineProblems = ref<Record<string, string>>({})
async function loadMachines() {
  try {
    machines.value = await callServer<MachineAnswer[]>('/api/machines')
  }
  catch (error) {
    machineProblems.value = { all: (error as Error).message }
  }
}
await loadMachines()

const degrees = (celsius: number) => String(Math.round(temperatureIn(celsius, store.settings.temperatureUnit)))
function edit(machine?: MachineAnswer) {
  machineProblems.value = {}
  form.value = machine
    ? { id: machine.id, version: machine.version, name: machine.name, trays: String(machine.trays), area: String(machine.trayAreaM2), tare: String(machine.trayTareG), watts: String(machine.watts), low: degrees(machine.lowC), high: degrees(machine.highC) }
    : { id: uuidv7(), name: '', trays: '6', area: '0.1', tare: '0', watts: '500', low: degrees(35), high: degrees(75) }
}
async function saveMachine() {
  if (!form.value) return
  const f = form.value
  machineProblems.value = {}
  const number = (field: string, text: string) => {
    const value = Number(text.trim().replace(',', '.'))
    if (text.trim() === '' || !Number.isFinite(value)) machineProblems.value[field] = `“${text}” is not a number.`
    return value
  }
  const unit = store.settings.temperatureUnit
  const tenth = (value: number) => Math.round(value * 10) / 10
  const settings: MachineSettings = {
    id: f.id, version: f.version, name: f.name, kind: 'dehydrator', trays: number('trays', f.trays), trayAreaM2: number('trayAreaM2', f.area), trayTareG: number('trayTareG', f.tare), trayTares: {},
    watts: number('watts', f.watts), lowC: tenth(temperatureFrom(number('lowC', f.low), unit)), highC: tenth(temperatureFrom(number('highC', f.high), unit)),
  }
  if (Object.keys(machineProblems.value).length > 0) return
  try {
    await callServer('/api/machines', { method: 'PUT', body: settings })
    form.value = undefined
    await loadMachines()
  }
  catch (error) {
    machineProblems.value = fieldsOf(error)
  }
}
</script>

<template>
  <div class="stack">
    <header class="page-head"><h1>Workshop</h1></header>
    <div class="two">
      <div class="stack">
        <section class="card">
          <div class="row between"><h2>Machines</h2><ElButton @click="edit()">Add a machine</ElButton></div>
          <ul class="plain-list">
            <li v-for="machine in machines" :key="machine.id" class="machine">
              <div><strong>{{ machine.name }}</strong><p class="quiet small">{{ plural(machine.trays, 'tray') }} of {{ machine.trayAreaM2 }} m², empty {{ format.weight(machine.trayTareG) }} each · {{ machine.watts }} W · {{ format.temperature(machine.lowC) }} to {{ format.temperature(machine.highC) }}</p><p v-if="machine.pace" class="small">{{ paceWords(machine.name, machine.pace.hours, machine.pace.runs) }}</p></div>
              <ElButton :aria-label="`Change ${machine.name}`" @click="edit(machine)">Change</ElButton>
            </li>
          </ul>
          <p v-if="machineProblems.all && !form" class="problem">{{ machineProblems.all }}</p>
          <form v-if="form" class="form machine-form" @submit.prevent="saveMachine">
            <h3>{{ form.version ? 'Change the machine' : 'A new machine' }}</h3>
            <TextField v-model="form.name" label="Name" :problem="machineProblems.name" />
            <div class="pair">
              <TextField v-model="form.trays" label="Trays" :problem="machineProblems.trays" />
              <TextField v-model="form.area" label="Area of a tray, m²" hint="length × width: 30 × 33 cm is 0.1" :problem="machineProblems.trayAreaM2" />
              <TextField v-model="form.tare" label="Empty tray, g" hint="taken off when the tray is on the scale" :problem="machineProblems.trayTareG" />
              <TextField v-model="form.watts" label="Power, W" :problem="machineProblems.watts" />
              <TextField v-model="form.low" :label="`Lowest setting, °${store.settings.temperatureUnit}`" :problem="machineProblems.lowC" />
              <TextField v-model="form.high" :label="`Highest setting, °${store.settings.temperatureUnit}`" :problem="machineProblems.highC" />
            </div>
            <p v-if="machineProblems.all" class="problem">{{ machineProblems.all }}</p>
            <div class="row"><ElButton type="primary" native-type="submit">Save the machine</ElButton><ElButton @click="form = undefined">Leave it</ElButton></div>
          </form>
        </section>
        <HygrometerCard />
        <section class="card">
          <h2>Your data</h2>
          <p class="quiet">The log is one SQLite file in the data folder that the server names when it starts. Everything in it can be taken out as a table.</p>
          <div class="row"><a class="el-button el-button--large" href="/api/export.csv">The log as CSV</a></div>
        </section>
      </div>
      <section class="card">
        <h2>Household</h2>
        <form class="form" @submit.prevent="saveHousehold">
          <TextField v-model="household.name" label="Name" :problem="householdProblems.name" />
          <ChoiceField v-model="household.weightUnit" label="Weights" :choices="[{ value: 'g', words: 'Grams' }, { value: 'oz', words: 'Pounds and ounces' }]" />
          <ChoiceField v-model="household.temperatureUnit" label="Temperatures" :choices="[{ value: 'C', words: '°C' }, { value: 'F', words: '°F' }]" />
          <ChoiceField v-model="household.clockHours" label="Clock" :choices="[{ value: 24, words: '24 hours' }, { value: 12, words: '12 hours' }]" />
          <div class="pair">
            <TextField v-model="nights.from" label="Asleep from" :problem="householdProblems.sleepFrom" />
            <TextField v-model="nights.to" label="Awake from" :problem="householdProblems.sleepTo" />
            <TextField v-model="pantry" :label="`Pantry, °${store.settings.temperatureUnit}`" :problem="householdProblems.pantryC" />
            <TextField v-model="jarMl" label="Usual jar, mL" :problem="householdProblems.jarMl" />
          </div>
          <TextField v-model="household.timeZone" label="Time zone" hint="such as Europe/Lisbon" :problem="householdProblems.timeZone" />
          <p v-if="householdProblems.all" class="problem">{{ householdProblems.all }}</p>
          <div class="row"><ElButton type="primary" native-type="submit">Save the household</ElButton><span class="good" role="status">{{ told }}</span></div>
        </form>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr)); gap: 1rem; align-items: start; }
.machine { display: flex; justify-content: space-between; gap: 1rem; align-items: center; padding: 0.6rem 0; border-top: 1px solid var(--rule); }
.machine:first-child { border: 0; }
.machine-form { border-top: 1px solid var(--rule); padding-top: 0.9rem; }
section > h2 { margin-bottom: 0.6rem; }
.good { color: var(--kelp); font-weight: 650; }
a.el-button { text-decoration: none; display: inline-flex; align-items: center; margin-top: 0.6rem; }
</style>
