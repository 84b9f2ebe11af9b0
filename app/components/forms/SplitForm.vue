<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { whatThereIs } from '#core/flow'
import {
  FATES,
  FATE_WORDS,
  HOLD_PLACES,
  HOLD_WORDS,
  type BatchState,
  type BodyOf,
  type Fate,
  type HoldPlace,
  type SplitForm,
} from '#core/log'
import type { Purpose } from '#core/foods'
import type { BatchAnswer, NewBatch } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** Part of what is there leaves the batch: for good, or as a batch of its own with all that was done to it. */
const props = defineProps<{ state: BatchState; page: BatchAnswer; initial?: BodyOf<'split'> }>()
const format = useFormat()
const now = Date.now()
const lots = whatThereIs(props.state, now)
const formOf = (form: (typeof lots)[number]['form']): SplitForm | undefined =>
  form === 'drying' ? undefined : form === 'whole' ? 'prepared' : form
const there = lots.flatMap(lot => {
  const form = formOf(lot.form)
  return form ? [{ form, lot }] : []
})
const FORM_WORDS: Record<SplitForm, string> = {
  prepared: props.state.prep.length > 0 ? 'of the prepared food' : 'of the food as it came',
  trimmings: 'of what came off it',
  ...PURPOSE_WORDS,
}
const form = ref<SplitForm>(props.initial?.form ?? there[0]?.form ?? 'prepared')
const weightG = ref<number | undefined>(props.initial?.weightG)
const fate = ref<Fate | 'own'>(props.initial?.fate ?? 'own')
const purpose = ref<Purpose>(props.state.purpose)
const cardKey = ref(props.state.card.key)
const place = ref<HoldPlace>(props.state.hold?.place ?? 'counter')
const what = ref(props.initial?.what ?? '')
const isDry = computed(() => form.value !== 'prepared' && form.value !== 'trimmings')
const thereIs = computed(() => there.find(item => item.form === form.value)?.lot)
const forms = computed(() => [
  ...there.map(item => ({ value: item.form, words: FORM_WORDS[item.form] })),
  ...(props.state.run || props.state.beganDry
    ? []
    : [{ value: 'trimmings' as const, words: FORM_WORDS.trimmings, note: 'skins, seeds, stalks' }]),
])

function read(): FormReading {
  if (weightG.value === undefined) return { problem: 'Weigh the part, or say about how much it is.' }
  const said = what.value.trim() || undefined
  if (props.initial) return { bodies: [{ ...props.initial, weightG: weightG.value, what: said }] }
  const sent = form.value === 'prepared' || form.value === 'trimmings' ? (form.value === 'trimmings' ? form.value : undefined) : form.value
  if (fate.value !== 'own') return { bodies: [{ kind: 'split', weightG: weightG.value, form: sent, fate: fate.value, what: said }] }
  if (form.value === 'trimmings') return ofTrimmings(weightG.value, said)
  const asked = { form: form.value, grams: weightG.value, sdG: 0, purpose: purpose.value, cardKey: cardKey.value, what: said }
  const { body, more } = partParcel(props.state, props.page, Date.now(), asked, isDry.value ? undefined : place.value)
  return { bodies: [body], more }
}

/** Skins and stalks are no part of what is dried of the food: a basket of their own, trimmed already. */
function ofTrimmings(grams: number, said: string | undefined): FormReading {
  const to = uuidv7()
  const at = Date.now()
  const { foodKey, cultivar, source, plant } = props.state.intake.body
  const { batchId: from, number } = props.page
  const body: BodyOf<'intake'> = {
    kind: 'intake',
    foodKey,
    cultivar,
    source,
    plant,
    weightG: grams,
    purpose: purpose.value,
    cardKey: cardKey.value,
    from,
    condition: said,
  }
  const begin: NewBatch = { id: to, entry: { id: uuidv7(), at, body } }
  const trimmed: BodyOf<'prep'> = { kind: 'prep', step: 'trim', effect: 'none', note: `with batch ${number}` }
  return {
    bodies: [{ kind: 'split', form: 'trimmings', weightG: grams, to, what: said }],
    // With it, or not at all, begins the batch that it becomes.
    more: [{ begin }, { batchId: to, entry: { id: uuidv7(), at, body: trimmed } }],
  }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField v-if="!initial && forms.length > 1" v-model="form" label="A part" :choices="forms" />
  <WeightField
    v-model="weightG"
    label="This part"
    :hint="thereIs ? `about ${format.weight(thereIs.weightG.p50)} is there` : undefined"
    required
    autofocus
  />
  <template v-if="!initial">
    <ChoiceField
      v-model="fate"
      label="It is"
      :choices="[
        { value: 'own', words: 'kept apart', note: 'a batch of its own' },
        ...FATES.map(value => ({ value, words: FATE_WORDS[value] })),
      ]"
    />
    <template v-if="fate === 'own'">
      <ChoiceField v-model="purpose" label="For" :choices="PURPOSE_CHOICES" />
      <ChoiceField
        v-if="!isDry && state.food.cards.length > 1"
        v-model="cardKey"
        label="Cut"
        :choices="state.food.cards.map(card => ({ value: card.key, words: card.name }))"
      />
      <ChoiceField
        v-if="form === 'prepared'"
        v-model="place"
        label="It waits"
        :choices="HOLD_PLACES.map(value => ({ value, words: HOLD_WORDS[value] }))"
      />
    </template>
  </template>
  <TextField v-model="what" label="What it is" placeholder="such as the best slices, for gifts" optional />
</template>
