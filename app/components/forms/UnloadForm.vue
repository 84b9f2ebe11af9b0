<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/batch'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState, initial?: Extract<EntryBody, { kind: 'unload' }> }>()
const format = useFormat()
const weightG = ref<number | undefined>(props.initial?.weightG)
const last = props.state.run?.weighings.at(-1)?.weightG

const read = (): FormReading => ({ bodies: [{ kind: 'unload', weightG: weightG.value }] })
defineExpose({ read })
</script>

<template>
  <WeightField v-model="weightG" label="Dry weight" :hint="last === undefined ? 'food only' : `last weighed ${format.weight(last)}`" autofocus />
  <p class="quiet">It says what the jar will hold and how much water gives it back. Let the food cool before a jar is closed on it.</p>
</template>
