<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { BatchState, EntryBody } from '#core/batch'
import { HOT_START, hotStartC } from '#core/dryness'
import { START_SCHOOLS, TEMPERATURE_SCHOOLS } from '#core/foods'
import { trayTakesG } from '#core/planning'
import { isothermOf, lowestMoisture } from '#core/sorption'
import { temperatureFrom, temperatureIn } from '#core/units'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

type Load = Extract<EntryBody, { kind: 'load' }>
const props = defineProps<{ state: BatchState, page: BatchAnswer, initial?: Load }>()
const format = useFormat()

const machineId = ref(props.initial?.machineId ?? props.page.machines.find(machine => !props.page.taken[machine.id])?.id ?? props.page.machines[0]!.id)
const machine = computed(() => props.page.machines.find(item => item.id === machineId.value)!)
const there = computed(() => props.page.taken[machineId.value])
const free = computed(() => Array.from({ length: machine.value.trays }, (_, i) => i + 1).filter(position => !there.value?.positions.includes(position)))
const guessG = props.initial?.totalG ?? (props.state.run ? props.state.dryG : props.state.balance.weightG.p50)
const each = ref(props.initial?.trays !== undefined)
const totalG = ref<number | undefined>(props.initial?.totalG)
const perTrayG = computed(() => trayTakesG(props.state.card, machine.value.trayAreaM2).mean)
const traysNeeded = computed(() => Math.max(1, Math.round((totalG.value ?? guessG ?? perTrayG.value) / perTrayG.value)))
const chosen = ref<number[]>(props.initial?.positions ?? usualTrays())
const trayG = ref<Record<number, number | undefined>>(Object.fromEntries((props.initial?.trays ?? []).map(tray => [tray.position, tray.weightG])))
const heat = ref<string>(props.initial ? 'leave' : there.value ? 'leave' : String(props.state.card.temperatureC))
const { settings } = storeToRefs(useHouseholdStore())
const unit = settings.value.temperatureUnit
const lastAir = props.initial ? undefined : recentAir(props.page.lastAir, Date.now())
const room = ref(lastAir && temperatureIn(lastAir.roomC, unit))
const humidity = ref(lastAir && lastAir.roomHumidity * 100)
const roomC = computed(() => room.value === undefined ? undefined : Math.round(temperatureFrom(room.value, unit) * 10) / 10)
/** What the air and this heat can reach, against what is wanted. */
const reach = computed(() => {
  const setC = heat.value === 'leave' ? there.value?.setC ?? undefined : heat.value === 'off' ? undefined : Number(heat.value)
  if (roomC.value === undefined || humidity.value === undefined || setC === undefined) return undefined
  const { state } = props
  const lowest = lowestMoisture(isothermOf(state.food.group), { celsius: roomC.value, humidity: humidity.value / 100 }, setC)
  const target = state.food.target[state.purpose]
  const words = lowest.p50 > target ? 'cannot get below' : lowest.p90 > target ? 'may not get below' : undefined
  return { lowest, setC, short: words && `At ${Math.round(humidity.value)} % in this room ${format.temperature(setC)} ${words} ${format.share(words === 'cannot get below' ? lowest.p50 : lowest.p90)} water; ${PURPOSE_WORDS[state.purpose]} needs ${format.share(target)}. Dry the room’s air, take a higher heat for the last hours, or wait for a drier day.` }
})
const learned = computed(() => props.page.learned[machineId.value])
/** "here it usually takes 9 to 14 h: the Tall cabinet runs 12 % slower than the cards". */
const hoursWords = computed(() => {
  const hours = learned.value
  if (!hours || hours.runs === 0) return undefined
  return `Here usually ${Math.round(hours.low)} to ${Math.round(hours.high)} h: ${paceWords(machine.value.name, hours.machinePace, hours.runs)}${hours.person ? ` ${personWords(hours.person)}` : ''}`
})
const cautions = props.state.food.cautions.filter(caution => caution.step === 'load' || caution.step === 'dry')
watch(machineId, () => {
  chosen.value = usualTrays()
  heat.value = there.value ? 'leave' : String(props.state.card.temperatureC)
})

/** As many free trays as the method card's one layer needs. */
function usualTrays(): number[] {
  return free.value.slice(0, traysNeeded.value)
}
const heats = computed(() => {
  const { card } = props.state
  const schools = TEMPERATURE_SCHOOLS.filter(school => Math.abs(school.celsius - card.temperatureC) > 1 && card.temperatureC >= 50)
  return [
    { value: String(card.temperatureC), words: format.temperature(card.temperatureC), note: 'the card’s' },
    ...schools.map(school => ({ value: String(school.celsius), words: format.temperature(school.celsius), note: `${school.name} school` })),
    { value: 'off', words: 'Not yet', note: 'heat stays off' },
  ].filter(choice => choice.value === 'off' || (Number(choice.value) >= machine.value.lowC && Number(choice.value) <= machine.value.highC))
})
const heatReason = computed(() => Number(heat.value) === props.state.card.temperatureC
  ? props.state.card.temperatureReason
  : TEMPERATURE_SCHOOLS.find(school => String(school.celsius) === heat.value)?.reason ?? 'Moist food must not stand warm beyond two hours.')
const start = ref<'steady' | 'hot'>('steady')
/** What a hot start would be set to on the chosen heat; undefined where the school does not apply. */
const hotC = computed(() => heat.value === 'leave' || heat.value === 'off' || props.state.card.feelForm === 'leaves' ? undefined : hotStartC(Number(heat.value), machine.value.highC))
const startReason = computed(() => START_SCHOOLS.find(school => school.key === start.value)!.reason)
const sum = computed(() => chosen.value.reduce((total, position) => total + (trayG.value[position] ?? 0), 0))

function read(): FormReading {
  if (chosen.value.length === 0) return { problem: 'Choose the trays that the food lies on.' }
  if (each.value && chosen.value.some(position => trayG.value[position] === undefined)) return { problem: 'Give the weight of every tray, or weigh them together.' }
  const grams = each.value ? sum.value : totalG.value
  if (grams === undefined) return { problem: 'Weigh what lies on the trays: without this weight nobody knows later how dry it is.' }
  const runId = props.initial?.runId ?? there.value?.runId ?? uuidv7()
  const trays = each.value ? chosen.value.map(position => ({ position, weightG: trayG.value[position]! })) : undefined
  const { low, high, runs } = learned.value ?? { low: 0, high: 0, runs: 0 }
  const usualHours = props.initial ? props.initial.usualHours : runs > 0 ? { low: Math.round(low * 10) / 10, high: Math.round(high * 10) / 10, runs } : undefined
  const load: EntryBody = { kind: 'load', runId, machineId: machineId.value, positions: chosen.value, trays, totalG: grams, usualHours }
  if (!props.initial && (roomC.value === undefined) !== (humidity.value === undefined)) return { problem: 'The room’s temperature and humidity go together: give both, or neither.' }
  const bodies: EntryBody[] = [load]
  if (heat.value !== 'leave' && heat.value !== 'off') bodies.push({ kind: 'heat', runId, setC: start.value === 'hot' && hotC.value !== undefined ? hotC.value : Number(heat.value) })
  if (roomC.value !== undefined && humidity.value !== undefined) bodies.push({ kind: 'air', runId, roomC: roomC.value, roomHumidity: Math.round(humidity.value * 10) / 1000 })
  return { bodies }
}
defineExpose({ read })
</script>

<template>
  <p v-for="caution in cautions" :key="caution.text" class="caution">{{ caution.text }}</p>
  <ChoiceField v-if="page.machines.length > 1" v-model="machineId" label="Machine" :choices="page.machines.map(item => ({ value: item.id, words: item.name, note: page.taken[item.id] ? `running, ${plural(item.trays - page.taken[item.id]!.positions.length, 'tray')} free` : plural(item.trays, 'tray') }))" />
  <TrayPicker v-model="chosen" label="Trays, top to bottom" :trays="Array.from({ length: machine.trays }, (_, i) => i + 1)" :free="free">
    <p v-if="free.length === 0" class="problem">Every tray of this machine is taken. Choose another, or wait until one is out.</p>
    <p v-else-if="chosen.length < traysNeeded" class="quiet small">A tray takes about {{ format.weight(perTrayG) }} in one layer: {{ plural(traysNeeded, 'tray') }} for this load. Thicker dries slower and less evenly.</p>
  </TrayPicker>
  <ChoiceField v-model="each" label="Weighed" :choices="[{ value: false, words: 'All together' }, { value: true, words: 'Tray by tray' }]" />
  <div v-if="each" class="pair">
    <WeightField v-for="position in chosen" :key="position" v-model="trayG[position]" :label="`Tray ${position}`" required />
  </div>
  <WeightField v-else v-model="totalG" label="Food on the trays" :hint="guessG ? `without the trays; about ${format.weight(guessG)} expected` : 'without the trays'" required autofocus />
  <p v-if="each" class="quiet">Together {{ format.weight(sum) }}</p>
  <template v-if="!initial">
    <p v-if="there" class="quiet">This machine runs at {{ there.setC === null ? 'no heat' : format.temperature(there.setC) }} already: the batch joins its run.</p>
    <template v-else>
      <ChoiceField v-model="heat" label="Heat" :choices="heats" />
      <p class="quiet small">{{ heatReason }}</p>
      <template v-if="hotC !== undefined">
        <ChoiceField v-model="start" label="Start" :choices="START_SCHOOLS.map(school => ({ value: school.key, words: school.name, note: school.key === 'hot' ? `${format.temperature(hotC!)} for ${format.hours(HOT_START.hours)}` : undefined }))" />
        <p class="quiet small">{{ startReason }}</p>
      </template>
    </template>
    <p v-if="hoursWords" class="quiet small">{{ hoursWords }}</p>
    <div class="pair">
      <NumberField v-model="room" :label="`Room, °${unit}`" :hint="lastAir ? `as at ${format.moment(lastAir.at, Date.now())}` : undefined" :least="unit === 'C' ? -20 : -4" :most="unit === 'C' ? 60 : 140" />
      <NumberField v-model="humidity" label="Room humidity, %" :least="1" :most="100" :decimals="0" />
    </div>
    <p v-if="reach?.short" class="caution">{{ reach.short }}</p>
    <p v-else-if="reach" class="quiet small">In this air it can be dried down to about {{ format.share(reach.lowest.p50) }} water.</p>
  </template>
</template>
