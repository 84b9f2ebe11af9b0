<script setup lang="ts">
import { Z_90 } from '#core/stats'
import { formatWeight, parseWeight } from '#core/units'
import { parseVolume, readAmount, type AmountIn } from '#core/using'
import type { Spread } from '#core/foods'

/**
 * A weight as typed, in any unit; gives grams, or undefined while it is empty or not a weight. Where a density is
 * given, spoons, cups and mL are read too; where it is known what one or a litre of it weighs, counts and pots, with their doubt.
 */
const props = defineProps<{
  modelValue?: number
  label: string
  hint?: string
  problem?: string
  required?: boolean
  autofocus?: boolean
  densityGMl?: number
  /** What one of it weighs, and a litre, g. */
  each?: Spread
  litre?: Spread
  /** What it is called: a count is of one of these. */
  names?: readonly string[]
}>()
const emit = defineEmits<{
  'update:modelValue': [grams: number | undefined]
  doubt: [sdG: number | undefined]
  count: [count: number | undefined]
}>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const id = useId()
const typed = ref(props.modelValue === undefined ? '' : formatWeight(props.modelValue, settings.value.weightUnit).replaceAll('\u00A0', ' '))
const touched = ref(false)
const parsed = computed((): AmountIn | undefined => {
  if (typed.value.trim() === '') return undefined
  if (props.each ?? props.litre)
    return readAmount(typed.value, settings.value.weightUnit, settings.value.measures, {
      each: props.each,
      litre: props.litre,
      names: props.names,
    })
  const volume = props.densityGMl === undefined ? undefined : parseVolume(typed.value, settings.value.measures)
  return volume?.value === undefined
    ? (volume ?? parseWeight(typed.value, settings.value.weightUnit))
    : { value: volume.value * props.densityGMl! }
})
const wrong = computed(() => props.problem ?? (touched.value ? parsed.value?.problem : undefined))
const read = computed(() => {
  const value = parsed.value?.value
  const sdG = parsed.value?.sdG
  if (value !== undefined && sdG)
    return `about ${formatWeight(value, settings.value.weightUnit)}, ${format.weightRange({ p10: Math.max(0, value - Z_90 * sdG), p50: value, p90: value + Z_90 * sdG })} · a weight narrows it`
  return value === undefined ? props.hint : `${formatWeight(value, settings.value.weightUnit)}${props.hint ? ` · ${props.hint}` : ''}`
})
watch(parsed, value => {
  emit('update:modelValue', value?.value)
  emit('doubt', value?.sdG)
  emit('count', value?.count)
})
/** What was asked about already, as it was typed. */
const asked = ref('')
useFieldCheck(() => {
  touched.value = true
  const { problem, doubt } = parsed.value ?? {}
  if (!doubt || asked.value === typed.value) return problem
  asked.value = typed.value
  return doubt
})
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}<span v-if="!required" class="quiet"> (if known)</span></label>
    <ElInput
      :id="id"
      v-model="typed"
      inputmode="text"
      autocomplete="off"
      :autofocus="autofocus"
      :placeholder="settings.weightUnit === 'g' ? '850, 1.2 kg or 3 lb 4 oz' : '3 lb 4 oz, 12 or 850 g'"
      :aria-invalid="Boolean(wrong)"
      :aria-describedby="`${id}-note`"
      @blur="touched = true"
    />
    <p :id="`${id}-note`" :class="wrong ? 'problem' : 'quiet small'">{{ wrong ?? read ?? '\u00A0' }}</p>
  </div>
</template>
