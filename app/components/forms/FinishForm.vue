<script setup lang="ts">
import type { BatchState } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState }>()
const format = useFormat()
const reason = ref(props.state.unpackedG === undefined ? 'Too long in the warm' : '')
const read = (): FormReading => ({ bodies: [{ kind: 'finish', reason: reason.value.trim() || undefined }] })
defineExpose({ read })
</script>

<template>
  <p v-if="props.state.unpackedG === undefined">All of it is thrown away, and the batch ends here.</p>
  <p v-else>{{ format.weight(props.state.unpackedG) }} is not in a jar. The batch ends here, and this counts as used or lost.</p>
  <TextField v-model="reason" label="What became of it" hint="such as straight into the soup" optional />
</template>
