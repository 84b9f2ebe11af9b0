<script setup lang="ts">
import type { FeelCheck } from '#core/dryness'
import { FEEL_QUESTIONS } from '#core/dryness'
import type { FeelForm } from '#core/foods'
import type { BatchState } from '#core/log'
import type { Paper } from '~/composables/usePaper'

/** Pieces in the hand, on paper: whoever picks them says from where, how thick and how cool; the pieces answer by what they are. */
const props = defineProps<{ paper: Paper; state: BatchState; form: FeelForm }>()
const emit = defineEmits<{ felt: [check: FeelCheck] }>()
const places = computed(() => props.state.run!.present.map(tray => props.state.run!.places.placeAt(tray, Infinity)).sort((a, b) => a - b))
const chosen = ref<number[]>([places.value[0]!])
const thick = ref(false)
const cooled = ref(false)
const felt = ref<{ tray: number; words: string }[]>()
const problem = ref('')
async function take() {
  problem.value = ''
  try {
    const reading = await props.paper.feel(chosen.value, thick.value, cooled.value)
    const questions = FEEL_QUESTIONS[props.form]
    felt.value = reading.pieces.map(({ tray, answers }) => ({
      tray,
      words: questions.map(({ key, answers: offered }) => offered.find(answer => answer.key === answers[key])?.words).join('; '),
    }))
    emit('felt', reading.check)
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div class="hands">
    <TrayPicker v-if="places.length > 1" v-model="chosen" label="Take pieces from" :trays="places" />
    <ChoiceField
      v-model="thick"
      label="Which"
      :choices="[
        { value: false, words: 'As they come' },
        { value: true, words: 'The thickest in sight' },
      ]"
    />
    <ChoiceField
      v-model="cooled"
      label="And feel them"
      :choices="[
        { value: false, words: 'At once, warm' },
        { value: true, words: 'Cooled for five minutes' },
      ]"
    />
    <div class="row"><ElButton :disabled="chosen.length === 0" @click="take">Feel them</ElButton></div>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <ul v-if="felt" class="plain-list" role="status">
      <li v-for="piece in felt" :key="piece.tray">
        <strong>From tray {{ piece.tray }}:</strong> {{ piece.words }}.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.hands {
  display: grid;
  gap: 0.7rem;
  padding: 0.8rem;
  border: 1px dashed var(--quiet);
  border-radius: 8px;
}
</style>
