<script setup lang="ts">
import type { EntryBody } from '#core/batch'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'take' }>, jarId: string, leftG: number }>()
const format = useFormat()
const weightG = ref<number | undefined>(props.initial?.weightG)
const use = ref(props.initial?.use ?? '')
const read = (): FormReading => weightG.value === undefined
  ? { problem: 'Weigh what you take.' }
  : { bodies: [{ kind: 'take', jarId: props.jarId, weightG: weightG.value, use: use.value.trim() || undefined }] }
defineExpose({ read })
</script>

<template>
  <WeightField v-model="weightG" label="Taken" :hint="`${format.weight(leftG)} in the jar`" required autofocus />
  <p class="quiet small">With its water back it is fresh food: cold, or used within two hours.</p>
  <TextField v-model="use" label="For" optional />
</template>
