<script setup lang="ts">
import type { Component } from 'vue'
import type { BatchState, Entry, EntryBody, EntryKind } from '#core/log'
import type { BatchAnswer, JarAnswer } from '#shared/contracts'
import type { FormReading, WriteOptions } from '~/composables/useBatch'
import type { Parcel } from '~/data/outbox'

/** The frame of every form: when it happened, what is wrong, and one button. */
const props = defineProps<{
  kind: EntryKind
  shown: { title: string; save: string; form: Component }
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
const open = ref(true)
const form = ref<{ read: () => FormReading }>()
const at = ref<number | undefined>(props.correcting?.at)
const problems = ref<string[]>([])
const busy = ref(false)
const checkFields = useFieldChecks()
const atProblem = ref<string>()

async function save() {
  if (checkFields() !== undefined) return
  const reading = form.value?.read()
  if (!reading || busy.value) return
  if (reading.problem !== undefined) {
    problems.value = [reading.problem]
    return
  }
  busy.value = true
  problems.value = []
  atProblem.value = undefined
  try {
    await props.write(reading.bodies, {
      at: at.value,
      replaces: props.parcel ? props.correcting?.replaces : props.correcting?.id,
      more: reading.more,
    })
    if (props.parcel) await outbox.throwAway(props.parcel)
    emit('saved', props.kind)
    open.value = false
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    atProblem.value = error.problems.find(problem => problem.field === 'at')?.message
    problems.value = error.problems.filter(problem => problem.field !== 'at').map(problem => problem.message)
    if (problems.value.length === 0 && !atProblem.value) problems.value = [error.message]
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ElDialog
    v-model="open"
    :title="correcting ? `Correct: ${shown.title.toLowerCase()}` : shown.title"
    width="600px"
    align-center
    @closed="emit('close')"
  >
    <form class="form" @submit.prevent="save">
      <component
        :is="shown.form"
        ref="form"
        :state="state"
        :page="page"
        :initial="correcting?.body"
        :jar="jar"
        :place="place"
        :step="step"
        :at="at"
      />
      <WhenField v-model="at" :problem="atProblem" />
      <div role="alert">
        <p v-for="problem in problems" :key="problem" class="problem">{{ problem }}</p>
      </div>
      <div class="row foot">
        <ElButton type="primary" native-type="submit" :loading="busy">{{ correcting ? 'Save the correction' : shown.save }}</ElButton>
        <ElButton @click="open = false">Leave it</ElButton>
      </div>
    </form>
  </ElDialog>
</template>
