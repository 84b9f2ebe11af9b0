<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/batch'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'rest' }>, state: BatchState }>()
const accepted = props.state.accepted
const container = ref(props.initial?.container ?? '')
const read = (): FormReading => ({ bodies: [{ kind: 'rest', container: container.value.trim() || undefined }] })
defineExpose({ read })
</script>

<template>
  <p>Fill a jar loosely, about two thirds, and close it. Shake it every day and look for beads of moisture, sticking or clumps. Pieces that hang at the top and fall when the jar is knocked are only packed.</p>
  <CautionList step="rest" :food="state.food" :way="state.run?.way.way" :accepted="accepted" />
  <TextField v-model="container" label="Jar" hint="such as 1.5 L jar" optional />
</template>
