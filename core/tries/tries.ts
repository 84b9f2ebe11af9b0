import { wetBasis } from '../mass'
import { USUAL_ROOM, type Air } from '../air'
import { InputError, type Problem } from '../errors'
import { asCut, cardOf, purposeFactor, targetIn, wayOf, type Food, type Purpose } from '../foods'
import { dutyAt } from '../machines'
import { HOLD_C, hoursAtHeat, nearestHeat } from '../planning'
import { COOKING_STEPS, dangerHotC, dangerRate, SAFE_ACTIVITY } from '../safety'
import { Rack, rackSettings, type RackSettings } from '../simulation'
import { isothermOf, moistureAt } from '../sorption'
import { Z_90, intervalOf, sdLogOf, type Interval } from '../stats'
import { reachIn } from '../water'
import { WAYS, type WayKey } from '../ways'

const { abs, exp, max, min, round, sqrt } = Math

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
  /** Hours of each card in it, 10th and 90th percentile, as own runs taught; the card's own where one is missing. */
  usualHours?: Readonly<Record<string, { low: number; high: number }>>
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
  room: Air
  /** Draught over the machine's own, 1 as it is. */
  fan: number
  night: 'leave' | 'off' | 'warm'
  /** Places are changed halfway. */
  rotate: boolean
}

/** The load that is tried. */
export interface TryLoad {
  food: Food
  purpose: Purpose
  /** Ready for the trays, g. */
  preparedG: number
  solids: { mean: number; sd: number }
  machines: readonly TryMachine[]
  /** Hour of the day at which it begins, and the hours of sleep. */
  startHour: number
  sleep: { from: number; to: number }
  /** As it was cut, where that is known. */
  thicknessMm?: number
  /** What the log says of a load that is in a machine already: nothing begins anew. */
  running?: RunningLoad
}

/** What the estimator believes of a load that runs. */
export interface RunningLoad {
  /** Water now, wet basis, and hours of the present heat until it is dry. */
  moistureNow: Interval
  hoursToTarget: Interval
  setC: number
  /** Net weight on the trays now. */
  weightG: number
}

export interface TryResult {
  knobs: TryKnobs
  /** Hours from the start, and water of the load at each, wet basis: 8 of 10 within. */
  hours: number[]
  water: Interval[]
  /** Hours until it is dry; Infinity where it does not get there within `horizonH`. */
  finishH: Interval
  /** So many hours were tried. */
  horizonH: number
  /** Of the slowest place, in the middle; undefined where no place is known to be slow. */
  lastTrayH?: number
  trays: number
  loads: number
  /** Until it is dry; undefined where it is not: nobody knows what it would take. */
  kWh?: number
  /** Hours in which perishable food stands wet where things grow; undefined where it is not. */
  dangerH?: number
  /** Share by which a closed skin draws its end out. */
  hardening: number
  /** Least water that this air and heat can reach. */
  lowest: number
  target: number
  /** It ends while people sleep, in more than one case of five. */
  endsAtNight: boolean
}

/** Ways in which a load of one kind comes out: so many equally likely ones, from quick to slow. */
const CASES = [-1.465, -0.792, -0.366, 0, 0.366, 0.792, 1.465]
/** Which solids go with which pace: as far from order as seven can be. */
const SOLIDS = [0.366, -0.792, 1.465, 0, -1.465, 0.792, -0.366]
const STEP_H = 0.25
/** A hot start is so much hotter, where the machine can. */
export const HOT_START_K = 10
/** Horizon: so many times the longest hours, and the nights beside. */
const HORIZON = 2.6
const LONGEST_H = 200
/** A run is dried in about so many steps, however long it takes. */
const STEPS_A_RUN = 120
/** Points of the curve that is drawn. */
const POINTS = 72
/**
 * An outside closes where it is hotter than the card by more than `aboveC`, fully from `fullC`, at a rate of `rate` ways out an hour
 * through 6 mm (a rack doubles it for every five degrees), and only where it is thick (common practice: thin food does not). Set so that
 * 15 K too hot take a tenth to a quarter longer for it, no more: drying runs of slices still get shorter up to 70 or 80 °C (published
 * widely; from memory), while practice warns of the outside.
 */
const HARDENS = { aboveC: 5, fullC: 15, rate: 0.004, atMm: 6, fromMm: 4 }
/** Nobody knows how much of it a load has: by case, against the usual. */
const HARDENS_BY_CASE = [1, 0, 2, 1, 0.5, 2, 0]
/** Fuller trays let less air through: the face's share falls with what lies over the card's layer. */
const EMPTIER = 0.3
const WOKEN_SHARE = 0.2

/**
 * What would come of a load with these knobs: seven kinds of it, from quick to slow, each dried on paper. Of a load that runs each kind
 * begins at what the estimator believes of it, and its clock is set so that left alone it ends when the estimator says.
 * @throws InputError with the knob and what would mend it
 */
export function tryLoad(load: TryLoad, knobs: TryKnobs): TryResult {
  const machine = checkKnobs(load, knobs)
  const { food, purpose } = load
  const card = cardOf(food, knobs.cardKey)
  const { temperatureC, usualHours } = wayOf(card, machine.kind)
  const target = targetIn(asCut(food, card), purpose, machine.kind)
  const usual = machine.usualHours?.[card.key] ?? usualHours.value
  const factor = purposeFactor(food, purpose, machine.kind)
  const [median, sdLog] = [factor * sqrt(usual.low * usual.high), sdLogOf({ p10: usual.low, p90: usual.high })]
  const thickness = card.thicknessMm ? knobs.thicknessMm / card.thicknessMm : 1
  const over = knobs.loadKgM2 / card.trayLoadKgM2.mean
  const perTrayG = 1000 * knobs.loadKgM2 * machine.trayAreaM2
  const trays = max(1, Math.ceil(load.preparedG / perTrayG - 1e-9))
  // What finds a place goes in now, the rest when the others are out: as a forecast counts.
  const first = min(trays, machine.trays, machine.free ?? machine.trays)
  const loads = (first > 0 ? 1 : 0) + Math.ceil((trays - first) / machine.trays)
  const hotC = min(machine.highC, knobs.setC + HOT_START_K)
  const tooHot = (knobs.hotH > 0 ? hotC : knobs.setC) - temperatureC - HARDENS.aboveC
  const closes =
    knobs.thicknessMm < HARDENS.fromMm
      ? 0
      : (HARDENS.rate * max(0, min(1, tooHot / (HARDENS.fullC - HARDENS.aboveC))) * HARDENS.atMm) / knobs.thicknessMm
  const settingsOf = (hours: number, solids: number, hardening: number): RackSettings => {
    const settings = rackSettings({
      food,
      cardKey: card.key,
      way: machine.kind,
      purpose,
      trayWeightsG: [perTrayG],
      solids,
      hours,
      thickness,
      hardening,
      traySpread: 0,
      seed: 1,
    })
    return {
      ...settings,
      stepH: min(0.4, max(0.1, hours / STEPS_A_RUN)),
      evaporationRate: settings.evaporationRate * (over > 1 ? 1 / over : over ** -EMPTIER),
    }
  }
  const believed = load.running?.hoursToTarget.p90
  const longest = believed === undefined ? median * exp(1.3 * sdLog) : Number.isFinite(believed) ? max(4, believed) : 2 * median
  const horizon = min(
    LONGEST_H,
    HORIZON * longest * max(1, hoursAtHeat(machine.kind, knobs.setC, temperatureC)) * max(1, thickness ** 1.5) + 12,
  )
  const zoneC = dangerHotC(
    food,
    card.steps.some(({ step }) => COOKING_STEPS.includes(step)),
  )
  const running = load.running && runningCases(load, load.running, settingsOf, median)
  const cases = CASES.map((z, i) => {
    const solids = min(0.95, max(0.02, load.solids.mean + SOLIDS[i]! * load.solids.sd))
    const hours = median * exp(z * sdLog)
    const rack = running ? running(z) : new Rack(settingsOf(hours, solids, closes * HARDENS_BY_CASE[i]!))
    return through(rack, load, knobs, { horizon, target, hotC, machine, zoneC })
  })
  const finishH = intervalOf(cases.map(item => item.finishH))
  const middle = cases[Math.floor(CASES.length / 2)]!
  const shown = min(horizon, (Number.isFinite(finishH.p90) ? finishH.p90 * 1.12 : horizon) + 0.5)
  const hours = Array.from({ length: POINTS + 1 }, (_, i) => (shown * i) / POINTS)
  const water = hours.map(hour => intervalOf(cases.map(item => at(item.water, hour))))
  const withoutSkin =
    closes > 0 && !running && Number.isFinite(middle.finishH)
      ? through(new Rack(settingsOf(median, load.solids.mean, 0)), load, knobs, { horizon, target, hotC, machine, zoneC }).finishH
      : undefined
  const slow = machine.slowest ?? 1
  return {
    knobs,
    hours,
    water,
    finishH,
    horizonH: horizon,
    ...(slow < 0.95 && trays > 1 && Number.isFinite(finishH.p50) && { lastTrayH: finishH.p50 / (knobs.rotate ? (slow + 1) / 2 : slow) }),
    trays,
    loads,
    kWh: Number.isFinite(middle.finishH) ? (loads * machine.watts * middle.fullPowerH) / 1000 : undefined,
    ...(zoneC !== undefined && { dangerH: middle.dangerH }),
    hardening: withoutSkin === undefined ? 0 : max(0, middle.finishH / withoutSkin - 1),
    lowest: reachIn(food, machine.kind, target, knobs.setC, knobs.room).lowest.p50,
    target,
    endsAtNight:
      cases.filter(item => Number.isFinite(item.finishH) && isNight(load, load.startHour + item.finishH)).length / cases.length >
      WOKEN_SHARE,
  }
}

interface Case {
  finishH: number
  water: Float64Array
  /** Hours at the rated power that its heat comes to. */
  fullPowerH: number
  dangerH: number
}

/** Dries one rack through its days and nights. */
function through(
  rack: Rack,
  load: TryLoad,
  knobs: TryKnobs,
  { horizon, target, hotC, machine, zoneC }: { horizon: number; target: number; hotC: number; machine: TryMachine; zoneC?: number },
): Case {
  const steps = Math.ceil(horizon / STEP_H)
  const water = new Float64Array(steps + 1)
  water[0] = rack.moisture
  let finishH = water[0] <= target ? 0 : Infinity
  let fullPowerH = 0
  let dangerH = 0
  const safeX = moistureAt(isothermOf(load.food), SAFE_ACTIVITY, 25)
  const wetEnough = wetBasis(safeX)
  const unheated = WAYS[machine.kind].unheated
  for (let i = 1; i <= steps; i++) {
    const hour = (i - 1) * STEP_H
    const night = isNight(load, load.startHour + hour)
    const set = hour < knobs.hotH ? hotC : knobs.setC
    const setC = unheated
      ? null
      : night && knobs.night === 'off'
        ? null
        : night && knobs.night === 'warm'
          ? min(machine.highC, max(machine.lowC, HOLD_C))
          : set
    const air = { setC: unheated ? knobs.setC : setC, room: knobs.room, fan: knobs.fan }
    rack.advance(STEP_H, air)
    const now = rack.moisture
    water[i] = now
    if (finishH === Infinity) {
      if (setC !== null) fullPowerH += STEP_H * dutyAt(WAYS[machine.kind], setC, knobs.room.celsius)
      const celsius = setC ?? knobs.room.celsius
      if (now > wetEnough && zoneC !== undefined) dangerH += STEP_H * dangerRate(celsius, zoneC)
      if (now <= target) finishH = hour + (STEP_H * (water[i - 1]! - target)) / max(1e-9, water[i - 1]! - now)
      // Nothing more is asked of it than what is drawn after its end.
    } else if (hour > finishH * 1.3 + 1) {
      water.fill(now, i)
      break
    }
  }
  return { finishH, water, fullPowerH, dangerH }
}

const at = (water: Float64Array, hour: number) => {
  const place = min(water.length - 1, hour / STEP_H)
  const low = Math.floor(place)
  const next = water[min(water.length - 1, low + 1)]!
  return water[low]! + (next - water[low]!) * (place - low)
}

/** People sleep at that hour, counted from the midnight before the start. */
const isNight = ({ sleep }: Pick<TryLoad, 'sleep'>, hour: number) => {
  const clock = ((hour % 24) + 24) % 24
  return sleep.from < sleep.to ? clock >= sleep.from && clock < sleep.to : clock >= sleep.from || clock < sleep.to
}

/**
 * Racks for what is believed of a load that runs: one is dried on paper to each of the moistures that it may have now, and its clock
 * is set so that, at the heat it has, it is dry in the hours that are believed for it.
 */
function runningCases(
  { purpose, food, solids }: TryLoad,
  running: RunningLoad,
  settingsOf: (hours: number, solids: number, hardening: number) => RackSettings,
  median: number,
): (z: number) => Rack {
  const target = targetIn(food, purpose)
  const base = settingsOf(median, solids.mean, 0)
  const quantile = ({ p10, p50, p90 }: Interval, z: number) => {
    const end = z < 0 ? p10 : p90
    if (!Number.isFinite(end)) return z < 0 ? p50 : Infinity
    return max(1e-4, p50 * (max(1e-4, end) / max(1e-4, p50)) ** (abs(z) / Z_90))
  }
  // How long the paper takes, at the heat it has, from each moisture to the target: one run serves all.
  const run = new Rack(base)
  const marks: { hours: number; moisture: number }[] = []
  while (run.hours < LONGEST_H && run.moisture > target) {
    marks.push({ hours: run.hours, moisture: run.moisture })
    run.advance(STEP_H, { setC: running.setC, room: USUAL_ROOM })
  }
  const toTarget = run.hours
  const hoursAt = (moisture: number) => {
    const i = marks.findIndex(mark => mark.moisture <= moisture)
    if (i === 0) return 0
    if (i < 0) return toTarget
    const [before, after] = [marks[i - 1]!, marks[i]!]
    return before.hours + ((before.moisture - moisture) / max(1e-9, before.moisture - after.moisture)) * STEP_H
  }
  return z => {
    const now = max(target * 1.0001, quantile(running.moistureNow, z))
    const left = quantile(running.hoursToTarget, z)
    const since = min(hoursAt(now), toTarget - 0.02)
    const clock = Number.isFinite(left) ? (toTarget - since) / max(0.05, left) : 0.05
    const rack = new Rack(base)
    rack.advance(since, { setC: running.setC, room: USUAL_ROOM })
    return rack.paced(clock)
  }
}

/** The machine of the knobs. @throws InputError with the knob and what would mend it */
function checkKnobs(load: TryLoad, knobs: TryKnobs): TryMachine {
  const problems: Problem[] = []
  const say = (field: string, message: string) => problems.push({ field, code: 'out-of-range', message })
  const machine = load.machines.find(item => item.id === knobs.machineId)
  if (!machine) throw new InputError([{ field: 'machineId', code: 'unknown-machine', message: 'There is no such machine.' }])
  const within = (value: number, low: number, high: number) => Number.isFinite(value) && value >= low && value <= high
  if (!(load.preparedG > 0)) say('preparedG', 'Give a weight above zero: what is to be dried.')
  if (!within(knobs.thicknessMm, 0.5, 60)) say('thicknessMm', 'A thickness is between 0.5 and 60 mm.')
  if (!within(knobs.setC, machine.lowC, machine.highC)) say('setC', `${machine.name} goes from ${machine.lowC} to ${machine.highC} °C.`)
  if (!within(knobs.hotH, 0, 12)) say('hotH', 'A hot start lasts up to 12 hours.')
  if (!within(knobs.loadKgM2, 0.05, 40)) say('loadKgM2', 'A tray carries 0.05 to 40 kg on a square metre.')
  if (!within(knobs.fan, 0.1, 3)) say('fan', 'A draught is a tenth to three times the machine’s own.')
  if (!within(knobs.room.celsius, -10, 45)) say('room.celsius', 'Air of a room is between −10 and 45 °C.')
  if (!within(knobs.room.humidity, 0.05, 0.98)) say('room.humidity', 'Humidity is between 5 and 98 %.')
  if (problems.length > 0) throw new InputError(problems)
  return machine
}

/** Where the knobs stand before anything is turned: the card's. */
export function usualKnobs(
  load: Pick<TryLoad, 'food' | 'machines' | 'running' | 'thicknessMm'>,
  machineId: string,
  cardKey: string,
  room: Air = USUAL_ROOM,
): TryKnobs {
  const machine = load.machines.find(item => item.id === machineId) ?? load.machines[0]!
  const card = cardOf(load.food, cardKey)
  return {
    machineId: machine.id,
    cardKey: card.key,
    thicknessMm: load.thicknessMm ?? card.thicknessMm ?? 5,
    setC: load.running?.setC ?? nearestHeat(wayOf(card, machine.kind).temperatureC, machine),
    hotH: 0,
    loadKgM2: round(100 * card.trayLoadKgM2.mean) / 100,
    room,
    fan: 1,
    night: 'leave',
    rotate: false,
  }
}

/** This air and heat cannot make it dry enough, however long. */
export const neverDry = ({ lowest, target }: Pick<TryResult, 'lowest' | 'target'>): boolean => lowest > target

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
  if (abs(a.loadKgM2 - b.loadKgM2) > 1e-9) told(what, b.loadKgM2 > a.loadKgM2 ? 'fuller trays' : 'emptier trays')
  if (abs(a.room.humidity - b.room.humidity) > 1e-9) told(what, b.room.humidity > a.room.humidity ? 'a damper room' : 'a drier room')
  if (abs(a.room.celsius - b.room.celsius) > 1e-9) told(what, b.room.celsius > a.room.celsius ? 'a warmer room' : 'a cooler room')
  if (abs(a.fan - b.fan) > 1e-9) told(what, b.fan > a.fan ? 'more draught' : 'less draught')
  if (a.night !== b.night) told(what, { leave: 'left on at night', off: 'off at night', warm: 'held warm at night' }[b.night])
  if (a.rotate !== b.rotate) told(what, b.rotate ? 'places changed halfway' : 'places not changed')
  const [was, is] = [before.finishH.p50, after.finishH.p50]
  if (Number.isFinite(was) && Number.isFinite(is)) {
    if (abs(is - was) >= WORTH.hours) told(so, `{moreHours} h ${is > was ? 'later' : 'sooner'}`, { moreHours: hoursText(abs(is - was)) })
  } else if (Number.isFinite(was))
    told(so, neverDry(after) ? 'never as dry as it should be' : 'not dry within {horizonHours} h', {
      horizonHours: hoursText(after.horizonH),
    })
  else if (Number.isFinite(is)) told(so, 'it gets dry now')
  else
    told(so, neverDry(after) ? 'still never dry enough' : 'still not dry within {horizonHours} h', {
      horizonHours: hoursText(after.horizonH),
    })
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
  if (after.hardening - before.hardening >= WORTH.hardening)
    told(so, 'its outside may close: {laterShare} longer for it', { laterShare: after.hardening })
  if (after.endsAtNight !== before.endsAtNight) told(so, after.endsAtNight ? 'its end may fall into the night' : 'its end is by day')
  if (abs(after.lowest - before.lowest) >= WORTH.water && after.lowest > after.target * 0.8)
    told(so, 'no drier than {lowestShare}', { lowestShare: after.lowest })
  return { what, so }
}

const hoursText = (hours: number) => String(hours < 10 ? round(2 * hours) / 2 || 0.5 : round(hours))
const countText = (count: number, one: string) =>
  `${['no', 'one', 'two', 'three', 'four', 'five', 'six'][count] ?? count} ${one}${count === 1 ? '' : 's'}`
