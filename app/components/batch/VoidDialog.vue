<script setup lang="ts">
import type { Entry } from '#core/log'

const props = defineProps<{ entry: Entry }>()
const emit = defineEmits<{ close: []; confirm: [reason: string] }>()
const reason = ref('')
const format = useFormat()
const words = computed(() => logWords(props.entry.body, format))
const confirm = async () => {
  emit('confirm', reason.value.trim())
  return undefined
}
</script>

<template>
  <FormFrame title="Remove it from the log" width="460px" verb="Remove it" :save="confirm" @close="emit('close')">
    <p>“{{ words }}” no longer counts. It stays to be seen, struck through, and can be put back.</p>
    <TextField v-model="reason" label="Why" hint="such as wrong batch" optional />
  </FormFrame>
</template>
