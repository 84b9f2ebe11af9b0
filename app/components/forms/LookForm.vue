<script setup lang="ts">
import type { EntryBody } from '#core/batch'
import { safetyRule } from '#core/safety'
import type { FormReading } from '~/composables/useBatch'

type Look = Extract<EntryBody, { kind: 'look' }>
const props = defineProps<{ initial?: Look }>()
const saw = ref<Look['saw'] | undefined>(props.initial?.saw)
const note = ref(props.initial?.note ?? '')
const read = (): FormReading => saw.value === undefined
  ? { problem: 'Say what was seen.' }
  : { bodies: [{ kind: 'look', saw: saw.value, note: note.value.trim() || undefined }] }
defineExpose({ read })
</script>

<template>
  <ChoiceField v-model="saw" label="Shaken, the jar shows" :choices="[{ value: 'dry', words: 'no moisture' }, { value: 'moisture', words: 'beads of moisture' }, { value: 'clumps', words: 'sticking or clumps' }, { value: 'mould', words: 'mould' }]" />
  <p v-if="saw === 'mould'" class="caution">{{ safetyRule('mould')!.text }} {{ safetyRule('mould')!.wayOut }}</p>
  <p v-else-if="saw && saw !== 'dry'" class="caution">{{ safetyRule('moisture')!.text }}</p>
  <TextField v-model="note" label="Note" optional />
</template>
