<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** For correcting what came in; a new basket has a page of its own. */
type Intake = Extract<EntryBody, { kind: 'intake' }>
const props = defineProps<{ state: BatchState; initial: Intake }>()
const weightG = ref<number | undefined>(props.initial.weightG)
const weighed = ref(props.initial.weighed)
const cardKey = ref(props.initial.cardKey)
const purpose = ref(props.initial.purpose)
const source = ref(props.initial.source)
const cultivar = ref(props.initial.cultivar ?? '')

function read(): FormReading {
  if (weightG.value === undefined) return { problem: 'Give the weight of the basket.' }
  if (source.value.trim() === '') return { problem: 'Say where it came from.' }
  return {
    bodies: [
      {
        ...props.initial,
        weightG: weightG.value,
        // Put right it was weighed: the doubt of a count is over, and kinds keep their shares.
        ...(weightG.value !== props.initial.weightG && {
          weightSdG: undefined,
          mix: props.initial.mix?.map(part => ({ ...part, weightG: (part.weightG * weightG.value!) / props.initial.weightG })),
        }),
        weighed: weighed.value,
        cardKey: cardKey.value,
        purpose: purpose.value,
        source: source.value.trim(),
        cultivar: cultivar.value.trim() || undefined,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <WeightField v-model="weightG" label="Weight of the basket" required />
  <ChoiceField
    v-if="state.food.uncooked"
    v-model="weighed"
    label="On the scale it was"
    :choices="[
      { value: 'uncooked', words: 'Uncooked' },
      { value: 'cooked', words: 'Cooked' },
    ]"
  />
  <ChoiceField v-model="purpose" label="For" :choices="PURPOSE_CHOICES" />
  <ChoiceField v-model="cardKey" label="Cut" :choices="state.food.cards.map(card => ({ value: card.key, words: card.name }))" />
  <div class="pair">
    <TextField v-model="source" label="Where from" />
    <TextField v-model="cultivar" label="Kind" optional />
  </div>
</template>
