<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/batch'
import { temperatureFrom, temperatureIn } from '#core/units'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState; initial?: Extract<EntryBody, { kind: 'heat' }> }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const run = props.state.run!
const unit = settings.value.temperatureUnit
const on = ref(props.initial ? props.initial.setC !== null : run.way.way === 'sun' ? run.setC === null : true)
const degrees = ref(String(Math.round(temperatureIn(props.initial?.setC ?? run.setC ?? run.way.temperatureC, unit))))
const WORDS = {
  dehydrator: {
    label: 'Heat',
    on: 'On',
    off: 'Off',
    set: 'Set to',
    then: 'The drying clock stops. Food in a switched-off machine takes water back from the room.',
  },
  oven: {
    label: 'Oven',
    on: 'On',
    off: 'Off',
    set: 'Set to',
    then: 'The drying clock stops. With the door shut it stays warm a while, and damp.',
  },
  smoker: { label: 'Smoke', on: 'Lit', off: 'Out', set: 'Held at', then: 'Dry it on in a machine the same day: it is still moist.' },
  sun: {
    label: 'It is',
    on: 'Out in the sun',
    off: 'Brought in',
    set: 'Air outdoors',
    then: 'The drying clock stops until it is out again. Covered indoors it takes a little back.',
  },
  air: { label: 'It is', on: 'Hung up', off: 'Taken down', set: 'Air there', then: 'The drying clock stops.' },
  'freeze-dryer': {
    label: 'Cycle',
    on: 'Running',
    off: 'Stopped',
    set: 'Shelves to',
    then: 'What still holds ice thaws: start again, or take it out into the freezer.',
  },
}
const words = WORDS[run.way.way]

function read(): FormReading {
  if (!on.value) return { bodies: [{ kind: 'heat', runId: run.runId, setC: null }] }
  const value = Number(degrees.value.trim().replace(',', '.'))
  if (degrees.value.trim() === '' || !Number.isFinite(value))
    return { problem: `“${degrees.value}” is not a temperature. Write a number in °${unit}.` }
  return { bodies: [{ kind: 'heat', runId: run.runId, setC: Math.round(temperatureFrom(value, unit) * 10) / 10 }] }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-model="on"
    :label="words.label"
    :choices="[
      { value: true, words: words.on },
      { value: false, words: words.off },
    ]"
  />
  <TextField v-if="on" v-model="degrees" :label="`${words.set}, °${unit}`" :hint="format.sentence(run.way.temperatureReason)" />
  <p v-else class="quiet">{{ words.then }}</p>
</template>
