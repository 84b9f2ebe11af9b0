<script setup lang="ts">
import type { BatchState, Entry, EntryBody, EntryKind } from '#core/log'
import type { WriteOptions } from '~/composables/useBatch'
import type { Parcel } from '~/data/parcel'
import type { BatchAnswer } from '#shared/contracts'
import { FORMS } from '~/components/forms'

/** The forms of a batch's log. */
defineProps<{
  kind: EntryKind
  /** What was set aside and is put right: it goes when this is written. */
  parcel?: Parcel
  write: (bodies: readonly EntryBody[], options: WriteOptions) => Promise<void>
  state?: BatchState
  page?: BatchAnswer
  correcting?: Entry
  place?: number
  step?: string
}>()
const emit = defineEmits<{ close: []; saved: [kind: EntryKind] }>()
</script>

<template>
  <FormDialog v-bind="$props" :shown="FORMS[kind]!" @close="emit('close')" @saved="saved => emit('saved', saved)" />
</template>
