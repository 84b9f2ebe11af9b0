<script setup lang="ts">
import type { BatchState, EntryBody, RestJar } from '#core/log'
import { REST_DAYS } from '#core/dryness'
import { looseGMl } from '#core/keeping'
import type { FormReading } from '~/composables/useBatch'

/** Loosely into jars, two thirds full; each is looked at by itself. */
type Rest = Extract<EntryBody, { kind: 'rest' }>
const props = defineProps<{ initial?: Rest; state: BatchState }>()
const format = useFormat()
const accepted = props.state.accepted
const RESTING_FILL = 2 / 3
const named = props.initial?.jars ?? (props.initial?.container ? [{ name: props.initial.container }] : [])
const sizeMl = ref<number | undefined>(named[0]?.sizeMl ?? 1500)
/** Broken pieces lie loosely: what they fill at two thirds. */
const wanted = computed(() =>
  props.state.dryG === undefined || !sizeMl.value
    ? 1
    : Math.min(
        20,
        Math.max(
          1,
          Math.ceil(props.state.dryG / looseGMl(props.state.food.powderDensity.value.mean, 'pieces') / (sizeMl.value * RESTING_FILL)),
        ),
      ),
)
const nameOf = (i: number) => `Jar ${String.fromCharCode(65 + i)}`
const jars = ref<RestJar[]>(
  named.length > 0 ? named.map(jar => ({ ...jar })) : Array.from({ length: wanted.value }, (_, i) => ({ name: nameOf(i) })),
)
const touched = ref(named.length > 0)
watch(wanted, count => {
  if (!touched.value) jars.value = Array.from({ length: count }, (_, i) => ({ name: nameOf(i) }))
})
function more(by: 1 | -1) {
  touched.value = true
  jars.value = by > 0 ? [...jars.value, { name: nameOf(jars.value.length) }] : jars.value.slice(0, -1)
}
function read(): FormReading {
  if (jars.value.some(jar => jar.name.trim() === '')) return { problem: 'Give each jar a name, such as its lid’s colour.' }
  return {
    bodies: [
      {
        kind: 'rest',
        jars: jars.value.map(jar => ({
          name: jar.name.trim(),
          sizeMl: sizeMl.value === undefined ? undefined : Math.round(sizeMl.value),
          weightG: jar.weightG,
        })),
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <p>
    Loosely, about two thirds full, and closed: {{ REST_DAYS }} days, shaken and looked at every day. Pieces that hang at the top and fall
    when the jar is knocked are only packed.
  </p>
  <CautionList step="rest" :food="state.food" :way="state.run?.way.way" :accepted="accepted" />
  <VolumeField
    v-model="sizeMl"
    label="Size of the jars"
    :hint="state.dryG === undefined ? undefined : `${format.weight(state.dryG)} fill ${plural(wanted, 'jar')} of it two thirds`"
    :least="50"
    :most="10000"
    bare
  />
  <div v-for="(jar, i) in jars" :key="i" class="pair">
    <TextField v-model="jar.name" :label="jars.length > 1 ? `Jar ${i + 1}` : 'Jar'" /><WeightField v-model="jar.weightG" label="In it" />
  </div>
  <div class="row">
    <ElButton @click="more(1)">One jar more</ElButton><ElButton v-if="jars.length > 1" @click="more(-1)">One less</ElButton>
  </div>
</template>
