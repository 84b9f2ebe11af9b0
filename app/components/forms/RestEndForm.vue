<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState; initial?: Extract<EntryBody, { kind: 'restEnd' }> }>()
const format = useFormat()
const weightG = ref<number | undefined>(props.initial?.weightG)
const read = (): FormReading => ({ bodies: [{ kind: 'restEnd', weightG: weightG.value }] })
defineExpose({ read })
</script>

<template>
  <p v-if="state.rest?.startedAt === undefined">
    Without a rest a wet piece is found too late: powder that is not dry sets like plaster. One school grinds straight from the machine
    while the food is warm and crisp, and rests the powder instead.
  </p>
  <WeightField
    v-model="weightG"
    label="Weight now"
    :hint="state.dryG === undefined ? 'food only' : `${format.weight(state.dryG)} came out of the machine`"
    autofocus
  />
</template>
