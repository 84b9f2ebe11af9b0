<script setup lang="ts">
import { WAYS } from '#core/ways'
import type { BatchState, EntryBody } from '#core/log'
import { FEEL_QUESTIONS, type FeelCheck } from '#core/dryness'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState; initial?: Extract<EntryBody, { kind: 'feel' }> }>()
const form =
  props.initial?.check.form ?? (props.state.run && WAYS[props.state.run.way.way].underVacuum ? 'foam' : props.state.card.feelForm)
const answers = reactive<Record<string, string | undefined>>({ ...props.initial?.check.answers })
// Nothing is answered beforehand: a test that was not made is not logged by two taps.
const cooled = ref(props.initial?.check.cooled)
const places = ref(props.initial?.check.places)
/** On paper the pieces answer. */
const paper = usePaper()
function felt(check: FeelCheck) {
  Object.assign(answers, check.answers)
  cooled.value = check.cooled
  places.value = check.places
}

function read(): FormReading {
  const given = Object.fromEntries(Object.entries(answers).filter((pair): pair is [string, string] => pair[1] !== undefined))
  if (Object.keys(given).length === 0) return { problem: 'Answer at least one question.' }
  if (cooled.value === undefined) return { problem: 'Say whether the pieces were cooled: warm food feels softer than it is.' }
  if (places.value === undefined) return { problem: 'Say from how many places they came.' }
  return { bodies: [{ kind: 'feel', check: { form, answers: given, cooled: cooled.value, places: places.value } }] }
}
defineExpose({ read })
</script>

<template>
  <p class="quiet">{{ state.food.drynessTest.value }} Take the thickest pieces from several trays and let them cool for five minutes.</p>
  <PaperHands v-if="paper" :paper="paper" :state="state" :form="form" @felt="felt" />
  <ChoiceField
    v-for="question in FEEL_QUESTIONS[form]"
    :key="question.key"
    v-model="answers[question.key]"
    :label="question.ask"
    :choices="question.answers.map(answer => ({ value: answer.key, words: answer.words }))"
  />
  <ChoiceField
    v-model="cooled"
    label="The pieces were"
    :choices="[
      { value: true, words: 'cooled' },
      { value: false, words: 'still warm' },
    ]"
  />
  <ChoiceField
    v-model="places"
    label="Taken from"
    :choices="[
      { value: 1, words: 'one place' },
      { value: 2, words: 'two' },
      { value: 3, words: 'three or more' },
    ]"
  />
</template>
