<script setup lang="ts">
import type { BatchState } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState }>()
const format = useFormat()
const reason = ref('')
const read = (): FormReading => ({ bodies: [{ kind: 'finish', reason: reason.value.trim() || undefined }] })
defineExpose({ read })
</script>

<template>
  <p>{{ format.weight(props.state.unpackedG ?? 0) }} is not in a jar. The batch ends here, and this counts as used or lost.</p>
  <TextField v-model="reason" label="What became of it" hint="such as straight into the soup" optional />
</template>
