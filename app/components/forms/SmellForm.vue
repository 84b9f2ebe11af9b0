<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

type Smell = Extract<EntryBody, { kind: 'smell' }>
const props = defineProps<{ initial?: Smell; jar: JarAnswer }>()
const smell = ref<Smell['smell'] | undefined>(props.initial?.smell)
const read = (): FormReading =>
  smell.value === undefined
    ? { problem: 'Say how it smells.' }
    : { bodies: [{ kind: 'smell', jarId: props.jar.jarId, smell: smell.value }] }
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-model="smell"
    label="Open the jar. It smells"
    :choices="[
      { value: 'strong', words: 'strong' },
      { value: 'weaker', words: 'weaker', note: 'use more' },
      { value: 'crushed', words: 'only when crushed' },
      { value: 'none', words: 'of nothing', note: 'to the compost' },
      { value: 'rancid', words: 'rancid, of old oil', note: 'discard it' },
      { value: 'musty', words: 'musty', note: 'discard it untasted' },
    ]"
  />
</template>
