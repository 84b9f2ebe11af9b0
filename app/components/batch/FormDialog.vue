<script setup lang="ts">
import type { Component } from 'vue'
import type { BatchState, Entry, EntryBody, EntryKind } from '#core/log'
import type { BatchAnswer, JarAnswer } from '#shared/contracts'
import type { FormReading, WriteOptions } from '~/composables/useBatch'
import type { TakenPicture } from '~/composables/usePictures'
import type { Parcel } from '~/data/parcel'

/** A form of the log in its frame: what happened, and when. */
const props = defineProps<{
  kind: EntryKind
  shown: { title: string; save: string; form: Component; props?: object }
  /** What was set aside and is put right: it goes when this is written. */
  parcel?: Parcel
  write: (bodies: readonly EntryBody[], options: WriteOptions) => Promise<void>
  state?: BatchState
  page?: BatchAnswer
  /** The entry that is corrected. */
  correcting?: Entry
  jar?: JarAnswer
  /** The place of a tray that it is about. */
  place?: number
  /** The step of preparing that it is about. */
  step?: string
}>()
const emit = defineEmits<{ close: []; saved: [kind: EntryKind] }>()

const outbox = useOutboxStore()
const paper = usePaper()
const form = ref<{ read: () => FormReading }>()
/** Pictures that go along with what is logged. */
const taken = ref<TakenPicture[]>([])
const at = ref<number | undefined>(props.correcting?.at)

async function save() {
  // A large form is fetched when it is first wanted; a hand may be quicker.
  if (!form.value) return ['The form is still coming in: press once more.']
  const reading = form.value.read()
  if (reading.problem !== undefined) return [reading.problem]
  await props.write(reading.bodies, {
    at: at.value,
    replaces: props.parcel ? props.correcting?.replaces : props.correcting?.id,
    more: reading.more,
    files: reading.files,
    taken: taken.value,
  })
  if (props.parcel) await outbox.throwAway(props.parcel)
  emit('saved', props.kind)
}
</script>

<template>
  <FormFrame
    v-slot="{ atProblem }"
    :title="correcting ? `Correct: ${shown.title.toLowerCase()}` : shown.title"
    width="600px"
    :verb="correcting ? 'Save the correction' : shown.save"
    :save="save"
    @close="emit('close')"
  >
    <component
      :is="shown.form"
      ref="form"
      v-bind="shown.props"
      :state="state"
      :page="page"
      :initial="correcting?.body"
      :jar="jar"
      :place="place"
      :step="step"
      :at="at"
    />
    <PictureField v-if="kind !== 'picture' && !correcting && !paper" v-model="taken" :shows="subjectOf(kind)" />
    <WhenField v-model="at" :problem="atProblem" />
  </FormFrame>
</template>
