<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/batch'
import { temperatureFrom, temperatureIn } from '#core/units'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState, initial?: Extract<EntryBody, { kind: 'heat' }> }>()
const { settings } = storeToRefs(useHouseholdStore())
const run = props.state.run!
const unit = settings.value.temperatureUnit
const on = ref(props.initial ? props.initial.setC !== null : true)
const degrees = ref(String(Math.round(temperatureIn(props.initial?.setC ?? run.setC ?? props.state.card.temperatureC, unit))))

function read(): FormReading {
  if (!on.value) return { bodies: [{ kind: 'heat', runId: run.runId, setC: null }] }
  const value = Number(degrees.value.trim().replace(',', '.'))
  if (degrees.value.trim() === '' || !Number.isFinite(value)) return { problem: `“${degrees.value}” is not a temperature. Write a number in °${unit}.` }
  return { bodies: [{ kind: 'heat', runId: run.runId, setC: Math.round(temperatureFrom(value, unit) * 10) / 10 }] }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField v-model="on" label="Heat" :choices="[{ value: true, words: 'On' }, { value: false, words: 'Off' }]" />
  <TextField v-if="on" v-model="degrees" :label="`Set to, °${unit}`" :hint="state.card.temperatureReason" />
  <p v-else class="quiet">The drying clock stops. Food in a switched-off machine takes water back from the room.</p>
</template>
