import { uuidv7 } from 'uuidv7'
import type { Context } from '#server/services/context'
import { hoursInMachine } from '#server/services/learning'
import { logOnRun, logEntry, startBatch } from '#server/services/writeLog'
import type { NewEntry } from '#shared/contracts'
import { cardOf, findFood } from '#core/foods'
import { jarTakesG } from '#core/keeping'
import { trayTakesG } from '#core/planning'
import { calibrateHygrometer } from '#core/sorption'
import { randomSource, type RandomSource } from '#core/stats'
import type { RackTruth } from '../devices/world'
import { dryForReal } from './trueDrying'
import { COOKS, HYGROMETER, MACHINES, PLACES, type Chapter, type MachineName } from './story'

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** A deed at an instant. Chapters yield them in order; the author tells all chapters in the order of time. */
export interface Deed { at: number, act: () => void }

/** Where the deeds of a chapter are written to. */
export interface Stage {
  context: Context
  machines: Record<MachineName, string>
  /** Run that each machine has going, for batches that join it. */
  running: Partial<Record<MachineName, string>>
  /** What truly lies in the cabinet's rack now, for the simulated devices. */
  rack?: RackTruth & { machineId: string }
  now: number
}

/** Tells one chapter through the same services that the interface calls. */
export function* tell(chapter: Chapter, index: number, stage: Stage): Generator<Deed> {
  const source = randomSource(1000 + index)
  const food = findFood(chapter.food)!
  const card = cardOf(food, chapter.card)
  const { until } = chapter
  const batchId = uuidv7()
  const log = (when: number, body: NewEntry['body']): Deed => {
    const at = Math.round(when)
    return { at, act: () => { logEntry(stage.context, batchId, { id: uuidv7(), at, body }) } }
  }
  /** A weight typed wrong, and put right two minutes later. */
  function* mistyped(when: number, totalG: number): Generator<Deed> {
    const at = Math.round(when)
    const id = uuidv7()
    yield { at, act: () => { logEntry(stage.context, batchId, { id, at, body: { kind: 'weigh', totalG: Math.round(totalG * 1.1) } }) } }
    yield { at: at + 120_000, act: () => { logEntry(stage.context, batchId, { id: uuidv7(), at, replaces: id, body: { kind: 'weigh', totalG } }) } }
  }

  const loadedAt = Math.round(until?.stage === 'drying'
    ? stage.now - until.loadedHoursAgo * HOUR
    : until?.stage === 'resting'
      ? stage.now - (until.days + 1) * DAY
      : Math.min(morning(stage.now - chapter.daysAgo * DAY), stage.now - chapter.daysAgo * DAY + 4 * HOUR))
  const cameAt = Math.round(until?.stage === 'intake' || until?.stage === 'prep' ? stage.now - chapter.daysAgo * DAY - 0.7 * HOUR : loadedAt - (1.2 + source.uniform()) * HOUR)
  yield {
    at: cameAt,
    act: () => {
      startBatch(stage.context, { id: batchId, entry: { id: uuidv7(), at: cameAt, body: { kind: 'intake', foodKey: food.key, cultivar: chapter.cultivar, source: chapter.source, weightG: chapter.rawG, purpose: chapter.purpose, cardKey: card.key } } })
    },
  }
  if (until?.stage === 'intake') return

  const trim = Math.round(chapter.rawG * Math.max(0.02, food.trimShare.value.mean + 0.5 * food.trimShare.value.sd * source.normal()))
  const cutAt = until?.stage === 'prep' ? stage.now - until.hoursAgo * HOUR : loadedAt - 0.3 * HOUR
  yield log(cutAt - 0.4 * HOUR, { kind: 'prep', step: 'trim', effect: 'waste', weightG: trim })
  const cutBy = COOKS[index % COOKS.length]!
  yield log(cutAt, { kind: 'prep', step: 'cut', effect: 'none', cutName: card.name, thicknessMm: card.thicknessMm, by: cutBy })
  if (until?.stage === 'prep') return

  const machine = MACHINES[chapter.machine]
  const loadedG = chapter.rawG - trim - Math.round(source.uniform() * 15)
  const positions = until?.stage === 'drying' ? until.positions : positionsFor(loadedG, trayTakesG(card, machine.trayAreaM2).mean, machine.trays)
  const truth = dryForReal({ foodKey: food.key, cardKey: card.key, target: food.target[chapter.purpose], loadedG, placePaces: positions.map(position => machine.places[position - 1]!), machinePace: machine.pace, source })
  const byTray = until?.stage === 'drying' ? until.byTray === true : source.uniform() < 0.4
  const loads = positions.map((position, i) => ({ position, weightG: Math.round(truth.trayShares[i]! * loadedG) }))
  const totalG = byTray ? loads.reduce((sum, tray) => sum + tray.weightG, 0) : loadedG
  const room = { roomC: Math.round(18 + 6 * source.uniform()), roomHumidity: Math.round(42 + 24 * source.uniform()) / 100 }
  const measured = byTray && !until ? { chamberC: card.temperatureC + machine.dialOffC + Math.round(2 * source.normal()) } : undefined
  const runId = until?.stage === 'drying' && until.joins ? () => stage.running[chapter.machine]! : () => batchRun
  const batchRun = uuidv7()
  const usualHours = () => {
    const { low, high, runs } = hoursInMachine(stage.context, stage.machines[chapter.machine], { food, card, thicknessMm: card.thicknessMm, cutBy })
    return runs > 0 ? { low: Math.round(low * 10) / 10, high: Math.round(high * 10) / 10, runs } : undefined
  }
  yield {
    at: loadedAt,
    act: () => {
      logEntry(stage.context, batchId, { id: uuidv7(), at: loadedAt, body: { kind: 'load', runId: runId(), machineId: stage.machines[chapter.machine], positions, trays: byTray ? loads : undefined, totalG, usualHours: usualHours() } })
      if (runId() !== batchRun) return
      stage.running[chapter.machine] = batchRun
      logOnRun(stage.context, batchRun, { id: uuidv7(), at: loadedAt + 60_000, body: { kind: 'heat', runId: batchRun, setC: card.temperatureC } })
      logOnRun(stage.context, batchRun, { id: uuidv7(), at: loadedAt + 120_000, body: { kind: 'air', runId: batchRun, ...room } })
    },
  }
  if (measured) {
    const at = loadedAt + HOUR
    yield { at, act: () => { logOnRun(stage.context, batchRun, { id: uuidv7(), at, body: { kind: 'air', runId: batchRun, ...measured } }) } }
  }

  const noisy = (value: number) => Math.max(1, Math.round(value * (1 + 0.003 * source.normal())))
  const weigh = (hours: number): Deed[] => {
    const at = loadedAt + hours * HOUR
    if (!byTray) return [log(at, { kind: 'weigh', totalG: noisy(truth.total(hours)) })]
    return truth.trays(hours).map((grams, i) => log(at + i * 20_000, { kind: 'weigh', trays: [{ position: positions[i]!, weightG: noisy(grams) }] }))
  }
  if (until?.stage === 'drying' && until.byTray) {
    const hours = Array.from({ length: 4 * 30 }, (_, i) => i / 4)
    stage.rack = { machineId: stage.machines[chapter.machine], loadedAt, setC: card.temperatureC, hours, weightG: hours.map(hour => truth.total(hour)), tareG: positions.length * machine.trayTareG }
  }
  if (until?.stage === 'drying') {
    const slip = until.mistypedAt
    if (slip !== undefined) yield* mistyped(loadedAt + slip * HOUR, noisy(truth.total(slip)))
    for (const hours of until.weighedAt) yield* weigh(hours)
    return
  }

  const outAfter = truth.finishH * (1.04 + 0.06 * source.uniform())
  const looks = source.integer(2, 5)
  for (let i = 0; i < looks; i++) yield* weigh(outAfter * (0.4 + 0.58 * (i + 0.5 * source.uniform()) / looks))
  const outAt = loadedAt + outAfter * HOUR
  yield* weigh(outAfter)
  yield log(outAt + 5 * 60_000, { kind: 'feel', check: { form: card.feelForm, answers: dryAnswers(card.feelForm, food.group === 'orchard' || food.group === 'berry' ? chapter.purpose === 'pieces' : false), cooled: true, places: Math.min(3, positions.length) } })
  const dryG = Math.round(truth.total(outAfter))
  yield log(outAt + 8 * 60_000, { kind: 'unload', weightG: dryG })
  yield* after(chapter, source, log, outAt + 10 * 60_000, dryG, stage.now)
}

/** From the machine to the shelf. */
function* after(chapter: Chapter, source: RandomSource, log: (at: number, body: NewEntry['body']) => Deed, outAt: number, dryG: number, now: number): Generator<Deed> {
  const { until } = chapter
  let at = outAt
  let dry = dryG
  if (!chapter.noRest) {
    yield log(at, { kind: 'rest', container: '1.5 L jar' })
    const looks = until?.stage === 'resting' ? until.looks : source.integer(3, 7)
    for (let day = 1; day <= looks; day++) {
      yield log(at + day * DAY, { kind: 'look', saw: 'dry' })
      if (day === 2 && until?.stage === 'resting' && until.jarAir) yield log(at + day * DAY + 60_000, { kind: 'jarAir', shown: until.jarAir, closedHours: 48, celsius: 20, calibration: calibrateHygrometer(HYGROMETER.readings) })
    }
    if (until?.stage === 'resting') return
    at += (7.1 + source.uniform()) * DAY
    dry = Math.round(dryG * (1 + 0.002 * source.uniform()))
    yield log(at, { kind: 'restEnd', weightG: dry })
  }
  const food = findFood(chapter.food)!
  let product = dry
  if (chapter.purpose !== 'pieces') {
    product = Math.round(dry * (0.93 + 0.05 * source.uniform()))
    at += 0.5 * HOUR
    yield log(at, { kind: 'grind', dryInG: dry, powderOutG: product })
  }
  const sizeMl = chapter.purpose === 'pieces' ? 1000 : 250
  const perJar = jarTakesG(food.powderDensity.value.mean, chapter.purpose, sizeMl)
  const count = Math.max(1, Math.ceil(product / perJar))
  const packed = until?.stage === 'grinding' ? Math.floor(count * until.packedShare) || 1 : count
  const jars: { jarId: string, netG: number }[] = []
  for (let i = 0; i < packed; i++) {
    const netG = i === count - 1 ? product - jars.reduce((sum, jar) => sum + jar.netG, 0) : Math.round(product / count)
    const jarId = uuidv7()
    jars.push({ jarId, netG })
    yield log(at + (i + 1) * 4 * 60_000, { kind: 'pack', jarId, netG, packageKey: chapter.packageKey ?? 'screw-jar', place: PLACES[chapter.place]!, sizeMl })
  }
  if (until) return
  yield* use(chapter, source, log, jars, at + HOUR, now)
}

/** Jars are opened one after the other, a few spoons at a time. */
function* use(chapter: Chapter, source: RandomSource, log: (at: number, body: NewEntry['body']) => Deed, jars: readonly { jarId: string, netG: number }[], from: number, now: number): Generator<Deed> {
  let left = Math.round((chapter.used ?? 0) * jars.reduce((sum, jar) => sum + jar.netG, 0))
  const takes: { jarId: string, weightG: number }[] = []
  for (const jar of jars) {
    let inJar = jar.netG
    while (left > 0 && inJar > 0) {
      const weightG = Math.min(left, inJar, source.integer(12, 60))
      takes.push({ jarId: jar.jarId, weightG })
      left -= weightG
      inJar -= weightG
    }
  }
  const span = (now - from) * 0.95
  for (const [i, take] of takes.entries()) yield log(from + span * (i + 1) / (takes.length + 1), { kind: 'take', ...take, use: source.pick(['Soup', 'Bread', 'Stew', 'Rub', 'Sauce', 'Broth']) })
}

function positionsFor(loadedG: number, perTrayG: number, trays: number): number[] {
  const count = Math.min(trays, Math.max(2, Math.round(loadedG / perTrayG)))
  return Array.from({ length: count }, (_, i) => i + 1)
}

function dryAnswers(form: string, pliable: boolean): Record<string, string> {
  switch (form) {
    case 'leaves': return { crumble: 'crumbles', stem: 'snaps' }
    case 'sheet': return { peel: 'breaks', middle: 'even' }
    case 'shreds': return { crunch: 'crunches', mesh: 'fall' }
    default: return { bend: pliable ? 'leathery' : 'snaps', middle: 'even' }
  }
}

/** Nine in the morning, UTC, of an instant's day. */
function morning(at: number): number {
  return Math.floor(at / DAY) * DAY + 9 * HOUR
}
