<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { bestJar, jarsFor, PACKAGES, type PackageKey } from '#core/keeping'
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** Part of a jar goes into a new one: for the kitchen, for a friend, or together with its like. */
type Fill = Extract<EntryBody, { kind: 'fill' }>
const props = defineProps<{ initial?: Fill; jar: JarAnswer }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
/** The jar that it is filled from first: this one, or the one that a correction names. */
const firstId = props.initial?.from[0]?.jarId ?? props.jar.jarId
const weightG = ref<number | undefined>(props.initial?.from[0]?.weightG)
// A correction keeps the other sources, also such as are empty by now.
const toastedOf = (jarId: string) => props.initial?.from.find(source => source.jarId === jarId)?.toastedG
const others = reactive<Record<string, number | undefined>>(
  Object.fromEntries((props.initial?.from ?? []).slice(1).map(source => [source.jarId, source.weightG])),
)
const together = ref(false)
const packageKey = ref<PackageKey>(props.initial?.packageKey ?? 'screw-jar')
const place = ref(props.initial?.place ?? props.jar.place)
const sizeMl = ref<number | undefined>(props.initial?.sizeMl)
const allG = computed(() => (weightG.value ?? 0) + Object.values(others).reduce<number>((sum, grams) => sum + (grams ?? 0), 0))
const fits = computed(() =>
  allG.value > 0 ? bestJar(jarsFor(allG.value, props.jar.densityGMl.p50, 'powder', { measures: settings.value.measures })) : undefined,
)

function read(): FormReading {
  if (weightG.value === undefined) return { problem: 'Weigh what goes over.' }
  if (place.value.trim() === '') return { problem: 'Say where the new jar stands.' }
  const from = [
    { jarId: firstId, weightG: weightG.value },
    ...Object.entries(others).flatMap(([jarId, grams]) => (grams === undefined ? [] : [{ jarId, weightG: grams }])),
  ].map(source => ({ ...source, ...(toastedOf(source.jarId) !== undefined && { toastedG: toastedOf(source.jarId) }) }))
  return {
    bodies: [
      {
        kind: 'fill',
        jarId: props.initial?.jarId ?? uuidv7(),
        from,
        packageKey: packageKey.value,
        place: place.value.trim(),
        sizeMl: sizeMl.value === undefined ? fits.value?.sizeMl : Math.round(sizeMl.value),
        storageC: props.jar.storageC,
        blend: props.initial?.blend,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <WeightField
    v-model="weightG"
    :label="initial ? 'Out of the first jar' : 'Out of this jar'"
    :hint="initial ? undefined : `${format.weight(jar.leftG)} are in it`"
    required
    autofocus
  />
  <template v-if="jar.others.length && !initial">
    <ElButton v-if="!together" text class="more" @click="together = true">Other jars of the same go in too</ElButton>
    <div v-else class="pair">
      <WeightField
        v-for="other in jar.others.slice(0, 6)"
        :key="other.jarId"
        v-model="others[other.jarId]"
        :label="`Out of jar ${other.number}`"
        :hint="`${format.weight(other.leftG)}, ${format.month(other.oldestAt)}`"
      />
    </div>
  </template>
  <ChoiceField
    v-model="packageKey"
    label="Into"
    :choices="PACKAGES.filter(item => item.key !== 'other').map(item => ({ value: item.key, words: item.name }))"
  />
  <div class="pair">
    <TextField v-model="place" label="Where it stands" /><VolumeField
      v-model="sizeMl"
      label="Its size"
      :hint="fits ? `${format.volume(fits.sizeMl)} takes it` : undefined"
      :least="10"
      :most="10000"
    />
  </div>
  <p class="quiet small">The new jar is as old as the oldest of what goes into it, and its label says which baskets it holds.</p>
</template>

<style scoped>
.more {
  justify-self: start;
  padding: 0;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
