<script setup lang="ts">
/** Water back: how much goes to all of the powder. */
const props = defineProps<{ loadedG: number; pour: (grams: number) => Promise<unknown> }>()
const emit = defineEmits<{ close: [] }>()
const format = useFormat()
const grams = ref<number>()
async function save() {
  if (grams.value === undefined) return ['Give the water by weight.']
  try {
    await props.pour(grams.value)
  } catch (error) {
    return [(error as Error).message]
  }
}
</script>

<template>
  <FormFrame title="Water back" width="420px" verb="Pour it" :save="save" @close="emit('close')">
    <p class="quiet">
      To all of the powder. {{ format.weight(loadedG) }} went into the machine; what came out, the log knows if you weighed it.
    </p>
    <WeightField v-model="grams" label="Water" required autofocus />
  </FormFrame>
</template>
