<script setup lang="ts">
import { foldBatch } from '#core/batch'
import type { BatchState, Entry, EntryBody, EntryKind, EntryOf } from '#core/log'
import type { WriteOptions } from '~/composables/useBatch'
import type { Parcel } from '~/data/parcel'
import type { BatchAnswer, JarAnswer } from '#shared/contracts'
import { JAR_FORMS } from '~/components/forms/jar'

/** Forms on a jar. Correcting its packing needs the batch's state and form, which are fetched then. */
const props = defineProps<{
  kind: EntryKind
  correcting?: Entry & { batchId?: string }
  jar: JarAnswer
  /** What was set aside and is put right: it goes when this is written. */
  parcel?: Parcel
  write: (bodies: readonly EntryBody[], options: WriteOptions) => Promise<void>
}>()
const emit = defineEmits<{ close: []; changed: [] }>()
const stock = computed(() => (props.correcting?.body.kind === 'stock' ? (props.correcting as EntryOf<'stock'>) : undefined))
const state = shallowRef<BatchState>()
const page = shallowRef<BatchAnswer>()
onMounted(async () => {
  const batchId = props.correcting?.batchId ?? props.jar.batchId
  if (JAR_FORMS[props.kind] || !batchId) return
  const answer = await call('batch', { params: { batchId } })
  state.value = foldBatch(answer.entries, () => answer.food)
  page.value = answer
})
</script>

<template>
  <LazyStockDialog v-if="stock" :correcting="stock" @close="emit('close')" @saved="emit('changed')" />
  <FormDialog
    v-else-if="JAR_FORMS[kind]"
    :kind="kind"
    :shown="JAR_FORMS[kind]!"
    :correcting="correcting"
    :parcel="parcel"
    :jar="jar"
    :write="write"
    @close="emit('close')"
  />
  <LazyEntryDialog
    v-else-if="page"
    :kind="kind"
    :correcting="correcting"
    :parcel="parcel"
    :state="state"
    :page="page"
    :write="write"
    @close="emit('close')"
  />
</template>
