<script setup lang="ts">
import { parseNumber } from '#core/units'
import { parseVolume } from '#core/using'

/** The volume of a vessel as typed: "750", "1.5 L", "1 pint", "2 cups"; gives mL. A bare number is mL, or fluid ounces in a house of ounces. */
const props = defineProps<{
  modelValue?: number
  label: string
  hint?: string
  least?: number
  most?: number
  required?: boolean
  bare?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [ml: number | undefined] }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const id = useId()
const OUNCE_ML = 29.5735295625
const begun = props.modelValue
const start = props.modelValue === undefined ? '' : format.volume(props.modelValue).replaceAll('\u00A0', ' ')
/** "pint" alone reads as one of it. */
const typed = ref(/^[a-z]/.test(start) ? `1 ${start}` : start)
const untouched = typed.value
const touched = ref(false)
const parsed = computed(() => {
  const text = typed.value.trim().replace(/^1 half (pint|gallon)$/i, '0.5 $1')
  if (text === '') return undefined
  // What was not touched is not rounded.
  if (typed.value === untouched && begun !== undefined) return { value: begun }
  const volume = parseVolume(text, settings.value.measures)
  if (volume) return volume
  const number = parseNumber(text)
  if (number.value === undefined) return { problem: `“${text}” is not a volume. Write 750 mL, 1.5 L, 1 pint or 2 cups.` }
  return { value: number.value * (settings.value.weightUnit === 'oz' ? OUNCE_ML : 1) }
})
const problem = computed(() => {
  const value = parsed.value?.value
  if (!parsed.value) return props.required ? 'Give a volume, such as 750 mL or 1 pint.' : undefined
  if (value === undefined) return parsed.value.problem
  if (props.least !== undefined && value < props.least) return `At least ${format.volume(props.least)}.`
  if (props.most !== undefined && value > props.most) return `At most ${format.volume(props.most)}.`
  return undefined
})
const read = computed(() =>
  [parsed.value?.value === undefined ? undefined : format.volume(parsed.value.value), props.hint].filter(Boolean).join(' · '),
)
watch([parsed, problem], () => emit('update:modelValue', problem.value ? undefined : parsed.value?.value))
useFieldCheck(() => {
  touched.value = true
  return problem.value
})
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}<span v-if="!required && !bare" class="quiet"> (if known)</span></label>
    <ElInput
      :id="id"
      v-model="typed"
      inputmode="text"
      autocomplete="off"
      :aria-invalid="touched && Boolean(problem)"
      @blur="touched = true"
    />
    <p :class="touched && problem ? 'problem' : 'quiet small'">{{ touched && problem ? problem : read || '\u00A0' }}</p>
  </div>
</template>
