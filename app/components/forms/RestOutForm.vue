<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** One of several jars at rest goes; the others rest on. */
type RestOut = Extract<EntryBody, { kind: 'restOut' }>
const props = defineProps<{ state: BatchState; initial?: RestOut; place?: number }>()
const jars = props.state.rest!.jars.filter(jar => !jar.out || jar.number === props.initial?.jar)
const jar = ref<number | undefined>(props.initial?.jar ?? jars.find(item => item.mould)?.number ?? props.place)
const weightG = ref<number | undefined>(props.initial?.weightG ?? jars.find(item => item.number === jar.value)?.weightG)
const cause = ref(props.initial?.cause ?? 'Mould')
function read(): FormReading {
  if (jar.value === undefined) return { problem: 'Say which jar.' }
  if (weightG.value === undefined) return { problem: 'Weigh what is thrown away.' }
  if (cause.value.trim() === '') return { problem: 'Say why.' }
  return { bodies: [{ kind: 'restOut', jar: jar.value, weightG: weightG.value, cause: cause.value.trim() }] }
}
defineExpose({ read })
</script>

<template>
  <p>With mould anywhere the whole jar goes, untasted; look hard at the others, which came from the same trays.</p>
  <ChoiceField v-model="jar" label="Jar" :choices="jars.map(item => ({ value: item.number, words: item.name }))" />
  <WeightField v-model="weightG" label="What was in it" required />
  <TextField v-model="cause" label="Why" />
</template>
