<script setup lang="ts">
import { parseNumber } from '#core/units'

/** A plain number as typed, with point or comma; undefined while it is empty or not a number. */
const props = defineProps<{
  modelValue?: number
  label: string
  hint?: string
  least?: number
  most?: number
  required?: boolean
  bare?: boolean
  decimals?: number
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | undefined] }>()
const id = useId()
const typed = ref(props.modelValue === undefined ? '' : String(Number(props.modelValue.toFixed(props.decimals ?? 1))))
const touched = ref(false)
const parsed = computed(() => (typed.value.trim() === '' ? undefined : parseNumber(typed.value)))
const value = computed(() => parsed.value?.value)
const problem = computed(() => {
  if (!parsed.value) return props.required ? 'Give a number.' : undefined
  if (value.value === undefined) return parsed.value.problem
  if (props.least !== undefined && value.value < props.least) return `At least ${props.least}.`
  if (props.most !== undefined && value.value > props.most) return `At most ${props.most}.`
  return undefined
})
watch([value, problem], () => emit('update:modelValue', problem.value ? undefined : value.value))
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
      inputmode="decimal"
      autocomplete="off"
      :aria-invalid="Boolean(touched && problem)"
      @blur="touched = true"
    />
    <p v-if="(touched && problem) || hint" :class="touched && problem ? 'problem' : 'quiet small'">{{ (touched && problem) || hint }}</p>
  </div>
</template>
