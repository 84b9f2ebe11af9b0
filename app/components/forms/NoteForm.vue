<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'note' }> }>()
const text = ref(props.initial?.text ?? '')
const read = (): FormReading =>
  text.value.trim() === '' ? { problem: 'Write the note.' } : { bodies: [{ kind: 'note', text: text.value.trim() }] }
defineExpose({ read })
</script>

<template>
  <TextField v-model="text" label="Note" :rows="4" />
</template>
