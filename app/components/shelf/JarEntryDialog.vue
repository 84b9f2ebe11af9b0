<script setup lang="ts">
import { foldBatch, type BatchState, type Entry, type EntryBody, type EntryKind } from '#core/batch'
import type { BatchAnswer, JarAnswer } from '#shared/contracts'

/** Forms on a jar. Correcting its packing needs the batch's state, which is fetched then. */
const props = defineProps<{
  kind: EntryKind
  correcting?: Entry
  jar: JarAnswer
  write: (bodies: readonly EntryBody[], options: { at?: number, replaces?: string }) => Promise<void>
}>()
const emit = defineEmits<{ close: [] }>()
const state = shallowRef<BatchState>()
const ready = ref(props.kind !== 'pack')
onMounted(async () => {
  if (ready.value) return
  const page = await callServer<BatchAnswer>(`/api/batches/${props.jar.batchId}`)
  state.value = foldBatch(page.entries, () => page.food)
  ready.value = true
})
</script>

<template>
  <EntryDialog v-if="ready" :kind="kind" :correcting="correcting" :state="state" :jar-id="jar.jarId" :left-g="jar.leftG" :write="write" @close="emit('close')" />
</template>
