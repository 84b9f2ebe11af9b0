<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { STANDARD_WAY, WAYS, WAY_KEYS, type WayKey } from '#core/ways'
import { formatArea, parseArea, parseNumber, temperatureFrom, temperatureIn } from '#core/units'
import type { MachineAnswer, MachineSettings } from '#shared/contracts'

/** The machines and what they are; what their runs say stands on each one's own page. */
const store = useHouseholdStore()
const format = useFormat()
const { answer, problem: lost, ready, load } = useServer('machines')
const machines = computed(() => answer.value ?? [])
interface MachineForm {
  id: string
  version?: number
  kind: WayKey
  name: string
  trays: string
  area: string
  tare: string
  tares: string
  watts: string
  low: string
  high: string
  ice: string
}
const form = ref<MachineForm>()
const problems = ref<Record<string, string>>({})
await ready()
if (lost.value) problems.value = { all: lost.value }

const degrees = (celsius: number) => String(Math.round(temperatureIn(celsius, store.settings.temperatureUnit)))
const taresIn = (tares: Readonly<Record<string, number>>) =>
  Object.entries(tares)
    .map(([tray, grams]) => `${tray}: ${grams}`)
    .join(', ')
function edit(machine?: MachineAnswer) {
  problems.value = {}
  form.value = machine
    ? {
        id: machine.id,
        version: machine.version,
        kind: machine.kind,
        name: machine.name,
        trays: String(machine.trays),
        area: formatArea(machine.trayAreaM2, store.settings.weightUnit).replaceAll('\u00A0', ' '),
        tare: String(machine.trayTareG),
        tares: taresIn(machine.trayTares),
        watts: String(machine.watts),
        low: degrees(machine.lowC),
        high: degrees(machine.highC),
        ice: machine.iceG === undefined ? '' : String(machine.iceG / 1000),
      }
    : {
        id: uuidv7(),
        kind: STANDARD_WAY,
        name: '',
        trays: '6',
        area: formatArea(0.1, store.settings.weightUnit).replaceAll('\u00A0', ' '),
        tare: '0',
        tares: '',
        watts: '500',
        low: degrees(35),
        high: degrees(75),
        ice: '',
      }
}
function takeKind(kind: WayKey) {
  const { heat, drawsPower } = WAYS[kind]
  if (!form.value || form.value.version) return
  form.value.low = degrees(heat.lowC)
  form.value.high = degrees(heat.highC)
  if (!drawsPower) form.value.watts = '1'
}

/** "3: 412, 5: 388" as grams by tray. */
function readTares(text: string, trays: number): Record<string, number> {
  const tares: Record<string, number> = {}
  for (const part of text
    .split(/[,;]\s*/)
    .map(item => item.trim())
    .filter(Boolean)) {
    const match = /^(\d+)\s*[:=]\s*(\d+(?:\.\d+)?)(?:\s*g)?$/.exec(part)
    if (!match) problems.value.trayTares = `“${part}” is not a tray and its grams: write 3: 412.`
    else if (Number(match[1]) < 1 || Number(match[1]) > trays)
      problems.value.trayTares = `There is no tray ${match[1]}: they count from 1 to ${trays}.`
    else tares[match[1]!] = Number(match[2])
  }
  return tares
}
async function save() {
  if (!form.value) return
  const f = form.value
  problems.value = {}
  const number = (field: string, text: string) => {
    const { value, problem } = parseNumber(text)
    if (problem) problems.value[field] = problem
    return value ?? NaN
  }
  const unit = store.settings.temperatureUnit
  const tenth = (value: number) => Math.round(value * 10) / 10
  const trays = number('trays', f.trays)
  const area = parseArea(f.area, store.settings.weightUnit)
  if (area.problem) problems.value.trayAreaM2 = area.problem
  const settings: MachineSettings = {
    id: f.id,
    version: f.version,
    name: f.name,
    kind: f.kind,
    trays,
    trayAreaM2: area.value ?? NaN,
    trayTareG: number('trayTareG', f.tare),
    trayTares: readTares(f.tares, trays),
    watts: number('watts', f.watts),
    lowC: tenth(temperatureFrom(number('lowC', f.low), unit)),
    highC: tenth(temperatureFrom(number('highC', f.high), unit)),
    iceG: WAYS[f.kind].underVacuum && f.ice.trim() !== '' ? number('iceG', f.ice) * 1000 : undefined,
  }
  if (Object.keys(problems.value).length > 0) return
  try {
    await call('saveMachine', { body: settings })
    form.value = undefined
    await load()
  } catch (error) {
    problems.value = fieldsOf(error)
  }
}
const dueTasks = (machine: MachineAnswer) => machine.upkeep?.filter(task => task.due) ?? []
</script>

<template>
  <section class="card">
    <div class="row between">
      <h2>Machines</h2>
      <ElButton @click="edit()">Add a machine</ElButton>
    </div>
    <ul class="plain-list">
      <li v-for="machine in machines" :key="machine.id" class="list-line">
        <div>
          <NuxtLink :to="`/machines/${machine.id}`"
            ><strong>{{ machine.name }}</strong></NuxtLink
          >
          <p class="quiet small">
            {{ WAYS[machine.kind].name }}, {{ plural(machine.trays, 'tray') }} of
            {{ formatArea(machine.trayAreaM2, store.settings.weightUnit) }}, empty {{ format.weight(machine.trayTareG) }} each{{
              Object.keys(machine.trayTares).length ? ` (${Object.keys(machine.trayTares).length} of their own)` : ''
            }}
            · {{ !WAYS[machine.kind].drawsPower ? 'no power' : `${machine.watts} W`
            }}{{ machine.iceG ? `, ice ${format.weight(machine.iceG)}` : '' }} · {{ format.temperature(machine.lowC) }} to
            {{ format.temperature(machine.highC) }}
          </p>
          <p v-if="machine.pace" class="small">{{ paceWords(machine.name, machine.pace) }}</p>
          <p v-if="dueTasks(machine).length" class="small">
            <span class="tag attention">{{ plural(dueTasks(machine).length, 'task') }} of upkeep due</span>
          </p>
        </div>
        <ElButton :aria-label="`Change ${machine.name}`" @click="edit(machine)">Change</ElButton>
      </li>
    </ul>
    <p v-if="problems.all && !form" class="problem">{{ problems.all }}</p>
    <form v-if="form" class="form machine-form" @submit.prevent="save">
      <h3>{{ form.version ? 'Change the machine' : 'A new machine' }}</h3>
      <ChoiceField
        v-model="form.kind"
        label="Kind"
        :choices="WAY_KEYS.map(kind => ({ value: kind, words: WAYS[kind].name }))"
        :problem="problems.kind"
        @update:model-value="kind => takeKind(kind as WayKey)"
      />
      <TextField v-model="form.name" label="Name" :problem="problems.name" />
      <div class="pair">
        <TextField v-model="form.trays" label="Trays" :problem="problems.trays" />
        <TextField
          v-model="form.area"
          label="Size of a tray"
          hint="length × width, such as 30 × 33 cm or 12 × 15 in; or its area"
          :problem="problems.trayAreaM2"
        />
        <TextField v-model="form.tare" label="Empty tray, g" hint="taken off when the tray is on the scale" :problem="problems.trayTareG" />
        <TextField
          v-model="form.tares"
          label="Trays that weigh otherwise"
          hint="tray and grams, such as 3: 412, 5: 388"
          :problem="problems.trayTares"
        />
        <TextField v-if="WAYS[form.kind].drawsPower" v-model="form.watts" label="Power, W" :problem="problems.watts" />
        <TextField
          v-if="WAYS[form.kind].underVacuum"
          v-model="form.ice"
          label="Ice it holds a load, kg"
          hint="its manual says; a load is measured against it"
          :problem="problems.iceG"
          optional
        />
        <TextField v-model="form.low" :label="`Lowest setting, °${store.settings.temperatureUnit}`" :problem="problems.lowC" />
        <TextField v-model="form.high" :label="`Highest setting, °${store.settings.temperatureUnit}`" :problem="problems.highC" />
      </div>
      <p v-if="problems.all" class="problem">{{ problems.all }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save the machine</ElButton><ElButton @click="form = undefined">Cancel</ElButton>
      </div>
    </form>
  </section>
</template>

<style scoped>
.machine-form {
  border-top: 1px solid var(--rule);
  padding-top: 0.9rem;
}
section > h2 {
  margin-bottom: 0.6rem;
}
</style>
