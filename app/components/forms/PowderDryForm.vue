<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/batch'
import type { FormReading } from '~/composables/useBatch'

type PowderDry = Extract<EntryBody, { kind: 'powderDry' }>
const props = defineProps<{ state: BatchState, initial?: PowderDry }>()
const how = ref<PowderDry['how']>(props.initial?.how ?? 'oven-off')
const minutes = ref<number | undefined>(props.initial?.minutes ?? 15)
const beforeG = ref<number | undefined>(props.initial?.beforeG ?? (props.state.powderG > 0 ? Math.round(props.state.powderG) : undefined))
const afterG = ref<number | undefined>(props.initial?.afterG)
const USUAL = { 'oven-off': 15, 'low-oven': 15, 'dryer': 60 }
watch(how, (next) => {
  minutes.value = USUAL[next]
})
function read(): FormReading {
  if (minutes.value === undefined) return { problem: 'Say how many minutes.' }
  return { bodies: [{ kind: 'powderDry', how: how.value, minutes: minutes.value, beforeG: beforeG.value, afterG: afterG.value }] }
}
defineExpose({ read })
</script>

<template>
  <p class="quiet">Thin on paper. Let it cool inside the oven where the air is humid, outside where it is dry; break it up.</p>
  <ChoiceField v-model="how" label="Dried" :choices="[{ value: 'oven-off', words: 'Oven at its lowest, switched off', note: '5 to 20 min' }, { value: 'low-oven', words: 'Low oven', note: '15 min' }, { value: 'dryer', words: 'Dryer', note: 'an hour for half-dry leaf' }]" />
  <NumberField :key="how" v-model="minutes" label="Minutes" :least="1" :most="1440" :decimals="0" required />
  <div class="pair"><WeightField v-model="beforeG" label="Before" /><WeightField v-model="afterG" label="After" hint="what it lost was water" /></div>
</template>
