<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import { safetyRule } from '#core/safety'
import type { FormReading } from '~/composables/useBatch'

type Look = Extract<EntryBody, { kind: 'look' }>
const props = defineProps<{ initial?: Look; state: BatchState }>()
const jars = props.state.rest?.jars.filter(jar => !jar.out) ?? []
const jar = ref<number | undefined>(props.initial?.jar)
const saw = ref<Look['saw'] | undefined>(props.initial?.saw)
const paper = usePaper()
async function lookOnPaper() {
  saw.value = await paper!.look()
}
const note = ref(props.initial?.note ?? '')
const read = (): FormReading =>
  saw.value === undefined
    ? { problem: 'Say what was seen.' }
    : { bodies: [{ kind: 'look', saw: saw.value, jar: jar.value || undefined, note: note.value.trim() || undefined }] }
defineExpose({ read })
</script>

<template>
  <div v-if="paper">
    <ElButton :disabled="saw !== undefined" @click="lookOnPaper">Hold it to the light, and knock</ElButton>
  </div>
  <ChoiceField
    v-if="jars.length > 1"
    v-model="jar"
    label="Which jar"
    :choices="[{ value: 0, words: 'All alike' }, ...jars.map(item => ({ value: item.number, words: item.name }))]"
  />
  <ChoiceField
    v-model="saw"
    label="Shaken, the jar shows"
    :choices="[
      { value: 'dry', words: 'no moisture' },
      { value: 'hung', words: 'hung up, fell when knocked' },
      { value: 'moisture', words: 'beads of moisture' },
      { value: 'clumps', words: 'sticking or clumps' },
      { value: 'mould', words: 'mould' },
    ]"
  />
  <p v-if="saw === 'mould'" class="caution">{{ safetyRule('mould')!.text }} {{ safetyRule('mould')!.wayOut }}</p>
  <p v-else-if="saw === 'moisture' || saw === 'clumps'" class="caution">{{ safetyRule('moisture')!.text }}</p>
  <TextField v-model="note" label="Note" optional />
</template>
