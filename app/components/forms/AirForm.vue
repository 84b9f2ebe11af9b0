<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import { targetIn } from '#core/foods'
import { temperatureFrom, temperatureIn } from '#core/units'
import { reachIn } from '#core/water'
import { STANDARD_WAY } from '#core/ways'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** The room's air, and what a thermometer shows in the machine. */
type AirBody = Extract<EntryBody, { kind: 'air' }>
const props = defineProps<{ state: BatchState; page?: BatchAnswer; initial?: AirBody }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const unit = settings.value.temperatureUnit
const lastAir = recentAir(props.page?.lastAir, Date.now())
const shown = (celsius?: number) => (celsius === undefined ? undefined : temperatureIn(celsius, unit))
const room = ref(shown(props.initial ? props.initial.roomC : lastAir?.roomC))
const humidity = ref(props.initial ? props.initial.roomHumidity && props.initial.roomHumidity * 100 : lastAir && lastAir.roomHumidity * 100)
const chamber = ref(shown(props.initial?.chamberC))
const celsius = (value?: number) => (value === undefined ? undefined : Math.round(temperatureFrom(value, unit) * 10) / 10)
const run = computed(() => props.state.run)
const reach = computed(() => {
  const setC = celsius(chamber.value) ?? run.value?.setC ?? props.state.card.temperatureC
  if (room.value === undefined || humidity.value === undefined) return undefined
  const { food, purpose } = props.state
  const way = run.value?.way.way ?? STANDARD_WAY
  return reachIn(food, way, targetIn(food, purpose, way), setC, { celsius: celsius(room.value)!, humidity: humidity.value / 100 }).lowest
})

function read(): FormReading {
  const body: AirBody = {
    kind: 'air',
    runId: run.value!.runId,
    roomC: celsius(room.value),
    roomHumidity: humidity.value === undefined ? undefined : Math.round(humidity.value * 10) / 1000,
    chamberC: celsius(chamber.value),
  }
  if ((body.roomC === undefined) !== (body.roomHumidity === undefined))
    return { problem: 'The room’s temperature and humidity go together: either alone says nothing.' }
  if (body.roomC === undefined && body.chamberC === undefined)
    return { problem: 'Give the room’s air, or what was measured in the machine.' }
  return { bodies: [body] }
}
defineExpose({ read })
</script>

<template>
  <div class="pair">
    <NumberField v-model="room" :label="`Room, °${unit}`" :least="unit === 'C' ? -20 : -4" :most="unit === 'C' ? 60 : 140" />
    <NumberField v-model="humidity" label="Room humidity, %" :least="1" :most="100" :decimals="0" />
  </div>
  <NumberField
    v-model="chamber"
    :label="`Measured in the machine, °${unit}`"
    hint="by a thermometer among the trays, not the machine’s own display"
    :least="0"
    :most="480"
  />
  <p v-if="reach" class="quiet">
    In this air the {{ state.food.name.toLowerCase() }} can be dried down to about {{ format.share(reach.p50) }} water ({{
      format.range(reach, format.share)
    }}).
  </p>
</template>
