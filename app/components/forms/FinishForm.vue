<script setup lang="ts">
import { whatThereIs } from '#core/flow'
import type { Purpose } from '#core/foods'
import type { BatchState } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState }>()
const format = useFormat()
const lots = props.state.stage === 'grinding' || props.state.stage === 'shelf' ? whatThereIs(props.state, Date.now()) : []
const reason = ref(props.state.stage === 'grinding' ? '' : 'Too long in the warm')
const read = (): FormReading => ({ bodies: [{ kind: 'finish', reason: reason.value.trim() || undefined }] })
defineExpose({ read })
</script>

<template>
  <p v-if="state.stage !== 'grinding'">All of it is thrown away, and the batch ends here.</p>
  <p v-else-if="lots.length">
    {{ lots.map(lot => `${format.weight(lot.weightG.p50)} of ${PURPOSE_WORDS[lot.form as Purpose]}`).join(' and ') }}
    {{ lots.length > 1 ? 'are' : 'is' }} in no jar. The batch ends here, and this counts as used or lost.
  </p>
  <p v-else>All of it is in its jars.</p>
  <TextField v-model="reason" label="What became of it" hint="such as straight into the soup" optional />
</template>
