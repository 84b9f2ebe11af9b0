<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { BatchState, EntryBody } from '#core/batch'
import { bestByDates, bestByWindow, jarTakesG, PACKAGES, type PackageKey } from '#core/keeping'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState, initial?: Extract<EntryBody, { kind: 'pack' }>, at?: number }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const last = props.state.jars.at(-1)?.body
const perJarG = jarTakesG(props.state.food.powderDensity.value.mean, props.state.purpose, settings.value.jarMl)
const left = props.state.unpackedG ?? 0
const netG = ref<number | undefined>(props.initial?.netG ?? (left > 0 ? Math.round(Math.min(left, perJarG)) : undefined))
const packageKey = ref<PackageKey>(props.initial?.packageKey ?? last?.packageKey ?? 'screw-jar')
const place = ref(props.initial?.place ?? last?.place ?? 'Pantry')
const cautions = props.state.food.cautions.filter(caution => caution.step === 'pack')
const best = computed(() => bestByWindow({ food: props.state.food, purpose: props.state.purpose, packageKey: packageKey.value, storageC: settings.value.pantryC, rested: props.state.rest?.startedAt !== undefined }))
const dates = computed(() => bestByDates(props.at ?? Date.now(), best.value))

function read(): FormReading {
  if (netG.value === undefined) return { problem: 'Weigh what goes into the jar.' }
  if (place.value.trim() === '') return { problem: 'Say where the jar stands.' }
  return { bodies: [{ kind: 'pack', jarId: props.initial?.jarId ?? uuidv7(), netG: netG.value, packageKey: packageKey.value, place: place.value.trim(), sizeMl: settings.value.jarMl, storageC: settings.value.pantryC }] }
}
defineExpose({ read })
</script>

<template>
  <p v-for="caution in cautions" :key="caution.text" class="caution">{{ caution.text }}</p>
  <WeightField v-model="netG" label="In this jar" :hint="initial ? undefined : `${format.weight(left)} to pack, a ${settings.jarMl} mL jar takes about ${format.weight(perJarG)}`" required autofocus />
  <ChoiceField v-model="packageKey" label="Packed in" :choices="PACKAGES.map(item => ({ value: item.key, words: item.name }))" />
  <TextField v-model="place" label="Where it stands" />
  <p><strong>Best by {{ format.month(dates.from) }} to {{ format.month(dates.to) }}.</strong> <span class="quiet">{{ best.reason }} ({{ best.source }})</span></p>
</template>
