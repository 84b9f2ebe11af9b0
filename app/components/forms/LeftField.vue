<script setup lang="ts">
/** What a step took off: as it was weighed, each part on its own, or by the weights before and after with what the vessel weighs. */
export interface Left {
  weightG?: number
  beforeG?: number
  afterG?: number
  parts?: { skinsG?: number; seedsG?: number; specksG?: number }
}
const props = defineProps<{ initial: Left; label: string; hint: string; partly?: boolean }>()
const left = defineModel<Left>({ required: true })
const format = useFormat()
const how = ref<'off' | 'both' | 'parts'>(props.initial.beforeG !== undefined ? 'both' : props.initial.parts ? 'parts' : 'off')
const weightG = ref(props.initial.weightG)
const beforeG = ref(props.initial.beforeG)
const afterG = ref(props.initial.afterG)
const tareG = ref<number>()
const skinsG = ref(props.initial.parts?.skinsG)
const seedsG = ref(props.initial.parts?.seedsG)
const specksG = ref(props.initial.parts?.specksG)
/** Without the vessel that stood on the scale with it, both times. */
const net = (grams: number | undefined) => (grams === undefined ? undefined : grams - (tareG.value ?? 0))
const difference = computed(() => {
  const before = net(beforeG.value)
  const after = net(afterG.value)
  return before === undefined || after === undefined ? undefined : before - after
})
const sum = computed(() => {
  const given = [skinsG.value, seedsG.value, specksG.value].filter(value => value !== undefined)
  return given.length === 0 ? undefined : given.reduce((total, value) => total + value, 0)
})
const problem = computed(() => {
  if (how.value !== 'both') return undefined
  if ((beforeG.value === undefined) !== (afterG.value === undefined)) return 'Before and after go together: give both weights, or neither.'
  if ((net(beforeG.value) ?? 1) <= 0 || (net(afterG.value) ?? 1) <= 0)
    return 'The vessel weighs as much as what stood on the scale: check it.'
  if (difference.value !== undefined && difference.value <= 0)
    return 'It is no lighter after than before: are the two weights the right way round?'
  return undefined
})
watchEffect(() => {
  left.value =
    how.value === 'off'
      ? { weightG: weightG.value }
      : how.value === 'both'
        ? difference.value !== undefined && !problem.value
          ? { weightG: difference.value, beforeG: net(beforeG.value), afterG: net(afterG.value) }
          : {}
        : sum.value === undefined
          ? {}
          : { weightG: sum.value, parts: { skinsG: skinsG.value, seedsG: seedsG.value, specksG: specksG.value } }
})
useFieldCheck(() => problem.value)
</script>

<template>
  <ChoiceField
    v-model="how"
    label="Weighed"
    :choices="[
      { value: 'off', words: 'What left' },
      { value: 'both', words: 'Before and after' },
      ...(partly ? [{ value: 'parts' as const, words: 'Skins, seeds, specks' }] : []),
    ]"
  />
  <WeightField v-if="how === 'off'" v-model="weightG" :label="label" :hint="hint" autofocus />
  <template v-else-if="how === 'both'">
    <div class="pair"><WeightField v-model="beforeG" label="Before" autofocus /><WeightField v-model="afterG" label="After" /></div>
    <WeightField v-model="tareG" label="Pot or bowl on the scale with it" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="difference !== undefined" class="quiet">{{ format.weight(difference) }} left.</p>
  </template>
  <div v-else class="pair">
    <WeightField v-model="skinsG" label="Skins" autofocus /><WeightField v-model="seedsG" label="Seeds and pulp" /><WeightField
      v-model="specksG"
      label="Specks and stems"
    />
  </div>
</template>
