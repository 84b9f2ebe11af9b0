<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'take' }>; jar: JarAnswer }>()
const format = useFormat()
const weightG = ref<number | undefined>(props.initial?.weightG)
const use = ref(props.initial?.use ?? '')
const read = (): FormReading =>
  weightG.value === undefined
    ? { problem: 'Weigh what you take.' }
    : { bodies: [{ kind: 'take', jarId: props.jar.jarId, weightG: weightG.value, use: use.value.trim() || undefined }] }
defineExpose({ read })
</script>

<template>
  <WeightField v-model="weightG" label="Taken" :hint="`${format.weight(jar.leftG)} in the jar`" required autofocus />
  <p v-if="jar.mixed.saltG > 0.5" class="caution">Salt was mixed in: salt the dish less.</p>
  <p class="quiet small">With its water back it is fresh food: cold, or used within two hours.</p>
  <TextField v-model="use" label="For" optional />
</template>
