<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { DeviceAnswer, DeviceKind, DeviceSettings } from '#shared/contracts'

/** Scales, probes, hygrometers and controllers that send readings, and where they stand. */
const format = useFormat()
const { now } = useClock()
const { answer: known, problem: lost, ready, load } = useServer('devices')
const { answer: standing, ready: machinesReady } = useServer('machines')
const devices = computed(() => known.value ?? [])
const machines = computed(() => standing.value ?? [])
const form = ref<DeviceSettings>()
const problems = ref<Record<string, string>>({})
const KIND_WORDS: Record<DeviceKind, string> = {
  scale: 'Scale',
  probe: 'Probe',
  hygrometer: 'Hygrometer',
  controller: 'Controller',
  logger: 'Logger file',
}
await Promise.all([ready(), machinesReady()])
if (lost.value) problems.value = { all: lost.value }
const live = ref<Record<string, { at: number; value: number }>>({})
onReadings(readings => {
  live.value = { ...live.value, ...Object.fromEntries(readings.map(item => [item.deviceId + item.channel, item])) }
  if (readings.some(item => !devices.value.find(device => device.id === item.deviceId)?.last.some(last => last.channel === item.channel)))
    void load()
})

function edit(device?: DeviceAnswer) {
  problems.value = {}
  form.value = device
    ? { id: device.id, name: device.name, kind: device.kind, machineId: device.machineId, version: device.version }
    : { id: uuidv7(), name: '', kind: 'probe', machineId: machines.value[0]?.id ?? null }
}
async function save() {
  if (!form.value) return
  problems.value = {}
  try {
    await call('saveDevice', { body: form.value })
    form.value = undefined
    await load()
  } catch (error) {
    problems.value = fieldsOf(error)
  }
}
const machineName = (id: string | null) => machines.value.find(machine => machine.id === id)?.name
const newest = (device: DeviceAnswer) => device.last.map(last => ({ ...last, ...live.value[device.id + last.channel] }))
const places = computed(() => [
  { value: '', words: 'None' },
  ...machines.value.map(machine => ({ value: machine.id, words: machine.name })),
])
const place = computed({
  get: () => form.value?.machineId ?? '',
  set: (id: string) => {
    if (form.value) form.value.machineId = id || null
  },
})
</script>

<template>
  <section class="card" aria-label="Devices">
    <div class="row between">
      <h2>Devices</h2>
      <div class="row">
        <ElButton @click="navigateTo('/logger')">Read a logger’s file</ElButton><ElButton @click="edit()">Add a device</ElButton>
      </div>
    </div>
    <p v-if="!devices.length && !form" class="quiet">
      A scale, a probe or a hygrometer can send what it reads to this address by HTTP; what a probe measures at a machine is then counted on
      the drying clock by itself. Devices to play with come with Dulse: <code>npm run devices</code>.
    </p>
    <ul class="plain-list">
      <li v-for="device in devices" :key="device.id" class="list-line">
        <div>
          <strong>{{ device.name }}</strong>
          <p class="quiet small">
            {{ KIND_WORDS[device.kind] }}{{ machineName(device.machineId) ? ` at the ${machineName(device.machineId)}` : '' }}
          </p>
          <p class="small">
            {{
              newest(device)
                .map(last => format.reading(last.channel, last.value))
                .join(', ') || 'nothing read yet'
            }}<span v-if="newest(device).length" class="quiet">, {{ format.moment(newest(device)[0]!.at, now) }}</span>
          </p>
        </div>
        <ElButton :aria-label="`Change ${device.name}`" @click="edit(device)">Change</ElButton>
      </li>
    </ul>
    <form v-if="form" class="form device-form" @submit.prevent="save">
      <h3>{{ form.version ? 'Change the device' : 'A new device' }}</h3>
      <TextField v-model="form.name" label="Name" :problem="problems.name" />
      <ChoiceField
        v-model="form.kind"
        label="Kind"
        :choices="
          (['scale', 'probe', 'hygrometer', 'controller'] as const).map(kind => ({ value: kind as DeviceKind, words: KIND_WORDS[kind] }))
        "
        :problem="problems.kind"
      />
      <ChoiceField v-model="place" label="Stands at" :choices="places" :problem="problems.machineId" />
      <p class="quiet small">
        It sends to <code>/api/readings</code> with the id <code>{{ form.id }}</code>; docs/devices.md says how.
      </p>
      <p v-if="problems.all" class="problem">{{ problems.all }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save the device</ElButton><ElButton @click="form = undefined">Cancel</ElButton>
      </div>
    </form>
    <p v-else-if="problems.all" class="problem">{{ problems.all }}</p>
  </section>
</template>

<style scoped>
.device-form {
  border-top: 1px solid var(--rule);
  padding-top: 0.9rem;
}
code {
  font-size: 0.88em;
  overflow-wrap: anywhere;
}
</style>
