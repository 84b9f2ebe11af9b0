<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { BatchState, BodyOf } from '#core/log'
import type { Purpose } from '#core/foods'
import type { BatchAnswer, NewBatch } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** Part of the basket for another product: a batch of its own, of the same lot. */
const props = defineProps<{ state: BatchState; page: BatchAnswer; initial?: BodyOf<'split'> }>()
const format = useFormat()
const weightG = ref<number | undefined>(props.initial?.weightG)
const purpose = ref<Purpose>('powder')
const cardKey = ref(props.state.food.cards.find(card => card.key !== props.state.card.key)?.key ?? props.state.card.key)
const what = ref(props.initial?.what ?? '')
/** Of the food itself, or of what came off it: skins, seeds, stalks. */
const trimmed = ref(false)

function read(): FormReading {
  if (weightG.value === undefined) return { problem: 'Weigh the part that becomes a batch of its own.' }
  if (props.initial) return { bodies: [{ ...props.initial, weightG: weightG.value, what: what.value.trim() || undefined }] }
  const to = uuidv7()
  const { foodKey, cultivar, source, plant } = props.state.intake.body
  const at = Date.now()
  const grams = weightG.value
  const card = props.state.food.cards.find(item => item.key === cardKey.value)!
  const batch: NewBatch = {
    id: to,
    entry: {
      id: uuidv7(),
      at,
      body: {
        kind: 'intake',
        foodKey,
        cultivar,
        source,
        plant,
        weightG: grams,
        purpose: purpose.value,
        cardKey: cardKey.value,
        from: props.page.batchId,
        condition: what.value.trim() || undefined,
      },
    },
  }
  // What was trimmed once is not trimmed again.
  const trimmedOnce = trimmed.value || props.state.prep.some(entry => entry.body.effect === 'waste')
  const asTrimmed: BodyOf<'prep'> = { kind: 'prep', step: 'trim', effect: 'none', note: `with batch ${props.page.number}` }
  const words = what.value.trim() || `${card.name}, ${PURPOSE_WORDS[purpose.value]}`
  return {
    bodies: trimmed.value
      ? [{ kind: 'note', text: `${format.weight(grams)} of what came off became a batch of its own: ${words}` }]
      : [{ kind: 'split', weightG: grams, to, what: words }],
    // With it, or not at all, begins the batch that it becomes.
    more: [{ begin: batch }, ...(trimmedOnce ? [{ batchId: to, entry: { id: uuidv7(), at, body: asTrimmed } }] : [])],
  }
}
defineExpose({ read })
</script>

<template>
  <p class="quiet">About {{ format.weight(state.balance.weightG.p50) }} is there. What leaves has the same make-up as the rest.</p>
  <WeightField v-model="weightG" label="This part" required autofocus />
  <template v-if="!initial">
    <ChoiceField
      v-model="trimmed"
      label="It is"
      :choices="[
        { value: false, words: 'part of the food' },
        { value: true, words: 'what came off it', note: 'skins, seeds, stalks' },
      ]"
    />
    <ChoiceField v-model="purpose" label="For" :choices="PURPOSE_CHOICES" />
    <ChoiceField v-model="cardKey" label="Cut" :choices="state.food.cards.map(card => ({ value: card.key, words: card.name }))" />
  </template>
  <TextField v-model="what" label="What it is" placeholder="such as skins, for soup powder" optional />
</template>
