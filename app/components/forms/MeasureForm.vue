<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** The powder's own density, by a level spoon or cup on the scale. */
type Measure = Extract<EntryBody, { kind: 'measure' }>
const props = defineProps<{ initial?: Measure; jar: JarAnswer }>()
const format = useFormat()
const VESSELS = [
  { value: 15, words: 'Tablespoon, 15 mL' },
  { value: 60, words: 'Quarter cup, 60 mL' },
  { value: 120, words: 'Half a US cup, 120 mL' },
  { value: 250, words: 'Metric cup, 250 mL' },
]
const ml = ref<number>(props.initial?.ml ?? 15)
const weightG = ref<number | undefined>(props.initial?.weightG)
const density = computed(() => weightG.value && weightG.value / ml.value)
const strange = computed(() => density.value !== undefined && (density.value < 0.08 || density.value > 1.3))
function read(): FormReading {
  if (weightG.value === undefined) return { problem: 'Weigh the level measure, without the vessel.' }
  if (strange.value)
    return {
      problem: `${format.weight(weightG.value)} in ${format.volume(ml.value)} is not a powder: was the vessel on the scale, or is the measure another?`,
    }
  return { bodies: [{ kind: 'measure', jarId: props.jar.jarId, ml: ml.value, weightG: weightG.value }] }
}
defineExpose({ read })
</script>

<template>
  <p class="quiet">
    Fill it loosely, level it with a knife, weigh what is in it. A larger measure is more exact. From then on spoons and cups of this jar
    are its own.
  </p>
  <ChoiceField v-model="ml" label="Measure" :choices="VESSELS" />
  <WeightField v-model="weightG" label="It holds" :hint="density === undefined ? undefined : format.density(density)" required autofocus />
</template>
