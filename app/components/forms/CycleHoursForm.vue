<script setup lang="ts">
import type { BatchState, BodyOf } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** Hours added to a freeze dryer's cycle. */
const props = defineProps<{ state: BatchState; initial?: BodyOf<'cycleHours'> }>()
const run = props.state.run!
const hours = ref<number | undefined>(props.initial?.hours)
const why = ref(props.initial?.why ?? '')
const read = (): FormReading =>
  hours.value === undefined
    ? { problem: 'Say how many hours were added on the machine.' }
    : { bodies: [{ kind: 'cycleHours', runId: run.runId, hours: hours.value, why: why.value.trim() || undefined }] }
defineExpose({ read })
</script>

<template>
  <NumberField
    v-model="hours"
    label="Hours added to the cycle"
    :least="-48"
    :most="48"
    hint="less than nothing takes some off again"
    required
    autofocus
  />
  <TextField v-model="why" label="Why" optional placeholder="so that it holds until morning" />
  <p class="quiet">Under vacuum the food loses nothing by waiting. The next weighing is asked for when the longer cycle is through.</p>
</template>
