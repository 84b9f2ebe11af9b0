<script setup lang="ts">
import { WAYS } from '#core/ways'
import type { BatchState, EntryBody } from '#core/log'
import { heatOfRun } from '#core/water'
import { temperatureFrom, temperatureIn } from '#core/units'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState; initial?: Extract<EntryBody, { kind: 'heat' }> }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const run = props.state.run!
const unit = settings.value.temperatureUnit
const on = ref(props.initial ? props.initial.setC !== null : !WAYS[run.way.way].nightsCount ? run.setC === null : true)
const degrees = ref(String(Math.round(temperatureIn(props.initial?.setC ?? heatOfRun(run), unit))))
const words = WAYS[run.way.way].words.form

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
