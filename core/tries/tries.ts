import { USUAL_ROOM, type Air } from '../air'
import { dangerZoneOf, foldBatch } from '../batch'
import { hotStartC } from '../dryness'
import { InputError, type Problem } from '../errors'
import { cardOf, wayOf, type Food } from '../foods'
import { cutFactor, heatLaw, hoursOf, hoursOfRun, layerKgM2 } from '../hours'
import { curveIn, estimateOf, valueAt } from '../kinetics'
import type { BatchState, Entry, EntryBody, UsualHours } from '../log'
import { heatOverTime } from '../machines'
import { HOLD_C, isAsleep, nearestHeat, loadsFor, sleepAround, traysFor, type Household } from '../planning'
import { COOKING_STEPS } from '../safety'
import { Z_90, type Interval } from '../stats'
import { DAY, HOUR } from '../time'
import { beliefOf, estimateOfRun, reachOf, targetOfRun, type Reach } from '../water'
import { WAYS, type WayKey } from '../ways'

const { abs, max, min, round } = Math

/** A machine as a try takes it. */
export interface TryMachine {
  id: string
  name: string
  kind: WayKey
  trays: number
  /** Places that are free now. */
  free?: number
  trayAreaM2: number
  watts: number
  lowC: number
  highC: number
  /** Hours of each card in it for pieces as the card cuts them, as own runs taught; the card's own where one is missing. */
  usualHours?: Readonly<Record<string, UsualHours>>
  /** How its slowest place dries against the middle; 1 where nobody knows. */
  slowest?: number
}

/** What may be turned at. */
export interface TryKnobs {
  machineId: string
  cardKey: string
  thicknessMm: number
  setC: number
  /** Hours of a hot start, and how much hotter. */
  hotH: number
  /** Wet food on a square metre, kg. */
  loadKgM2: number
  /** As it was measured or is supposed; undefined where nobody knows. */
  room?: Air
  night: 'leave' | 'off' | 'warm'
  /** Places are changed halfway. */
  rotate: boolean
  /** Hours after which it is taken out, whatever it is then; when it is dry where missing. */
  stopH?: number
}

/** The load that is tried: what its log says so far, behind which what would be written next is put. */
export interface TryLoad {
  /** With its own targets: those of another cut are another's. */
  food: Food
  /** Log of the batch; of a basket that is typed in, the intake that would be written. */
  log: readonly Entry[]
  /** Ready for the trays, or on them, g. */
  preparedG: number
  machines: readonly TryMachine[]
  /** When it would be loaded, or turned at: an instant. */
  startAt: number
  household: Household
  /** As it was cut, where that is known. */
  thicknessMm?: number
  /** It is in a machine already, at a heat or none, and would be put on again at another: nothing begins anew. */
  running?: { setC: number | null; onC: number; room?: Air }
}

export interface TryResult {
  knobs: TryKnobs
  /** Hours from the start, and water of the load at each, wet basis: 8 of 10 within. */
  hours: number[]
  water: Interval[]
  /** Hours until it is dry; Infinity where it does not get there. */
  finishH: Interval
  /** Of the slowest place, in the middle; undefined where no place is known to be slow. */
  lastTrayH?: number
  trays: number
  loads: number
  /** Until it is dry; undefined where it is not: nobody knows what it would take. */
  kWh?: number
  /** Hours in which perishable food stands wet where things grow; undefined where it is not. */
  dangerH?: number
  /** Share by which an outside that closes draws its end out. */
  hardening: number
  /** How dry this air and heat can make it. */
  reach: Reach
  target: number
  /** It ends while people sleep, in more than one case of five. */
  endsAtNight: boolean
  /** Taken out at a set hour: its water then, and how likely it is dry. */
  stopped?: { water: Interval; dry: number }
}

/** Points of the curve that is drawn. */
const POINTS = 72
/** Nights ahead that are told what happens in them: for twice the hours of heat that it may take, in days of so many, and at most. */
const NIGHTS = { hoursTimes: 2, dayH: 16, most: 30 }
/** What never gets dry is drawn and reckoned for so long, h. */
export const NEVER_H = 72
/** Ends as likely as each other, in standard deviations about the middle. */
const CASES = [-1.465, -0.792, -0.366, 0, 0.366, 0.792, 1.465]
const WOKEN_SHARE = 0.2
/** A place is slow from this pace on. */
const SLOW = 0.95
const RUN = 'tried'

/**
 * What would come of a load with these knobs: what would be logged is written behind its log, and read as every page reads a log. So a try
 * that is taken over says the same once it is loaded, and what it means to do at night once that is logged.
 * @throws InputError with the knob and what would mend it
 */
export function tryLoad(load: TryLoad, knobs: TryKnobs): TryResult {
  const machine = checkKnobs(load, knobs)
  const state = stateOf(load, knobs, machine)
  const run = state.run!
  const { startAt, household } = load
  const estimate = estimateOfRun(state, startAt)!
  const { hoursToTarget } = estimate
  const instantOf = (clockH: number) => max(startAt, run.clock.instantAt(clockH))
  const hoursFrom = (clockH: number) => (instantOf(clockH) - startAt) / HOUR
  const finishH = { p10: hoursFrom(hoursToTarget.p10), p50: hoursFrom(hoursToTarget.p50), p90: hoursFrom(hoursToTarget.p90) }
  const ends = Number.isFinite(finishH.p50)
  const until = startAt + (knobs.stopH ?? (ends ? finishH.p50 : NEVER_H)) * HOUR
  const trays = traysOf(load, knobs, machine)
  const loads = loadsFor(trays, machine.trays, machine.free)
  const slow = machine.slowest ?? 1
  const { celsius } = knobs.room ?? USUAL_ROOM
  const ahead = run.clock.spells.map(spell => ({ ...spell, from: max(startAt, spell.from) }))
  const asCooked = cookedBy(state, startAt)
  const danger = dangerZoneOf(asCooked, until)
  const woken = CASES.filter(z => isAsleepAt(instantOf(quantile(hoursToTarget, z)), household))
  return {
    knobs,
    ...curveOf(state, estimate, finishH, startAt),
    finishH,
    ...(slow < SLOW && trays > 1 && ends && { lastTrayH: hoursFrom(hoursToTarget.p50 / (knobs.rotate ? (slow + 1) / 2 : slow)) }),
    trays,
    loads,
    kWh:
      ends || knobs.stopH !== undefined
        ? (loads * machine.watts * heatOverTime(ahead, WAYS[machine.kind], celsius, until)) / 1000
        : undefined,
    ...(danger && { dangerH: max(0, danger.hours - (dangerZoneOf(asCooked, startAt)?.hours ?? 0)) }),
    hardening: hardened(state, knobs, machine),
    reach: reachOf(state, run),
    target: targetOfRun(state, run),
    endsAtNight: knobs.stopH === undefined ? woken.length / CASES.length > WOKEN_SHARE : isAsleepAt(until, household),
    ...(knobs.stopH !== undefined && { stopped: stoppedAt(state, startAt, until) }),
  }
}

/** The batch as it would be once it is cut, loaded and turned so. */
export const stateOf = (load: TryLoad, knobs: TryKnobs, machine: TryMachine): BatchState =>
  foldBatch(load.running ? turnedLog(load, knobs, machine) : loadedLog(load, knobs, machine), () => load.food)!

/** What it holds at an instant to come, and how likely it is dry then, by all that is believed of it. */
function stoppedAt(state: BatchState, now: number, at: number): TryResult['stopped'] {
  const { drying, posterior } = beliefOf(state, state.run!, now)
  const { moistureNow, probabilityDry } = estimateOf({ ...drying, at: state.run!.clock.equivalentHoursAt(at) }, posterior)
  return { water: moistureNow, dry: probabilityDry }
}

/** What its card cooks is cooked when it is loaded, whether somebody wrote it down or not: then it is perishable. */
function cookedBy(state: BatchState, at: number): BatchState {
  const cooks = state.card.steps.find(({ step }) => COOKING_STEPS.includes(step))
  if (!cooks || state.prep.some(({ body }) => COOKING_STEPS.includes(body.step))) return state
  const body = { kind: 'prep' as const, step: cooks.step, effect: 'none' as const }
  return { ...state, prep: [...state.prep, { id: 'cooked', seq: 0, at, recordedAt: at, body }] }
}

/** Water of the load from the start to past its end. */
function curveOf(
  state: BatchState,
  estimate: Parameters<typeof curveIn>[1],
  { p50, p90 }: Interval,
  startAt: number,
): Pick<TryResult, 'hours' | 'water'> {
  const shown = (Number.isFinite(p90) ? p90 * 1.12 : max(NEVER_H, Number.isFinite(p50) ? 2 * p50 : 0)) + 0.5
  const hours = Array.from({ length: POINTS + 1 }, (_, i) => (shown * i) / POINTS)
  const { points } = curveIn('moisture', estimate)
  return { hours, water: hours.map(hour => valueAt(points, state.run!.clock.equivalentHoursAt(startAt + hour * HOUR))) }
}

const isAsleepAt = (at: number, household: Household) => Number.isFinite(at) && isAsleep(at, household)

/** Between its ends hours are spread about as their logarithm is. */
function quantile({ p10, p50, p90 }: Interval, z: number): number {
  const end = z < 0 ? p10 : p90
  if (!Number.isFinite(end) || !(p50 > 0)) return z < 0 ? p50 : end
  return p50 * (max(1e-4, end) / p50) ** (abs(z) / Z_90)
}

/** Share by which an outside that closes at such a heat draws the whole out. */
function hardened({ card, thicknessMm }: BatchState, { setC }: TryKnobs, { kind }: TryMachine): number {
  const { temperatureC } = wayOf(card, kind)
  return heatLaw(kind, setC, temperatureC, { thicknessMm }) / heatLaw(kind, setC, temperatureC) - 1
}

/** Trays that it takes with so much on each. */
const traysOf = ({ preparedG }: TryLoad, { loadKgM2 }: TryKnobs, { trayAreaM2 }: TryMachine) =>
  traysFor(preparedG, 1000 * loadKgM2 * trayAreaM2)

/** The log as it would be once it is cut and loaded so. */
function loadedLog(load: TryLoad, knobs: TryKnobs, machine: TryMachine): Entry[] {
  const { food, preparedG } = load
  const card = cardOf(food, knobs.cardKey)
  const log = load.log.map(entry => (entry.body.kind === 'intake' ? { ...entry, body: { ...entry.body, cardKey: card.key } } : entry))
  const before = foldBatch(log, () => food)!
  const { purpose, choices } = before
  const thicknessMm = card.thicknessMm && knobs.thicknessMm
  const isCut = card.key === before.card.key && (thicknessMm ?? before.thicknessMm) === before.thicknessMm
  const own = machine.usualHours?.[card.key]
  const factor = cutFactor({ food, card, purpose, choices, thicknessMm }, machine.kind)
  return written(load, log, [
    ...(isCut ? [] : [{ kind: 'prep' as const, step: 'cut' as const, effect: 'none' as const, cutName: card.name, thicknessMm }]),
    {
      kind: 'load',
      runId: RUN,
      machineId: machine.id,
      // All of it, as if there were places enough: what counts is how much lies on a tray.
      positions: Array.from({ length: traysOf(load, knobs, machine) }, (_, i) => i + 1),
      totalG: preparedG,
      trayAreaM2: machine.trayAreaM2,
      way: machine.kind,
      ...(own && { usualHours: { low: own.low * factor, high: own.high * factor, runs: own.runs } }),
    },
    ...airOf(RUN, knobs),
    ...heatsAhead(
      RUN,
      load,
      knobs,
      machine,
      hoursOf({ ...before, card, thicknessMm, way: machine.kind, learned: own, setC: knobs.setC }).high,
    ),
  ])
}

/** The log of a run as it would be once its heat is turned so, from now on. */
function turnedLog(load: TryLoad, knobs: TryKnobs, machine: TryMachine): Entry[] {
  const { running, log, food } = load
  const state = foldBatch(log, () => food)!
  const { runId } = state.run!
  const isLeft = knobs.setC === running!.setC && knobs.night === 'leave'
  return written(load, log, [
    ...(isSameAir(knobs.room, running!.room) ? [] : airOf(runId, knobs)),
    ...(isLeft ? [] : heatsAhead(runId, load, knobs, machine, hoursOfRun(state, state.run!).high)),
  ])
}

/** A body that comes next, or at a time to come. */
type Ahead = EntryBody | { at: number; body: EntryBody }

/** Entries behind a log. */
function written({ startAt }: TryLoad, log: readonly Entry[], ahead: readonly Ahead[]): Entry[] {
  const seq = max(0, ...log.map(entry => entry.seq)) + 1
  return [
    ...log,
    ...ahead.map((item, i): Entry => {
      const { at, body } = 'kind' in item ? { at: startAt, body: item } : item
      return { id: `tried-${i}`, seq: seq + i, at, recordedAt: at, body }
    }),
  ]
}

const isSameAir = (a?: Air, b?: Air) => a?.celsius === b?.celsius && a?.humidity === b?.humidity
const airOf = (runId: string, { room }: TryKnobs): EntryBody[] =>
  room ? [{ kind: 'air', runId, roomC: room.celsius, roomHumidity: room.humidity }] : []

/**
 * What is set now, after a hot start, and at each bedtime and waking to come.
 * @param mayTakeH hours of heat that it may well take
 */
function heatsAhead(runId: string, { household, startAt }: TryLoad, knobs: TryKnobs, machine: TryMachine, mayTakeH: number): Ahead[] {
  const set = (at: number, setC: number | null): Ahead => ({ at, body: { kind: 'heat', runId, setC } })
  const hotTo = startAt + knobs.hotH * HOUR
  const heatAt = (at: number) => (at < hotTo ? (hotStartC(knobs.setC, machine.highC) ?? knobs.setC) : knobs.setC)
  if (knobs.night === 'leave') return [set(startAt, heatAt(startAt)), ...(knobs.hotH > 0 ? [set(hotTo, knobs.setC)] : [])]
  const atNight = knobs.night === 'off' ? null : min(machine.highC, max(machine.lowC, HOLD_C))
  const first = sleepAround(startAt, household)
  const count = min(NIGHTS.most, 2 + Math.ceil((NIGHTS.hoursTimes * mayTakeH) / NIGHTS.dayH))
  const nights = Array.from({ length: count }, (_, i) => ({ from: max(startAt, first.from + i * DAY), to: first.to + i * DAY }))
  const isNight = (at: number) => nights.some(night => at >= night.from && at < night.to)
  return [
    set(startAt, isNight(startAt) ? atNight : heatAt(startAt)),
    ...(knobs.hotH > 0 && !isNight(hotTo) ? [set(hotTo, knobs.setC)] : []),
    ...nights.flatMap(({ from, to }) => [...(from > startAt ? [set(from, atNight)] : []), set(to, heatAt(to))]),
  ]
}

/** The machine of the knobs. @throws InputError with the knob and what would mend it */
export function checkKnobs(load: TryLoad, knobs: TryKnobs): TryMachine {
  const problems: Problem[] = []
  const say = (field: string, message: string) => problems.push({ field, code: 'out-of-range', message })
  const machine = load.machines.find(item => item.id === knobs.machineId)
  if (!machine) throw new InputError([{ field: 'machineId', code: 'unknown-machine', message: 'There is no such machine.' }])
  const within = (value: number, low: number, high: number) => Number.isFinite(value) && value >= low && value <= high
  if (!(load.preparedG > 0)) say('preparedG', 'Give a weight above zero: what is to be dried.')
  if (!within(knobs.thicknessMm, 0.5, 60)) say('thicknessMm', 'A thickness is between 0.5 and 60 mm.')
  if (!within(knobs.setC, machine.lowC, machine.highC)) say('setC', `${machine.name} goes from ${machine.lowC} to ${machine.highC} °C.`)
  if (!within(knobs.hotH, 0, 12)) say('hotH', 'A hot start lasts up to 12 hours.')
  if (knobs.stopH !== undefined && !within(knobs.stopH, 0.25, 2000)) say('stopH', 'It is taken out after a quarter of an hour at least.')
  if (!within(knobs.loadKgM2, 0.05, 40)) say('loadKgM2', 'A tray carries 0.05 to 40 kg on a square metre.')
  if (knobs.room && !within(knobs.room.celsius, -10, 45)) say('room.celsius', 'Air of a room is between −10 and 45 °C.')
  if (knobs.room && !within(knobs.room.humidity, 0.05, 0.98)) say('room.humidity', 'Humidity is between 5 and 98 %.')
  if (problems.length > 0) throw new InputError(problems)
  return machine
}

/** Where the knobs stand before anything is turned: the card's. */
export function usualKnobs(
  load: Pick<TryLoad, 'food' | 'machines' | 'running' | 'thicknessMm'>,
  machineId: string,
  cardKey: string,
  room?: Air,
): TryKnobs {
  const machine = load.machines.find(item => item.id === machineId) ?? load.machines[0]!
  const card = cardOf(load.food, cardKey)
  const thicknessMm = load.thicknessMm ?? card.thicknessMm
  return {
    machineId: machine.id,
    cardKey: card.key,
    thicknessMm: thicknessMm ?? 5,
    setC: load.running ? load.running.onC : nearestHeat(wayOf(card, machine.kind).temperatureC, machine),
    hotH: 0,
    loadKgM2: layerKgM2(card, thicknessMm),
    room,
    night: 'leave',
    rotate: false,
  }
}

/** What differs between two tries, in sentences with figures by name. */
export interface TryChange {
  /** What was turned. */
  what: { template: string; quantities: Record<string, number | string> }[]
  /** What it does. */
  so: { template: string; quantities: Record<string, number | string> }[]
}

/** Below this an hour, a kilowatt-hour, a share of water is no difference worth a word. */
const WORTH = { hours: 0.25, kWh: 0.05, water: 0.005, hardening: 0.03, lastShare: 0.15 }

/** "2 mm thinner: 4 h sooner, two trays more": what the second try does otherwise, and what comes of it. */
export function changeBetween(before: TryResult, after: TryResult, machines: readonly TryMachine[]): TryChange {
  const what: TryChange['what'] = []
  const so: TryChange['so'] = []
  const [a, b] = [before.knobs, after.knobs]
  const told = (list: TryChange['what'], template: string, quantities: Record<string, number | string> = {}) =>
    void list.push({ template, quantities })
  const diff = (was: number, is: number, more: string, less: string, name: string) => {
    if (abs(is - was) > 1e-9) told(what, `{${name}} ${is > was ? more : less}`, { [name]: abs(is - was) })
  }
  if (a.machineId !== b.machineId) told(what, 'in {machine}', { machine: machines.find(item => item.id === b.machineId)?.name ?? '' })
  if (a.cardKey !== b.cardKey) told(what, 'cut otherwise')
  else diff(a.thicknessMm, b.thicknessMm, 'thicker', 'thinner', 'thickMm')
  // A machine's own heat goes without saying.
  if (a.setC !== b.setC && a.machineId === b.machineId) told(what, 'set to {setC}', { setC: b.setC })
  if (a.hotH !== b.hotH) told(what, b.hotH > 0 ? 'hot for the first {hotHours} h' : 'without a hot start', { hotHours: b.hotH })
  // Of thicker pieces one layer weighs more, and is one layer all the same.
  const layers = ({ loadKgM2, thicknessMm }: TryKnobs) => loadKgM2 / thicknessMm
  if (a.cardKey === b.cardKey && abs(layers(a) - layers(b)) > 1e-9) told(what, layers(b) > layers(a) ? 'fuller trays' : 'emptier trays')
  const [air, other] = [a.room ?? USUAL_ROOM, b.room ?? USUAL_ROOM]
  if (abs(air.humidity - other.humidity) > 1e-9) told(what, other.humidity > air.humidity ? 'a damper room' : 'a drier room')
  if (abs(air.celsius - other.celsius) > 1e-9) told(what, other.celsius > air.celsius ? 'a warmer room' : 'a cooler room')
  if (a.night !== b.night) told(what, { leave: 'left on at night', off: 'off at night', warm: 'held warm at night' }[b.night])
  if (a.stopH !== b.stopH)
    told(what, b.stopH === undefined ? 'taken out when it is dry' : 'taken out after {stopHours} h', { stopHours: hoursText(b.stopH ?? 0) })
  if (a.rotate !== b.rotate) told(what, b.rotate ? 'places changed halfway' : 'places not changed')
  const [was, is] = [before.finishH.p50, after.finishH.p50]
  if (Number.isFinite(was) && Number.isFinite(is)) {
    if (abs(is - was) >= WORTH.hours) told(so, `{moreHours} h ${is > was ? 'later' : 'sooner'}`, { moreHours: hoursText(abs(is - was)) })
  } else if (Number.isFinite(was)) told(so, 'not as dry as it should be')
  else if (Number.isFinite(is)) told(so, 'it gets dry now')
  else told(so, 'still not dry enough')
  if (after.trays !== before.trays)
    told(so, `{moreTrays} ${after.trays > before.trays ? 'more' : 'fewer'}`, {
      moreTrays: countText(abs(after.trays - before.trays), 'tray'),
    })
  if (after.loads !== before.loads) told(so, 'in {loads}', { loads: after.loads === 1 ? 'one load' : `${after.loads} loads` })
  if (after.kWh !== undefined && before.kWh !== undefined && abs(after.kWh - before.kWh) >= WORTH.kWh)
    told(so, `{moreKWh} kWh ${after.kWh > before.kWh ? 'more' : 'less'}`, { moreKWh: abs(after.kWh - before.kWh).toFixed(1) })
  if (
    after.lastTrayH !== undefined &&
    before.lastTrayH !== undefined &&
    // What goes for all goes without saying for the last.
    abs(after.lastTrayH - before.lastTrayH - (is - was)) >= max(WORTH.hours, WORTH.lastShare * abs(is - was))
  )
    told(so, `the last tray {lastHours} h ${after.lastTrayH < before.lastTrayH ? 'sooner' : 'later'}`, {
      lastHours: hoursText(abs(after.lastTrayH - before.lastTrayH)),
    })
  if ((after.dangerH ?? 0) - (before.dangerH ?? 0) >= WORTH.hours)
    told(so, '{dangerHours} h longer where things grow', { dangerHours: hoursText(after.dangerH! - (before.dangerH ?? 0)) })
  if (after.stopped) {
    const { dry } = after.stopped
    if (dry < 0.05) told(so, 'almost certainly not dry then')
    else if (dry > 0.95) told(so, 'almost certainly dry then')
    else told(so, '{stopTenths} in 10 that it is dry then', { stopTenths: String(min(9, max(1, round(10 * dry)))) })
  }
  if (after.hardening - before.hardening >= WORTH.hardening)
    told(so, 'its outside may close: {laterShare} longer for it', { laterShare: after.hardening })
  if (after.endsAtNight !== before.endsAtNight) told(so, after.endsAtNight ? 'its end may fall into the night' : 'its end is by day')
  const [lowest, lower] = [after.reach.lowest.p50, before.reach.lowest.p50]
  if (abs(lowest - lower) >= WORTH.water && lowest > after.target * 0.8) told(so, 'no drier than {lowestShare}', { lowestShare: lowest })
  return { what, so }
}

const hoursText = (hours: number) => String(hours < 10 ? round(2 * hours) / 2 || 0.5 : round(hours))
const countText = (count: number, one: string) =>
  `${['no', 'one', 'two', 'three', 'four', 'five', 'six'][count] ?? count} ${one}${count === 1 ? '' : 's'}`
