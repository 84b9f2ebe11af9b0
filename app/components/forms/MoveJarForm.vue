<script setup lang="ts">
import { temperatureFrom, temperatureIn } from '#core/units'
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'moveJar' }>; jar: JarAnswer }>()
const { settings } = storeToRefs(useHouseholdStore())
const unit = settings.value.temperatureUnit
const place = ref(props.initial?.place ?? '')
const warmth = ref<number | undefined>(Math.round(temperatureIn(props.initial?.storageC ?? props.jar.storageC, unit)))
const places = ref<{ place: string; storageC?: number }[]>([])
onMounted(async () => {
  places.value = await call('places').catch(() => [])
})
// A place that is known brings its warmth along.
watch(place, chosen => {
  const known = places.value.find(item => item.place === chosen)?.storageC
  if (known !== undefined) warmth.value = Math.round(temperatureIn(known, unit))
})
const celsius = computed(() => (warmth.value === undefined ? undefined : Math.round(temperatureFrom(warmth.value, unit) * 10) / 10))
const read = (): FormReading =>
  place.value.trim() === ''
    ? { problem: 'Say where it stands now.' }
    : {
        bodies: [
          {
            kind: 'moveJar',
            jarId: props.jar.jarId,
            place: place.value.trim(),
            // In oil its warmth decides: it is said each time.
            storageC:
              celsius.value === undefined || props.jar.inOil
                ? celsius.value
                : Math.abs(celsius.value - props.jar.storageC) < 0.6
                  ? undefined
                  : celsius.value,
          },
        ],
      }
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-if="places.length"
    v-model="place"
    label="A place that you have"
    :choices="places.map(item => ({ value: item.place, words: item.place }))"
  />
  <TextField v-model="place" label="Where it stands" />
  <NumberField
    :key="place"
    v-model="warmth"
    :label="`How warm it is there, °${unit}`"
    hint="ten degrees less about double its time"
    :least="unit === 'C' ? -30 : -22"
    :most="unit === 'C' ? 45 : 113"
    :decimals="0"
    bare
  />
</template>
