<script setup lang="ts">
import { readJarAir } from '#core/water'
import type { BatchState, EntryBody } from '#core/log'
import { JAR_AIR_HOURS } from '#core/dryness'
import { calibrateHygrometer } from '#core/sorption'
import { temperatureFrom, temperatureIn } from '#core/units'
import type { HygrometerAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** What a hygrometer shows in a closed jar. */
type JarAir = Extract<EntryBody, { kind: 'jarAir' }>
const props = defineProps<{ state: BatchState; initial?: JarAir }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const unit = settings.value.temperatureUnit
const shown = ref(props.initial && props.initial.shown * 100)
const hours = ref<number | undefined>(props.initial?.closedHours ?? JAR_AIR_HOURS)
const degrees = ref<number | undefined>(temperatureIn(props.initial?.celsius ?? settings.value.pantryC, unit))
const hygrometers = ref<HygrometerAnswer[]>([])
const chosen = ref('')
const paper = usePaper()
const wasRead = ref(false)
/** The jar stands closed for the hours that were said, and then it is read. */
async function readOnPaper() {
  if (hours.value === undefined) return
  const reading = await paper!.jarAir(hours.value)
  shown.value = 100 * reading.shown
  degrees.value = temperatureIn(reading.celsius, unit)
  wasRead.value = true
}
onMounted(async () => {
  if (paper) return
  try {
    hygrometers.value = await call('hygrometers')
    chosen.value = hygrometers.value[0]?.id ?? ''
  } catch {
    // Without the list the reading is taken as the hygrometer shows it.
  }
})
const calibration = computed(
  () => hygrometers.value.find(item => item.id === chosen.value)?.calibration ?? props.initial?.calibration ?? calibrateHygrometer([]),
)
const celsius = computed(() => (degrees.value === undefined ? undefined : Math.round(temperatureFrom(degrees.value, unit) * 10) / 10))
const meaning = computed(() =>
  shown.value === undefined
    ? undefined
    : readJarAir(props.state, { shown: shown.value / 100, celsius: celsius.value, calibration: calibration.value }),
)

function read(): FormReading {
  if (shown.value === undefined) return { problem: 'Give what the hygrometer shows.' }
  if (hours.value === undefined) return { problem: 'Say how many hours the jar was closed: young air says little.' }
  return {
    bodies: [
      {
        kind: 'jarAir',
        shown: Math.round(shown.value * 10) / 1000,
        closedHours: hours.value,
        celsius: celsius.value,
        calibration: calibration.value,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <p class="quiet">
    A few of the thickest pieces with a hygrometer in a small closed jar, cool, for {{ JAR_AIR_HOURS }} hours or overnight. The air then
    tells of the whole piece, core and all.
  </p>
  <div v-if="paper && !wasRead" class="row">
    <ElButton @click="readOnPaper">Close the jar for {{ hours ?? 0 }} h, then read</ElButton>
  </div>
  <NumberField :key="String(wasRead)" v-model="shown" label="The hygrometer shows, %" :least="1" :most="99" :decimals="0" required />
  <div class="pair">
    <NumberField v-model="hours" label="Closed for, hours" :least="0" :most="2000" required />
    <NumberField v-model="degrees" :label="`Jar, °${unit}`" :least="unit === 'C' ? -20 : -4" :most="unit === 'C' ? 60 : 140" />
  </div>
  <ChoiceField
    v-if="hygrometers.length"
    v-model="chosen"
    label="Hygrometer"
    :choices="[
      ...hygrometers.map(item => ({
        value: item.id,
        words: item.name,
        note: item.readings.length ? `tested over ${plural(item.readings.length, 'salt')}` : 'not tested',
      })),
    ]"
  />
  <p v-else class="quiet small">This hygrometer was never tested over salt, so its word counts for less. The set-up has the salt test.</p>
  <p v-if="meaning">
    <strong
      >{{ Math.round(meaning.humidity * 100) }} % corrected: about {{ format.share(meaning.moisture.p50) }} water ({{
        format.range(meaning.moisture, format.share)
      }}).</strong
    >
    <span class="quiet">Sealable below {{ Math.round(meaning.sealBelow * 100) }} %.</span>
  </p>
</template>
