<script setup lang="ts">
import { PREP_STEPS, type BatchState, type EntryBody, type PrepStepName } from '#core/batch'
import { formatLength, parseLength } from '#core/units'
import type { FormReading } from '~/composables/useBatch'

type Prep = Extract<EntryBody, { kind: 'prep' }>
const props = defineProps<{ state: BatchState, initial?: Prep }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()

const STEP_WORDS: Record<PrepStepName, string> = { wash: 'Wash', trim: 'Trim', cut: 'Cut', blanch: 'Blanch', dip: 'Dip', roast: 'Roast', thicken: 'Thicken', season: 'Season', hold: 'Hold' }
const EFFECT_OF: Record<PrepStepName, Prep['effect']> = { wash: 'none', trim: 'waste', cut: 'none', blanch: 'none', dip: 'none', roast: 'water', thicken: 'water', season: 'added', hold: 'none' }
const step = ref<PrepStepName>(props.initial?.step ?? (props.state.prep.some(entry => entry.body.step === 'trim') ? 'cut' : 'trim'))
const effect = ref<Prep['effect']>(props.initial?.effect ?? EFFECT_OF[step.value])
const weightG = ref<number | undefined>(props.initial?.weightG)
const saltG = ref<number | undefined>(props.initial?.added?.saltG)
const sugarG = ref<number | undefined>(props.initial?.added?.sugarG)
const solidsG = ref<number | undefined>(props.initial?.added?.solidsG)
const waterG = ref<number | undefined>(props.initial?.added?.waterG)
const oilG = ref<number | undefined>(props.initial?.added?.oilG)
const card = props.state.food.cards.find(item => item.name === props.initial?.cutName) ?? props.state.card
const cutName = ref(props.initial?.cutName ?? card.name)
const thickness = ref(props.initial?.thicknessMm ?? card.thicknessMm ? formatLength(props.initial?.thicknessMm ?? card.thicknessMm!, settings.value.weightUnit).replaceAll('\u00A0', ' ') : '')
const by = ref(props.initial?.by ?? localStorage.getItem('dulse.cutBy') ?? '')
const note = ref(props.initial?.note ?? '')
const cautions = props.state.food.cautions.filter(caution => caution.step === 'prep')
const usual = computed(() => format.share(props.state.food.trimShare.value.mean))
watch(step, (next) => {
  effect.value = EFFECT_OF[next]
})

watch(by, name => localStorage.setItem('dulse.cutBy', name.trim()))

function read(): FormReading {
  const thick = step.value === 'cut' && thickness.value.trim() !== '' ? parseLength(thickness.value, settings.value.weightUnit) : undefined
  if (thick?.problem !== undefined) return { problem: thick.problem }
  const added = Object.fromEntries(Object.entries({ solidsG: solidsG.value, waterG: waterG.value, saltG: saltG.value, sugarG: sugarG.value, oilG: oilG.value }).filter(([, grams]) => grams !== undefined))
  if (effect.value === 'added' && Object.keys(added).length === 0) return { problem: 'Say how much came in: salt, sugar or something else.' }
  return { bodies: [{
    kind: 'prep', step: step.value, effect: effect.value,
    weightG: effect.value === 'waste' || effect.value === 'water' ? weightG.value : undefined,
    added: effect.value === 'added' ? added : undefined,
    cutName: step.value === 'cut' ? cutName.value : undefined, thicknessMm: thick?.value, by: step.value === 'cut' ? by.value.trim() || undefined : undefined,
    note: note.value.trim() || undefined,
  }] }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField v-model="step" label="Step" :choices="PREP_STEPS.map(value => ({ value, words: STEP_WORDS[value] }))" />
  <p v-for="caution in cautions" :key="caution.text" class="caution">{{ caution.text }}</p>
  <ChoiceField v-if="!['trim', 'cut', 'wash', 'hold'].includes(step)" v-model="effect" label="What changed the weight" :choices="[{ value: 'none', words: 'Nothing' }, { value: 'waste', words: 'Pieces left' }, { value: 'water', words: 'Only water left' }, { value: 'added', words: 'Something came in' }]" />
  <WeightField v-if="effect === 'waste'" v-model="weightG" label="What came off" :hint="`usually about ${usual} of the basket`" autofocus />
  <WeightField v-if="effect === 'water'" v-model="weightG" label="Water that left" hint="weight before less weight after" />
  <div v-if="effect === 'added'" class="pair">
    <WeightField v-model="saltG" label="Salt" /><WeightField v-model="sugarG" label="Sugar" /><WeightField v-model="oilG" label="Oil" />
    <WeightField v-model="waterG" label="Water" /><WeightField v-model="solidsG" label="Other dry things" />
  </div>
  <template v-if="step === 'cut'">
    <ChoiceField v-model="cutName" label="Cut" :choices="state.food.cards.map(item => ({ value: item.name, words: item.name }))" />
    <TextField v-model="thickness" label="Thickness" hint="The strongest lever on the time: even matters more than pretty." optional />
    <TextField v-model="by" label="Cut by" hint="hands differ, and the hours with them" optional />
  </template>
  <TextField v-model="note" label="Note" optional />
</template>
