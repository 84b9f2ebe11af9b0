<script setup lang="ts">
import { formatWeight, parseWeight } from '#core/units'
import { parseVolume } from '#core/using'

/**
 * A weight as typed, in any unit; gives grams, or undefined while it is empty or not a weight. Where a density is
 * given, spoons, cups and mL are read too.
 */
const props = defineProps<{
  modelValue?: number
  label: string
  hint?: string
  problem?: string
  required?: boolean
  autofocus?: boolean
  densityGMl?: number
}>()
const emit = defineEmits<{ 'update:modelValue': [grams: number | undefined] }>()
const { settings } = storeToRefs(useHouseholdStore())
const id = useId()
const typed = ref(props.modelValue === undefined ? '' : formatWeight(props.modelValue, settings.value.weightUnit).replaceAll('\u00A0', ' '))
const touched = ref(false)
const parsed = computed(() => {
  if (typed.value.trim() === '') return undefined
  const volume = props.densityGMl === undefined ? undefined : parseVolume(typed.value, settings.value.measures)
  return volume?.value === undefined
    ? (volume ?? parseWeight(typed.value, settings.value.weightUnit))
    : { value: volume.value * props.densityGMl! }
})
const wrong = computed(() => props.problem ?? (touched.value ? parsed.value?.problem : undefined))
const read = computed(() => {
  const value = parsed.value?.value
  return value === undefined ? props.hint : `${formatWeight(value, settings.value.weightUnit)}${props.hint ? ` · ${props.hint}` : ''}`
})
watch(parsed, value => emit('update:modelValue', value?.value))
useFieldCheck(() => {
  touched.value = true
  return parsed.value?.problem
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
