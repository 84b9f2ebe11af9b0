<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { isSulphited, type BatchState, type EntryBody } from '#core/batch'
import { stopsAtPacking } from '#core/safety'
import { clumpRisk, GLASS, looseBelow } from '#core/grinding'
import { bestByDates, bestByWindow, dampOf, desiccantG, jarTakesG, NOT_BOTH, oxygenAbsorber, PACKAGES, PANTRY_HUMIDITY, type PackageKey } from '#core/keeping'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState, page?: BatchAnswer, initial?: Extract<EntryBody, { kind: 'pack' }>, at?: number }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const last = props.state.jars.at(-1)?.body
const perJarG = jarTakesG(props.state.food.powderDensity.value.mean, props.state.purpose, settings.value.jarMl)
const left = props.state.unpackedG ?? 0
const netG = ref<number | undefined>(props.initial?.netG ?? (left > 0 ? Math.round(Math.min(left, perJarG)) : undefined))
const packageKey = ref<PackageKey>(props.initial?.packageKey ?? last?.packageKey ?? 'screw-jar')
const place = ref(props.initial?.place ?? last?.place ?? 'Pantry')
const cautions = ref<{ problem: () => string | undefined, bodies: () => EntryBody[] }>()
const accepted = new Set([...props.page?.accepted ?? [], ...props.state.accepted])
const inOil = ref(props.initial?.inOil ?? false)
const oilC = ref(settings.value.pantryC)
const mayOil = props.state.food.traits.includes('oil') || props.state.food.traits.includes('hot')
const stops = computed(() => stopsAtPacking(props.state.food, { packageKey: packageKey.value, inOil: inOil.value, storageC: inOil.value ? oilC.value : settings.value.pantryC, moisture: props.state.food.target[props.state.purpose] }))
const best = computed(() => bestByWindow({ food: props.state.food, purpose: props.state.purpose, packageKey: packageKey.value, storageC: settings.value.pantryC, rested: props.state.rest?.startedAt !== undefined, inOil: inOil.value }))
const target = props.state.food.target[props.state.purpose]
const glass = GLASS[props.state.food.isotherm]
/** What the pantry's warmth does to it. */
const clumps = computed(() => {
  if (props.state.purpose === 'pieces') return undefined
  const risk = clumpRisk(glass, target, settings.value.pantryC)
  const driest = looseBelow(glass, settings.value.pantryC)
  const words = { none: 'stays loose', slight: 'may clump a little, and a spoon breaks it', sticky: 'clumps', cakes: 'cakes' }[risk]
  return `At ${format.temperature(settings.value.pantryC)} and ${format.share(target)} water it ${words}${risk === 'sticky' || risk === 'cakes' ? driest > 0.01 ? `; below ${format.share(driest)} it would not` : '; only cold helps' : ''}.`
})
/** When the damp that the package lets in brings it there. */
const damp = computed(() => {
  const found = netG.value ? dampOf({ food: props.state.food, purpose: props.state.purpose, netG: netG.value, packageKey: packageKey.value, celsius: settings.value.pantryC }) : undefined
  return found && dampWords(found)
})
const absorber = computed(() => {
  if (!netG.value || target > 0.1 || netG.value / 1.4 >= settings.value.jarMl) return undefined
  const { sizeCc, count, airMl } = oxygenAbsorber(settings.value.jarMl, netG.value)
  const gel = desiccantG({ airMl, filledIn: { celsius: 20, humidity: PANTRY_HUMIDITY }, wanted: 0.2, ingressG: 0 })
  return `Against rancidity and fading ${plural(count, 'oxygen absorber')} of ${sizeCc} cc; or against clumping ${Math.max(1, Math.ceil(gel))} g of silica gel. ${NOT_BOTH}`
})
const dates = computed(() => bestByDates(props.at ?? Date.now(), best.value))

function read(): FormReading {
  if (netG.value === undefined) return { problem: 'Weigh what goes into the jar.' }
  if (stops.value.length > 0) return { problem: stops.value[0]!.rule.wayOut! }
  if (place.value.trim() === '') return { problem: 'Say where the jar stands.' }
  const unread = cautions.value?.problem()
  if (unread) return { problem: unread }
  return { bodies: [...cautions.value?.bodies() ?? [], { kind: 'pack', jarId: props.initial?.jarId ?? uuidv7(), netG: netG.value, packageKey: packageKey.value, place: place.value.trim(), sizeMl: settings.value.jarMl, storageC: inOil.value ? oilC.value : settings.value.pantryC, inOil: inOil.value || undefined }] }
}
defineExpose({ read })
</script>

<template>
  <CautionList ref="cautions" step="pack" :food="state.food" :accepted="accepted" :raw="state.card.raw" :sulphited="isSulphited(state)" :stops="stops" />
  <WeightField v-model="netG" label="In this jar" :hint="initial ? undefined : `${format.weight(left)} to pack, a ${settings.jarMl} mL jar takes about ${format.weight(perJarG)}`" required autofocus />
  <ChoiceField v-model="packageKey" label="Packed in" :choices="PACKAGES.map(item => ({ value: item.key, words: item.name }))" />
  <ChoiceField v-if="mayOil" v-model="inOil" label="Under oil" :choices="[{ value: false, words: 'No' }, { value: true, words: 'Yes' }]" />
  <ChoiceField v-if="inOil" v-model="oilC" label="Kept" :choices="[{ value: settings.pantryC, words: 'On the shelf' }, { value: 4, words: 'In the refrigerator' }, { value: -18, words: 'In the freezer' }]" />
  <TextField v-model="place" label="Where it stands" />
  <p><strong>Best by {{ format.month(dates.from) }} to {{ format.month(dates.to) }}.</strong> <span class="quiet">{{ best.reason }} ({{ best.source }})</span></p>
  <p v-if="clumps || damp" class="quiet small">{{ clumps }} {{ damp }}</p>
  <p v-if="absorber && packageKey !== 'bag' && packageKey !== 'plastic-lid'" class="quiet small">{{ absorber }}</p>
</template>
