<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** A word for next time, shown when the same is begun again. */
type Review = Extract<EntryBody, { kind: 'review' }>
const props = defineProps<{ initial?: Review; jar?: JarAnswer }>()
const again = ref<Review['again'] | undefined>(props.initial?.again)
const colour = ref<number | undefined>(props.initial?.colour)
const taste = ref<number | undefined>(props.initial?.taste)
const text = ref(props.initial?.text ?? '')
const POINTS = ['1 poor', '2', '3 fair', '4', '5 fine'].map((words, i) => ({ value: i + 1, words }))
const HINTS = ['Too salty', 'Cut it thinner', 'Cut it thicker', 'Lower heat', 'Seeds out', 'Use another spoon', 'Not worth the hours']
const add = (hint: string) => {
  text.value = text.value.trim() === '' ? hint : `${text.value.trim().replace(/\.$/, '')}. ${hint}`
}
function read(): FormReading {
  if (again.value === undefined) return { problem: 'Say whether it is worth repeating.' }
  if (again.value === 'changed' && text.value.trim() === '') return { problem: 'Say what to change.' }
  return {
    bodies: [
      {
        kind: 'review',
        jarId: props.jar?.jarId,
        again: again.value,
        colour: colour.value,
        taste: taste.value,
        text: text.value.trim() || undefined,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-model="again"
    label="Worth repeating?"
    :choices="[
      { value: 'yes', words: 'Yes, as it was' },
      { value: 'changed', words: 'Yes, but changed' },
      { value: 'no', words: 'No' },
    ]"
  />
  <TextField v-model="text" label="What to do otherwise" optional :rows="2" />
  <div class="row hints">
    <button v-for="hint in HINTS" :key="hint" type="button" @click="add(hint)">{{ hint }}</button>
  </div>
  <ChoiceField v-model="colour" label="Colour" :choices="POINTS" />
  <ChoiceField v-model="taste" label="Taste" :choices="POINTS" />
</template>

<style scoped>
.hints {
  gap: 0.4rem;
}
.hints button {
  min-height: 40px;
  padding: 0 0.8rem;
  border: 1px dashed var(--el-border-color);
  border-radius: 8px;
  background: none;
  cursor: pointer;
  color: var(--ink);
}
.hints button:hover {
  background: var(--sunk);
}
</style>
