<script setup lang="ts">
import { waterOf } from '#core/water'
import type { BatchState, EntryBody } from '#core/log'
import { clumpRisk, glassOf, looseBelow } from '#core/grinding'
import { dryingGain } from '#core/mass'
import type { FormReading } from '~/composables/useBatch'

type PowderDry = Extract<EntryBody, { kind: 'powderDry' }>
const props = defineProps<{ state: BatchState; initial?: PowderDry }>()
const how = ref<PowderDry['how']>(props.initial?.how ?? 'oven-off')
const minutes = ref<number | undefined>(props.initial?.minutes ?? 15)
const beforeG = ref<number | undefined>(props.initial?.beforeG ?? (props.state.powderG > 0 ? Math.round(props.state.powderG) : undefined))
const afterG = ref<number | undefined>(props.initial?.afterG)
const USUAL = { 'oven-off': 15, 'low-oven': 15, dryer: 60 }
watch(how, next => {
  minutes.value = USUAL[next]
})
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const RISK = { none: 'stays loose', slight: 'may clump a little', sticky: 'clumps still', cakes: 'cakes still' } as const
/** What the minutes brought, as far as the scale can tell. */
const gain = computed(() => {
  if (!beforeG.value || !afterG.value || afterG.value > beforeG.value) return undefined
  const { lostG, before, after } = dryingGain(beforeG.value, afterG.value, waterOf(props.state).moisture.p50)
  const glass = glassOf(props.state.food)
  const wanted = looseBelow(glass, settings.value.pantryC)
  const risk = RISK[clumpRisk(glass, after, settings.value.pantryC)]
  return lostG < 0.3
    ? 'Nothing left it: the clumps were only packed, or the oven was too cool.'
    : `${format.weight(lostG)} of water gone: about ${format.share(before)} before, ${format.share(after)} now. At ${format.temperature(settings.value.pantryC)} it ${risk}${after > wanted && wanted > 0.01 ? `; below ${format.share(wanted)} it would not` : ''}.`
})
function read(): FormReading {
  if (minutes.value === undefined) return { problem: 'Say how many minutes.' }
  return { bodies: [{ kind: 'powderDry', how: how.value, minutes: minutes.value, beforeG: beforeG.value, afterG: afterG.value }] }
}
defineExpose({ read })
</script>

<template>
  <p class="quiet">Thin on paper. Let it cool inside the oven where the air is humid, outside where it is dry; break it up.</p>
  <ChoiceField
    v-model="how"
    label="Dried"
    :choices="[
      { value: 'oven-off', words: 'Oven at its lowest, switched off', note: '5 to 20 min' },
      { value: 'low-oven', words: 'Low oven', note: '15 min' },
      { value: 'dryer', words: 'Dryer', note: 'an hour for half-dry leaf' },
    ]"
  />
  <NumberField :key="how" v-model="minutes" label="Minutes" :least="1" :most="1440" :decimals="0" required />
  <div class="pair">
    <WeightField v-model="beforeG" label="Before" /><WeightField v-model="afterG" label="After" hint="what it lost was water" />
  </div>
  <p v-if="gain">
    <strong>{{ gain }}</strong>
  </p>
</template>
