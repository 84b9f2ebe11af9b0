<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import { PREP_STEPS, QUESTION_OF_STEP, type PrepStepName } from '#core/foods'
import { safeCoreC } from '#core/safety'
import { formatLength, parseLength, temperatureFrom, temperatureIn } from '#core/units'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'
import type { Left } from './LeftField.vue'

type Prep = Extract<EntryBody, { kind: 'prep' }>
const props = defineProps<{ state: BatchState; page: BatchAnswer; initial?: Prep; step?: string }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()

const EFFECT_OF: Record<PrepStepName, Prep['effect']> = {
  wash: 'none',
  soak: 'none',
  dip: 'none',
  trim: 'waste',
  peel: 'waste',
  seed: 'waste',
  cut: 'none',
  blanch: 'none',
  roast: 'water',
  boil: 'none',
  cook: 'water',
  char: 'water',
  puree: 'none',
  thicken: 'water',
  drain: 'water',
  season: 'added',
  marinate: 'added',
  toast: 'water',
  spread: 'none',
  freeze: 'none',
  hold: 'none',
}
/** Families whose skins and seeds come off apart. */
const SKINNED: readonly string[] = ['gourd', 'chili', 'wateryFruit', 'orchard', 'berry', 'citrus']
/** Steps whose weight never changes: nothing is asked. */
const PLAIN: readonly PrepStepName[] = ['wash', 'dip', 'trim', 'peel', 'seed', 'cut', 'puree', 'spread', 'freeze']
const CORE: readonly PrepStepName[] = ['cook', 'boil', 'roast']
const planned = computed(() => props.state.card.steps.map(item => item.step))
const asked = PREP_STEPS.find(item => item === props.step)
const step = ref<PrepStepName>(
  props.initial?.step ?? asked ?? (props.state.prep.some(entry => entry.body.step === 'trim') ? 'cut' : 'trim'),
)
// The steps of this card first; the others are one press away.
const all = ref(Boolean(props.initial) && !planned.value.includes(step.value))
const shown = computed(() =>
  all.value
    ? PREP_STEPS.filter(item => item !== 'hold')
    : PREP_STEPS.filter(item => ['trim', 'cut', 'season'].includes(item) || planned.value.includes(item) || item === step.value),
)
const plan = computed(() => props.state.card.steps.find(item => item.step === step.value))
/** Cooked after it was weighed it loses or takes up water; cooked before, the step says only how hot it was. */
const usualEffect = (of: PrepStepName) => {
  const { weighed } = props.state.intake.body
  return props.state.food.uncooked && CORE.includes(of) ? (weighed === 'cooked' ? 'none' : 'water') : EFFECT_OF[of]
}
const effect = ref<Prep['effect']>(props.initial?.effect ?? usualEffect(step.value))
const left = ref<Left>({ weightG: props.initial?.weightG })
const saltG = ref<number | undefined>(props.initial?.added?.saltG)
const sugarG = ref<number | undefined>(props.initial?.added?.sugarG)
const solidsG = ref<number | undefined>(props.initial?.added?.solidsG)
const waterG = ref<number | undefined>(props.initial?.added?.waterG)
const oilG = ref<number | undefined>(props.initial?.added?.oilG)
const card = props.state.food.cards.find(item => item.name === props.initial?.cutName) ?? props.state.card
const cutName = ref(props.initial?.cutName ?? card.name)
const thickBefore = props.initial?.thicknessMm ?? card.thicknessMm
const thickWords = thickBefore ? formatLength(thickBefore, settings.value.weightUnit).replaceAll('\u00A0', ' ') : ''
const thickness = ref(thickWords)
const by = ref(props.initial?.by ?? localStorage.getItem('dulse.cutBy') ?? '')
const note = ref(props.initial?.note ?? '')
const unit = settings.value.temperatureUnit
const core = ref<number | undefined>(props.initial?.coreC === undefined ? undefined : temperatureIn(props.initial.coreC, unit))
const needC = safeCoreC(props.state.food)
const question = computed(() => props.page.schools.find(item => item.key === QUESTION_OF_STEP[step.value]))
const school = ref(props.initial?.school ?? props.state.choices[QUESTION_OF_STEP[step.value] ?? ''] ?? '')
const cautions = ref<{ problem: () => string | undefined; bodies: () => EntryBody[] }>()
const accepted = new Set([...props.page.accepted, ...props.state.accepted])
const usual = computed(() => format.share((props.state.card.trimShare ?? props.state.food.trimShare).value.mean))
watch(step, next => {
  effect.value = usualEffect(next)
  school.value = props.state.choices[QUESTION_OF_STEP[next] ?? ''] ?? ''
})

watch(by, name => localStorage.setItem('dulse.cutBy', name.trim()))

function read(): FormReading {
  // Words that were not touched are rounded; what they stand for is not.
  const thick =
    step.value !== 'cut' || thickness.value.trim() === ''
      ? undefined
      : thickness.value === thickWords
        ? { value: thickBefore!, problem: undefined }
        : parseLength(thickness.value, settings.value.weightUnit)
  if (thick?.problem !== undefined) return { problem: thick.problem }
  const added = Object.fromEntries(
    Object.entries({ solidsG: solidsG.value, waterG: waterG.value, saltG: saltG.value, sugarG: sugarG.value, oilG: oilG.value }).filter(
      ([, grams]) => grams !== undefined,
    ),
  )
  if (effect.value === 'added' && Object.keys(added).length === 0)
    return { problem: 'Say how much came in: salt, sugar or something else.' }
  const unread = cautions.value?.problem()
  if (unread) return { problem: unread }
  return {
    bodies: [
      ...(cautions.value?.bodies() ?? []),
      {
        kind: 'prep',
        step: step.value,
        effect: effect.value,
        ...(effect.value === 'waste' || effect.value === 'water' ? left.value : {}),
        added: effect.value === 'added' ? added : undefined,
        cutName: step.value === 'cut' ? cutName.value : undefined,
        thicknessMm: thick?.value,
        by: step.value === 'cut' ? by.value.trim() || undefined : undefined,
        coreC: CORE.includes(step.value) && core.value !== undefined ? Math.round(temperatureFrom(core.value, unit) * 10) / 10 : undefined,
        school: question.value?.schools.some(item => item.key === school.value) ? school.value : undefined,
        note: note.value.trim() || undefined,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField v-model="step" label="Step" :choices="shown.map(value => ({ value, words: PREP_WORDS[value] }))" />
  <button v-if="!all" type="button" class="more" @click="all = true">Other steps</button>
  <CautionList ref="cautions" step="prep" :food="state.food" :accepted="accepted" />
  <p v-if="plan" class="quiet small">{{ format.sentence(plan.words) }}</p>
  <ChoiceField
    v-if="question"
    v-model="school"
    :label="question.ask"
    :choices="question.schools.map(item => ({ value: item.key, words: format.sentence(item.name) }))"
  />
  <p v-if="question && school" class="quiet small">{{ question.schools.find(item => item.key === school)?.reason }}</p>
  <ChoiceField
    v-if="!PLAIN.includes(step)"
    v-model="effect"
    label="What changed the weight"
    :choices="[
      { value: 'none', words: 'Nothing' },
      { value: 'waste', words: 'Pieces left' },
      { value: 'water', words: 'Only water left' },
      { value: 'added', words: 'Something came in' },
    ]"
  />
  <LeftField
    v-if="effect === 'waste' || effect === 'water'"
    :key="`${step}${effect}`"
    v-model="left"
    :initial="initial ?? {}"
    :label="effect === 'waste' ? 'What came off' : 'Water that left'"
    :hint="step === 'trim' ? `usually about ${usual} of the basket` : 'left empty, the usual share is taken, with more doubt'"
    :partly="effect === 'waste' && ['trim', 'peel', 'seed', 'puree'].includes(step) && SKINNED.includes(state.food.group)"
  />
  <div v-if="effect === 'added'" class="pair">
    <WeightField v-model="saltG" label="Salt" /><WeightField v-model="sugarG" label="Sugar" /><WeightField v-model="oilG" label="Oil" />
    <WeightField v-model="waterG" label="Water" /><WeightField v-model="solidsG" label="Other dry things" />
  </div>
  <NumberField
    v-if="needC !== undefined && CORE.includes(step)"
    v-model="core"
    :label="`Inside by thermometer, °${unit}`"
    :hint="`${format.temperature(needC)} makes it safe (USDA); without it, it is not loaded into warm air`"
    :least="unit === 'C' ? 0 : 32"
    :most="unit === 'C' ? 120 : 248"
  />
  <template v-if="step === 'cut'">
    <ChoiceField v-model="cutName" label="Cut" :choices="state.food.cards.map(item => ({ value: item.name, words: item.name }))" />
    <TextField v-model="thickness" label="Thickness" hint="The strongest lever on the time: even matters more than pretty." optional />
    <TextField v-model="by" label="Cut by" hint="people cut differently, and the hours with them" optional />
  </template>
  <TextField v-model="note" label="Note" optional />
</template>

<style scoped>
.more {
  justify-self: start;
  min-height: 44px;
  margin: -0.6rem 0;
  border: 0;
  background: none;
  color: var(--dulse-ink);
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
</style>
