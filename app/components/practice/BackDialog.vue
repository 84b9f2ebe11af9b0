<script setup lang="ts">
import { temperatureFrom, temperatureIn } from '#core/units'

/** Back into the machine after a rest: at which heat. */
const props = defineProps<{ machine: { name: string; lowC: number; highC: number }; go: (setC: number) => Promise<unknown> }>()
const emit = defineEmits<{ close: [] }>()
const { settings } = storeToRefs(useHouseholdStore())
const unit = settings.value.temperatureUnit
const degrees = ref<number | undefined>(Math.round(temperatureIn(Math.min(57, props.machine.highC), unit)))
async function save() {
  if (degrees.value === undefined) return ['Give the heat that is set.']
  try {
    await props.go(Math.round(temperatureFrom(degrees.value, unit)))
  } catch (error) {
    return [(error as Error).message]
  }
}
</script>

<template>
  <FormFrame title="Back into the machine" width="420px" verb="Put it back" :save="save" @close="emit('close')">
    <NumberField v-model="degrees" :label="`${machine.name}, °${unit}`" :decimals="0" required />
  </FormFrame>
</template>
