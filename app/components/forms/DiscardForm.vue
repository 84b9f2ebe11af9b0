<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'discard' }>; jar: JarAnswer }>()
const format = useFormat()
const CAUSES = ['No smell left', 'Mould', 'Damp and set hard', 'Insects', 'Broken glass', 'Recalled']
const cause = ref(props.initial?.cause ?? '')
const read = (): FormReading =>
  cause.value.trim() === ''
    ? { problem: 'Say why: it teaches for the next one.' }
    : { bodies: [{ kind: 'discard', jarId: props.jar.jarId, cause: cause.value.trim() }] }
defineExpose({ read })
</script>

<template>
  <p v-if="!initial">{{ format.weight(jar.leftG) }} are left. With mould anywhere all of it goes, untasted.</p>
  <ChoiceField v-model="cause" label="Why" :choices="CAUSES.map(value => ({ value, words: value }))" />
  <TextField v-model="cause" label="In words" />
</template>
