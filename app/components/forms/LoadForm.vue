<script setup lang="ts">
import { USUAL_ROOM } from '#core/air'
import { sdOf } from '#core/stats'
import { uuidv7 } from 'uuidv7'
import { balanceOnTrays, holdLimit, remainderAt, spentAt, waitingAs } from '#core/batch'
import { FATES, FATE_WORDS, type BatchState, type EntryBody, type Fate, type HoldPlace } from '#core/log'
import { HOT_START, hotStartC } from '#core/dryness'
import { cardOf, targetIn, wayOf } from '#core/foods'
import { usualDuskMinute } from '#core/sun'
import { hoursOf, loadLaw, type HoursRange } from '#core/hours'
import { goesByRoom, STANDARD_WAY, WAYS } from '#core/ways'
import { cautionsAt, COOKING_STEPS, isCookedThrough, mixedLoadWarnings, stopsAtLoading } from '#core/safety'
import {
  freezeCycleOf,
  heatChoices,
  isPoorOutdoors,
  machinesByUse,
  nearestHeat,
  OUTDOORS,
  startOfDay,
  traysFor,
  trayTakesG,
  type HeatChoice,
} from '#core/planning'
import { temperatureFrom, temperatureIn } from '#core/units'
import { litreSpread } from '#core/using'
import { finishingOf, reachIn } from '#core/water'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'
import { DAY, HOUR, MINUTE } from '#core/time'
import type { PartParcel } from '~/utils/parts'

type Load = Extract<EntryBody, { kind: 'load' }>
const props = defineProps<{ state: BatchState; page: BatchAnswer; initial?: Load; place?: number }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const unit = settings.value.temperatureUnit

/** With the steps that nobody logged done by their usual losses. */
const onTrays = balanceOnTrays(props.state)
const guessG = props.initial?.totalG ?? (props.state.run ? props.state.powderG || props.state.dryG : onTrays.weightG.p50)
/** How far a load that nobody weighed is from what was expected (common practice). */
const UNWEIGHED = 0.1
type Machine = BatchAnswer['machines'][number]
const freeIn = ({ id, trays }: Machine) => trays - (props.page.taken[id]?.positions.length ?? 0)
const neededIn = ({ trayAreaM2, kind }: Machine) =>
  traysFor(guessG ?? 0, trayTakesG(props.state.card, trayAreaM2, kind, props.state.thicknessMm).mean, WAYS[kind].underVacuum)
/** After the smoke it is another way; what does not find its places comes after what does. */
const byUse = machinesByUse(props.page.machines, props.state.run?.way.partOnly ? [{ way: STANDARD_WAY }] : props.state.card.ways)
/** What the plan says, or what was meant when the basket came in, where the load finds its places there. */
const findsPlaces = (item: Machine) => freeIn(item) >= Math.min(neededIn(item), item.trays)
const meant = props.state.run
  ? undefined
  : [props.page.planned?.machineId, props.state.intake.body.machineId]
      .map(id => props.page.machines.find(item => item.id === id && findsPlaces(item)))
      .find(item => item !== undefined)
/** A try that was taken over: its machine, heat and start are what the form begins with. */
const tried = props.initial ? undefined : useTakenTries().of(props.page.batchId)
const triedIn = tried && props.page.machines.find(item => item.id === tried.machineId && findsPlaces(item))
const machineId = ref(props.initial?.machineId ?? triedIn?.id ?? meant?.id ?? (byUse.find(findsPlaces) ?? byUse[0]!).id)
const machine = computed(() => props.page.machines.find(item => item.id === machineId.value)!)
const kind = computed(() => machine.value.kind)
const way = computed(() => wayOf(props.state.card, kind.value))
const facts = computed(() => WAYS[kind.value])
const there = computed(() => props.page.taken[machineId.value])
const free = computed(() =>
  Array.from({ length: machine.value.trays }, (_, i) => i + 1).filter(position => !there.value?.positions.includes(position)),
)
/** On the scale together, tray by tray, or not at all: then it weighs what was expected. */
const weighed = ref<'together' | 'trays' | 'not'>(
  props.initial?.weightSdG !== undefined
    ? 'not'
    : props.initial?.trays !== undefined || (!props.initial && facts.value.underVacuum)
      ? 'trays'
      : 'together',
)
const each = computed(() => weighed.value === 'trays')
/** What is expected on the trays, with its doubt: by what the steps left, or by full trays where nobody knows even that. */
const expected = computed(() => {
  if (props.initial?.weightSdG !== undefined) return { grams: props.initial.totalG, sdG: props.initial.weightSdG }
  const doubtG = sdOf(onTrays.weightG)
  const needed = traysFor(guessG ?? 0, perTrayG.value, facts.value.underVacuum)
  // What finds no place on the trays that are free is not on them.
  const onThese = chosen.value.length < needed && !props.state.run ? chosen.value.length / needed : 1
  const grams = guessG === undefined ? perTrayG.value * chosen.value.length : guessG * onThese
  const spread = props.state.run ? 0 : doubtG
  return { grams: Math.round(grams), sdG: Math.max(1, Math.round(Math.hypot(spread, UNWEIGHED * grams))) }
})
const totalG = ref<number | undefined>(props.initial?.totalG)
const perTrayG = computed(() => trayTakesG(props.state.card, machine.value.trayAreaM2, kind.value, props.state.thicknessMm).mean)
const traysNeeded = computed(() => traysFor(totalG.value ?? guessG ?? perTrayG.value, perTrayG.value, facts.value.underVacuum))
const chosen = ref<number[]>(props.initial?.positions ?? usualTrays())
const trayG = ref<Record<number, number | undefined>>(
  Object.fromEntries((props.initial?.trays ?? []).map(tray => [tray.position, tray.weightG])),
)
const HEAT_QUESTIONS = ['heat', 'leafHeat', 'greenHeat']
const schoolsOf = (key: string) => props.page.schools.find(question => question.key === key)?.schools ?? []
/** The heat that was chosen for this batch by a school; the card's where none was. */
const wantedC = () => {
  const chosen = HEAT_QUESTIONS.flatMap(key => schoolsOf(key).filter(school => school.key === props.state.choices[key]))[0]
  return facts.value.plainHeat && kind.value === STANDARD_WAY && chosen?.celsius !== undefined ? chosen.celsius : way.value.temperatureC
}
const heat = ref<string>(props.initial || there.value ? 'leave' : triedIn ? triedHeat() : String(nearestHeat(wantedC(), machine.value)))
/** Another heat than those offered, in the household's degrees. */
const otherHeat = ref<number | undefined>(triedIn && temperatureIn(tried!.setC, unit))
/** What is set, °C; undefined with the heat off, or as it is. */
const setNow = computed(() => {
  if (heat.value === 'leave' || heat.value === 'off') return undefined
  if (heat.value !== 'other') return Number(heat.value)
  return otherHeat.value === undefined ? undefined : Math.round(10 * temperatureFrom(otherHeat.value, unit)) / 10
})
const lastAir = props.initial ? undefined : recentAir(props.page.lastAir, Date.now())
const room = ref(lastAir && temperatureIn(lastAir.roomC, unit))
const humidity = ref(lastAir && lastAir.roomHumidity * 100)
const roomC = computed(() => (room.value === undefined ? undefined : Math.round(temperatureFrom(room.value, unit) * 10) / 10))
/** The heat that it will stand in, °C: what is set, or what runs there already; undefined without heat. */
const heatThere = computed(() => (heat.value === 'leave' ? (there.value?.setC ?? undefined) : setNow.value))
/** What the air and this heat can reach, against what is wanted. */
const measured = computed(() =>
  roomC.value === undefined || humidity.value === undefined ? undefined : { celsius: roomC.value, humidity: humidity.value / 100 },
)
const reach = computed(() => {
  const setC = heatThere.value
  if (setC === undefined || facts.value.underVacuum) return undefined
  const { food, purpose } = props.state
  return { ...reachIn(food, kind.value, targetIn(food, purpose, kind.value), setC, measured.value), setC }
})
const reachWords = computed(() => {
  if (!reach.value || reach.value.verdict === 'can') return undefined
  const { setC, verdict, lowest, target } = reach.value
  const where = measured.value
    ? `At ${Math.round(100 * measured.value.humidity)} % in this ${facts.value.outdoors ? 'air' : 'room'}`
    : goesByRoom(kind.value)
      ? `At a usual ${Math.round(100 * USUAL_ROOM.humidity)} % in this room`
      : `In ${facts.value.outdoors ? 'air' : 'a room'} that nobody measured`
  const least = verdict === 'cannot' ? `cannot get below ${format.share(lowest.p10)}` : `may not get below ${format.share(lowest.p90)}`
  const finishing = facts.value.unheated ? finishingOf(props.state, lowest.p50) : undefined
  const mend = facts.value.unheated
    ? `Finish it in a machine${finishing ? `: ${finishWords(finishing, format)}` : ''}.`
    : 'Dry the room’s air, take a higher heat for the last hours, or wait for a drier day.'
  return `${where} ${format.temperature(setC)} ${least} water; ${PURPOSE_WORDS[props.state.purpose]} needs ${format.share(target)}. ${mend}`
})
const learned = computed(() => props.page.learned[machineId.value])
/** Wet food on a square metre of its trays, kg. */
const kgM2 = computed(() =>
  loadG.value > 0 && chosen.value.length > 0 ? loadG.value / 1000 / (chosen.value.length * machine.value.trayAreaM2) : undefined,
)
/** "here it usually takes 9 to 14 h: the Tall cabinet runs 12 % slower than the cards". */
const hoursWords = computed(() => {
  // Of a cycle the line of its ice tells.
  if (facts.value.underVacuum) return undefined
  const hours = learned.value
  const celsius = heatThere.value
  const { temperatureC } = way.value
  const words = ({ low, high }: HoursRange) => `${Math.round(low)} to ${Math.round(high)} h`
  const asked = { ...props.state, way: kind.value, learned: hours, setC: celsius, room: measured.value, loadKgM2: kgM2.value }
  const heaped = loadLaw(props.state.card, kgM2.value, props.state.thicknessMm)
  if (heaped > 1)
    return `So much on ${plural(chosen.value.length, 'tray')} is no single layer: some ${words(hoursOf(asked))}; in one layer ${words(hoursOf({ ...asked, loadKgM2: undefined }))}.`
  if (celsius !== undefined && facts.value.plainHeat && Math.abs(celsius - temperatureC) > 1)
    return `At ${format.temperature(celsius)} some ${words(hoursOf(asked))}; at the card’s ${format.temperature(temperatureC)} ${words(hoursOf({ ...asked, setC: temperatureC }))}.`
  if (!hours || hours.runs === 0) return undefined
  const { machine: cabinet, food, person } = hours
  const said = [
    cabinet && paceWords(machine.value.name, cabinet),
    food && foodWords(props.state.food.name, food),
    person && personWords(props.state.cutBy!, person),
  ].filter(Boolean)
  return `Here usually ${Math.round(hours.low)} to ${Math.round(hours.high)} h${said.length > 0 ? `: ${said.join(' ')}` : ', by your other runs.'}`
})
/** What the hours come from, to be opened. */
const behind = ref<{ kind: 'machine' | 'food' | 'person'; of: string; words: string }>()
const effects = computed(() => {
  const hours = learned.value
  return [
    hours?.machine && { kind: 'machine' as const, of: machineId.value, words: machine.value.name },
    hours?.food && { kind: 'food' as const, of: props.state.food.key, words: props.state.food.name },
    hours?.person && { kind: 'person' as const, of: props.state.cutBy!, words: props.state.cutBy! },
  ].filter(item => item !== undefined)
})
watch(machineId, () => {
  chosen.value = usualTrays()
  heat.value = there.value ? 'leave' : String(nearestHeat(wantedC(), machine.value))
  if (facts.value.underVacuum) weighed.value = 'trays'
})

/** The heat of the try, among those offered or another. */
function triedHeat(): string {
  return tried!.setC === nearestHeat(wantedC(), machine.value) ? String(tried!.setC) : 'other'
}

/** As many free trays as the method card's one layer needs. */
function usualTrays(): number[] {
  if (props.place && free.value.includes(props.place)) return [props.place]
  // What was tried may lie fuller, or emptier.
  const triedG = triedIn && machineId.value === triedIn.id ? 1000 * tried!.loadKgM2 * triedIn.trayAreaM2 : perTrayG.value
  return free.value.slice(0, traysFor(totalG.value ?? guessG ?? triedG, triedG, facts.value.underVacuum))
}
const heats = computed(() => {
  const { choose, wait } = facts.value.words
  const schools = HEAT_QUESTIONS.flatMap(schoolsOf)
  const choices = heatChoices(kind.value, way.value.temperatureC, schools, machine.value).map(({ celsius, because }) => ({
    value: String(celsius),
    words: choose ?? format.temperature(celsius),
    note: choose ? undefined : noteOf(because),
  }))
  const another = choose
    ? []
    : [
        {
          value: 'other',
          words: 'Another',
          note: `${format.temperature(machine.value.lowC)} to ${format.temperature(machine.value.highC)}`,
        },
      ]
  return [...choices, ...another, { value: 'off', words: 'Not yet', note: wait }]
})
/** "the card’s", or what sets a school apart: "57 °C, slow" is "slow". */
function noteOf(because: HeatChoice['because']): string {
  if (typeof because === 'object') return because.school.split(', ')[1] ?? 'another school'
  return because === 'card' ? 'as usual for it' : because === 'nearest' ? 'as near as it comes' : because
}
const heatReason = computed(() =>
  setNow.value === way.value.temperatureC
    ? way.value.temperatureReason
    : (HEAT_QUESTIONS.flatMap(schoolsOf).find(school => String(school.celsius) === heat.value)?.reason ??
      (heat.value === 'other' ? 'Hours follow the heat: each degree counts.' : 'Moist food must not stand warm beyond two hours.')),
)
const start = ref<'steady' | 'hot'>((triedIn && tried!.hotH > 0) || props.state.choices.start === 'hot' ? 'hot' : 'steady')
/** What a hot start would be set to on the chosen heat; undefined where the school does not apply. */
const hotC = computed(() =>
  !facts.value.hotStart || setNow.value === undefined || schoolsOf('start').length === 0 || props.state.card.feelForm === 'leaves'
    ? undefined
    : hotStartC(setNow.value, machine.value.highC),
)
const startReason = computed(() => schoolsOf('start').find(school => school.key === start.value)?.reason)
const sum = computed(() => chosen.value.reduce((total, position) => total + (trayG.value[position] ?? 0), 0))

// A freeze dryer's load: frozen trays, its ice, its cycle.
const frozen = ref<'all' | 'none' | 'some'>(
  props.initial?.frozen
    ? props.initial.frozen.length === props.initial.positions.length
      ? 'all'
      : props.initial.frozen.length === 0
        ? 'none'
        : 'some'
    : 'all',
)
const frozenTrays = ref<number[]>(props.initial?.frozen ?? [])
const frozenNow = computed(() =>
  !facts.value.underVacuum
    ? undefined
    : frozen.value === 'all'
      ? chosen.value
      : frozen.value === 'none'
        ? []
        : frozenTrays.value.filter(tray => chosen.value.includes(tray)),
)
const liquidThawed = computed(() => facts.value.underVacuum && props.state.card.liquid && frozenNow.value!.length < chosen.value.length)
const loadG = computed(() => (weighed.value === 'not' ? expected.value.grams : each.value ? sum.value : (totalG.value ?? 0)))
const cycle = computed(() =>
  freezeCycleOf(props.state, machine.value, {
    loadG: loadG.value || guessG || 0,
    trays: chosen.value.length,
    frozen: frozen.value === 'all',
    besideG: (props.page.others[machineId.value] ?? []).reduce((sum, other) => sum + (other.waterG ?? 0), 0),
  }),
)
/** How long all of it takes, as the batch will say once it is loaded. */
const cycleH = computed(() => {
  const areaM2 = machine.value.trayAreaM2 * chosen.value.length
  const { low, high } = hoursOf({
    ...props.state,
    way: kind.value,
    learned: learned.value,
    loadKgM2: (loadG.value || guessG || 0) / 1000 / areaM2,
    frozen: frozen.value === 'all',
    moisture: props.state.balance.moisture.p50,
  })
  return { p10: low, p50: Math.sqrt(low * high), p90: high }
})
/** What is smooth is measured by the cup or the litre as well. */
const litre = litreSpread(props.state.card)
/** Of what was measured so, standard deviation, g. */
const pouredSdG = ref<number>()
/** As deep as home machines take it (common practice: their lips are about 20 mm). */
const deepestMm = 20
const depthMm = computed(() =>
  facts.value.underVacuum && loadG.value > 0 && chosen.value.length > 0 && litre
    ? loadG.value / (litre.mean * machine.value.trayAreaM2 * chosen.value.length)
    : undefined,
)
// The weather, as the person sees it.
const dusk = ref(format.clock(usualDuskMinute(Date.now(), settings.value)))
const rain = ref('')
// Sheets spread as measured portions.
const portionCount = ref<number>()
const portionMl = ref<number | undefined>(props.initial?.portions?.ml)
const withPortions = computed(() => props.state.card.portions && !props.state.run)

const mates = computed(() =>
  (props.page.others[machineId.value] ?? []).map(({ food, cardKey, cooked, frozen: solid }) => ({
    food,
    cooked,
    card: cardOf(food, cardKey),
    frozen: solid,
  })),
)
const mixed = computed(() =>
  mixedLoadWarnings(
    {
      food: props.state.food,
      card: props.state.card,
      cooked: props.state.prep.some(({ body }) => COOKING_STEPS.includes(body.step)),
      frozen: facts.value.underVacuum ? frozen.value === 'all' : undefined,
    },
    mates.value,
    kind.value,
  ),
)
const stops = computed(() =>
  stopsAtLoading(
    props.state.food,
    props.state.card,
    kind.value,
    props.state.prep.map(step => step.body),
    props.state.choices,
  ),
)
/** What should be there still beside this load, and what becomes of it. */
const remainder = computed(() => (props.initial || loadG.value <= 0 ? undefined : remainderAt(props.state, loadG.value)))
const rest = ref<HoldPlace | Fate | 'all'>()
const restG = ref<number>()
const waiting = waitingAs(props.state)
const spentH = spentAt(props.state, Date.now())
const waitsWords = (place: HoldPlace) => {
  const ms = holdLimit(place, waiting, props.state.food, { spentH })
  return `at most ${ms < DAY ? format.hours(ms / HOUR) : plural(Math.round(ms / DAY), 'day')}`
}
const restChoices = computed(() => [
  ...(remainder.value?.form === 'prepared'
    ? WAITING
    : [{ value: 'counter' as const, words: 'kept apart, dry', note: 'a batch of its own' }]),
  ...FATES.map(value => ({ value, words: FATE_WORDS[value] })),
  { value: 'all' as const, words: 'nothing is left', note: 'that is all there was' },
])
const WAITING = [
  { value: 'counter' as const, words: 'a second load', note: `or another machine, ${waitsWords('counter')}` },
  { value: 'refrigerator' as const, words: 'the refrigerator', note: waitsWords('refrigerator') },
  { value: 'freezer' as const, words: 'the freezer, to dry later', note: waitsWords('freezer') },
]
const isFate = (value: string): value is Fate => (FATES as readonly string[]).includes(value)
/** What leaves the batch before the rest of it is loaded; undefined where all of it is on the trays. */
function partOfRest(): PartParcel | { problem: string } | undefined {
  if (!remainder.value || rest.value === 'all') return undefined
  const { grams, sdG, form } = remainder.value
  const of = form === 'prepared' ? undefined : form
  if (rest.value === undefined) return { problem: `Say what becomes of the other ${format.weight(grams)}, or that there is none.` }
  const weightG = restG.value ?? Math.max(1, Math.round(grams))
  // The rest is what there was less what is on the trays: as sure as those two are.
  const ofTraysG = weighed.value === 'not' ? UNWEIGHED * loadG.value : (pouredSdG.value ?? 0)
  const doubtG = restG.value === undefined ? Math.round(Math.hypot(sdG, ofTraysG)) : 0
  if (isFate(rest.value))
    return { body: { kind: 'split', weightG, weightSdG: doubtG > 0 ? doubtG : undefined, fate: rest.value, form: of }, more: [] }
  return partParcel(props.state, props.page, Date.now(), { form, grams: weightG, sdG: doubtG, cut: !of }, of ? undefined : rest.value)
}

/** It goes in raw, or nobody measured that it was cooked. */
const rawHere = computed(
  () =>
    props.state.card.raw ||
    (facts.value.underVacuum &&
      !isCookedThrough(
        props.state.food,
        props.state.prep.map(step => step.body),
      )),
)
const dryNotes = computed(() => (facts.value.underVacuum ? [] : cautionsAt('dry', props.state.food, { way: kind.value }).notes))
const cautions = ref<{ problem: () => string | undefined; bodies: () => EntryBody[] }>()
const accepted = computed(() => new Set([...props.page.accepted, ...props.state.accepted]))

function read(): FormReading {
  if (stops.value.length > 0) return { problem: stops.value[0]!.rule.wayOut! }
  if (chosen.value.length === 0) return { problem: 'Choose the trays that the food lies on.' }
  if (each.value && chosen.value.some(position => trayG.value[position] === undefined))
    return { problem: 'Give the weight of every tray, or weigh them together.' }
  if (heat.value === 'other' && setNow.value === undefined)
    return {
      problem: `Give the heat that is set, from ${format.temperature(machine.value.lowC)} to ${format.temperature(machine.value.highC)}.`,
    }
  const grams = weighed.value === 'not' ? expected.value.grams : each.value ? sum.value : totalG.value
  if (grams === undefined) return { problem: 'Weigh what lies on the trays, or say that it was not weighed.' }
  const unread = cautions.value?.problem()
  if (unread) return { problem: unread }
  const runId = props.initial?.runId ?? there.value?.runId ?? uuidv7()
  const trays = each.value ? chosen.value.map(position => ({ position, weightG: trayG.value[position]! })) : undefined
  const portions =
    withPortions.value && portionCount.value && portionMl.value
      ? { count: Math.round(portionCount.value), ml: portionMl.value }
      : props.initial?.portions
  const load: Load = {
    kind: 'load',
    runId,
    machineId: machineId.value,
    positions: chosen.value,
    trays,
    totalG: grams,
    trayAreaM2: machine.value.trayAreaM2,
    weightSdG: weighed.value === 'not' ? expected.value.sdG : weighed.value === 'together' ? pouredSdG.value : undefined,
    // What own runs and the dial say is added where it is written down.
    usualHours: props.initial?.usualHours,
    way: kind.value,
    frozen: frozenNow.value,
    portions,
  }
  if (!props.initial && (roomC.value === undefined) !== (humidity.value === undefined))
    return { problem: 'The air’s temperature and humidity go together: give both, or neither.' }
  const part = partOfRest()
  if (part && 'problem' in part) return part
  if (remainder.value && rest.value === 'all') load.whole = true
  const bodies: EntryBody[] = [...(cautions.value?.bodies() ?? []), ...(part ? [part.body] : []), load]
  if (props.initial) return { bodies }
  if (heat.value !== 'leave' && heat.value !== 'off') {
    const set =
      start.value === 'hot' && hotC.value !== undefined
        ? hotC.value
        : facts.value.unheated && roomC.value !== undefined
          ? roomC.value
          : setNow.value!
    bodies.push({ kind: 'heat', runId, setC: set })
  }
  if (roomC.value !== undefined && humidity.value !== undefined)
    bodies.push({ kind: 'air', runId, roomC: roomC.value, roomHumidity: Math.round(humidity.value * 10) / 1000 })
  if (facts.value.outdoors && !there.value) {
    const duskMinute = minuteOfDay(dusk.value)
    if (duskMinute === undefined) return { problem: `Say when it comes in at dusk, such as ${format.clock(18 * 60 + 30)}.` }
    const rainMinute = rain.value.trim() === '' ? undefined : minuteOfDay(rain.value)
    if (rain.value.trim() !== '' && rainMinute === undefined)
      return { problem: `Say when rain is expected today, such as ${format.clock(15 * 60)}, or leave it empty.` }
    bodies.push({
      kind: 'outlook',
      runId,
      duskMinute,
      duskAt: startOfDay(Date.now(), settings.value.timeZone) + duskMinute * MINUTE,
      rainAt: rainMinute === undefined ? undefined : startOfDay(Date.now(), settings.value.timeZone) + rainMinute * MINUTE,
    })
  }
  return { bodies, more: part?.more }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-if="page.machines.length > 1"
    v-model="machineId"
    label="Where"
    :choices="
      page.machines.map(item => ({
        value: item.id,
        words: item.name,
        note: page.taken[item.id]
          ? `running, ${plural(item.trays - page.taken[item.id]!.positions.length, 'tray')} free`
          : `${WAYS[item.kind].name.toLowerCase()}, ${plural(item.trays, 'tray')}`,
      }))
    "
  />
  <CautionList
    ref="cautions"
    :key="machineId"
    step="load"
    :food="state.food"
    :way="kind"
    :liquid="liquidThawed"
    :raw="rawHere"
    :accepted="accepted"
    :stops="stops"
  />
  <p v-for="note in dryNotes" :key="note.text" class="caution">{{ format.sentence(note.text) }}</p>
  <p v-for="warning in mixed" :key="warning" class="caution">{{ format.sentence(warning) }}</p>
  <TrayPicker v-model="chosen" label="Trays, top to bottom" :trays="Array.from({ length: machine.trays }, (_, i) => i + 1)" :free="free">
    <p v-if="free.length === 0" class="problem">Every tray of this machine is taken. Choose another, or wait until one is out.</p>
    <p v-else-if="chosen.length < traysNeeded" class="quiet small">
      A tray takes about {{ format.weight(perTrayG) }} in one layer: {{ plural(traysNeeded, 'tray') }} for this load. Thicker dries slower
      and less evenly.
    </p>
    <p v-else class="quiet small">{{ state.card.spread }}</p>
  </TrayPicker>
  <ChoiceField
    v-model="weighed"
    label="Weighed"
    :choices="[
      { value: 'together', words: 'All together' },
      { value: 'trays', words: 'Tray by tray' },
      { value: 'not', words: 'Not weighed' },
    ]"
  />
  <div v-if="each" class="pair">
    <WeightField v-for="position in chosen" :key="position" v-model="trayG[position]" :label="`Tray ${position}`" required />
  </div>
  <p v-else-if="weighed === 'not'" class="quiet">
    About {{ format.weight(expected.grams) }}, give or take {{ format.weight(expected.sdG) }}: one weight later narrows it, and a hand that
    feels it cold in four places can do without.
  </p>
  <WeightField
    v-else
    v-model="totalG"
    label="Food on the trays"
    :litre="litre"
    :hint="guessG ? `without the trays; about ${format.weight(guessG)} expected` : 'without the trays'"
    required
    autofocus
    @doubt="sd => (pouredSdG = sd)"
  />
  <p v-if="each" class="quiet">Together {{ format.weight(sum) }}</p>
  <template v-if="remainder">
    <ChoiceField
      v-model="rest"
      :label="`About ${format.weight(remainder.grams)} is not on the trays: what becomes of it?`"
      :choices="restChoices"
    />
    <WeightField
      v-if="rest && rest !== 'all'"
      v-model="restG"
      label="It weighs"
      :hint="`left empty, about ${format.weight(remainder.grams)}`"
    />
  </template>
  <template v-if="facts.underVacuum">
    <ChoiceField
      v-model="frozen"
      label="Frozen solid"
      :choices="[
        { value: 'all', words: 'Every tray' },
        { value: 'some', words: 'Some' },
        { value: 'none', words: 'None' },
      ]"
    />
    <TrayPicker v-if="frozen === 'some'" v-model="frozenTrays" label="Which ones" :trays="chosen"
      ><p class="caution">Unfrozen beside frozen: the advantage is lost for all.</p></TrayPicker
    >
    <p v-if="depthMm" :class="depthMm > deepestMm ? 'caution' : 'quiet small'">
      {{ format.length(depthMm) }} deep on {{ plural(chosen.length, 'tray')
      }}{{ state.card.liquid ? `, ${format.volume((1000 * loadG) / litre!.mean / Math.max(1, chosen.length))} each` : ''
      }}{{
        depthMm > deepestMm ? `: more than ${format.length(deepestMm)} takes days and boils over. Take more trays, or two loads.` : '.'
      }}
    </p>
    <p v-if="cycle" :class="cycle.ice?.over ? 'caution' : 'quiet small'">
      About {{ format.weight(cycle.waterG) }} of water to remove{{
        cycle.ice ? `, ${Math.round(cycle.ice.share * 100)} % of the ice it holds${mates.length ? ' with what stands in it' : ''}` : ''
      }}:
      {{
        cycle.ice?.over
          ? `make it ${cycle.ice.loads} loads.`
          : `a cycle of ${format.range(cycleH, value => `${Math.round(value)}\u00A0h`)}.`
      }}
    </p>
  </template>
  <div v-if="withPortions" class="pair">
    <NumberField v-model="portionCount" label="Sheets spread alike" :least="1" :most="200" :decimals="0" />
    <VolumeField
      v-model="portionMl"
      label="Purée on each"
      :least="1"
      :most="5000"
      hint="in mL or cups: the label will say what a sheet gives back"
    />
  </div>
  <template v-if="!initial">
    <p v-if="there" class="quiet">
      {{ there.setC === null ? 'It stands without heat' : `It runs at ${format.temperature(there.setC)}` }} already: the batch joins its
      run.
    </p>
    <template v-else>
      <ChoiceField v-model="heat" :label="facts.words.ask" :choices="heats" />
      <NumberField
        v-if="heat === 'other'"
        v-model="otherHeat"
        :label="`Set to, °${unit}`"
        :least="Math.round(temperatureIn(machine.lowC, unit))"
        :most="Math.round(temperatureIn(machine.highC, unit))"
        required
      />
      <p class="quiet small">{{ format.sentence(heatReason) }}</p>
      <template v-if="hotC !== undefined">
        <ChoiceField
          v-model="start"
          label="Start"
          :choices="
            schoolsOf('start').map(school => ({
              value: school.key,
              words: school.name,
              note: school.key === 'hot' ? `${format.temperature(hotC!)} for ${format.hours(HOT_START.hours)}` : undefined,
            }))
          "
        />
        <p class="quiet small">{{ startReason }}</p>
      </template>
      <div v-if="facts.outdoors" class="pair">
        <TextField v-model="dusk" label="In at dusk" />
        <TextField v-model="rain" label="Rain expected today at" optional placeholder="such as 15:00" />
      </div>
    </template>
    <div v-if="hoursWords" class="quiet small">
      <p>{{ hoursWords }}</p>
      <div v-if="effects.length" class="row">
        <span>The runs behind it</span>
        <button v-for="effect in effects" :key="effect.kind" type="button" class="word-button" @click="behind = effect">
          {{ effect.words }}
        </button>
      </div>
    </div>
    <LazyLearnedDialog v-if="behind" :kind="behind.kind" :of="behind.of" @close="behind = undefined" />
    <div v-if="!facts.underVacuum" class="pair">
      <NumberField
        v-model="room"
        :label="`${facts.words.airOf}, °${unit}`"
        :hint="lastAir ? `as at ${format.moment(lastAir.at, Date.now())}` : undefined"
        :least="unit === 'C' ? -20 : -4"
        :most="unit === 'C' ? 60 : 140"
      />
      <NumberField
        v-model="humidity"
        :label="facts.outdoors ? 'Humidity outdoors, %' : 'Room humidity, %'"
        :least="1"
        :most="100"
        :decimals="0"
      />
    </div>
    <p v-if="facts.outdoors && isPoorOutdoors({ celsius: roomC, humidity: humidity && humidity / 100 })" class="caution">
      Extension guidance wants {{ format.temperature(OUTDOORS.leastC) }} and above and under
      {{ format.share(OUTDOORS.mostHumidity) }} humidity outdoors: below that food sours before it dries.
    </p>
    <p v-if="reachWords" class="caution">{{ format.sentence(reachWords) }}</p>
    <p v-else-if="reach?.known" class="quiet small">
      In this air it can be dried down to about {{ format.share(reach.lowest.p50) }} water.
    </p>
  </template>
</template>
