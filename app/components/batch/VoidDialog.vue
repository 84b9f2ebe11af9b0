<script setup lang="ts">
import type { Entry } from '#core/log'

const props = defineProps<{ entry: Entry }>()
const emit = defineEmits<{ close: []; confirm: [reason: string] }>()
const open = ref(true)
const reason = ref('')
const format = useFormat()
const words = computed(() => logWords(props.entry.body, format))
function confirm() {
  emit('confirm', reason.value.trim())
  open.value = false
}
</script>

<template>
  <ElDialog v-model="open" title="Void this entry" width="460px" align-center @closed="emit('close')">
    <form class="form" @submit.prevent="confirm">
      <p>“{{ words }}” no longer counts. It stays in the log, struck through.</p>
      <TextField v-model="reason" label="Why" hint="such as wrong batch" optional />
      <div class="row">
        <ElButton type="primary" native-type="submit">Void it</ElButton><ElButton @click="open = false">Leave it</ElButton>
      </div>
    </form>
  </ElDialog>
</template>
