<script setup lang="ts">
import { temperatureFrom, temperatureIn } from '#core/units'
import { HEATED_AFTER } from '#core/safety'
import { INSECTS_HEAT } from '#core/ways'
import type { BatchState, EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** Dry food heated through: raw jerky once it is dry, or what stood open. */
type HeatThrough = Extract<EntryBody, { kind: 'heatThrough' }>
const props = defineProps<{ state: BatchState; initial?: HeatThrough }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const unit = settings.value.temperatureUnit
const usual = props.state.card.heatAfter ? HEATED_AFTER : INSECTS_HEAT
const heat = ref<number | undefined>(Math.round(temperatureIn(props.initial?.airC ?? usual.airC, unit)))
const minutes = ref<number | undefined>(props.initial?.minutes ?? usual.minutes)
const read = (): FormReading =>
  heat.value === undefined || minutes.value === undefined
    ? { problem: 'Give the oven’s heat and the minutes.' }
    : { bodies: [{ kind: 'heatThrough', airC: Math.round(temperatureFrom(heat.value, unit) * 10) / 10, minutes: minutes.value }] }
defineExpose({ read })
</script>

<template>
  <p class="quiet">
    {{
      state.card.heatAfter
        ? format.sentence(
            `Raw when it was loaded: ${HEATED_AFTER.airC} °C in a hot oven for ${HEATED_AFTER.minutes} minutes, in one layer, straight from the trays.`,
          )
        : format.sentence(`Against insects and their eggs: ${INSECTS_HEAT.airC} °C for ${INSECTS_HEAT.minutes} minutes in a thin layer.`)
    }}
  </p>
  <div class="pair">
    <NumberField
      v-model="heat"
      :label="`Oven, °${unit}`"
      :least="unit === 'C' ? 50 : 122"
      :most="unit === 'C' ? 250 : 482"
      :decimals="0"
      required
    />
    <NumberField v-model="minutes" label="Minutes" :least="1" :most="600" :decimals="0" required />
  </div>
</template>
