import { uuidv7 } from 'uuidv7'
import type { Context } from '#server/services/context'
import { hoursInMachine } from '#server/services/learning'
import { logOnJar, logOnRun, logEntry, startBatch } from '#server/services/writeLog'
import type { NewEntry, NewJarEntry } from '#shared/contracts'
import { cardOf, wayOf, type CardStep, type Food } from '#core/foods'
import { cautionsAt, safeCoreC } from '#core/safety'
import { jarTakesG, looseGMl } from '#core/keeping'
import { trayTakesG } from '#core/planning'
import { calibrateHygrometer } from '#core/sorption'
import { randomSource, type RandomSource } from '#core/stats'
import type { RackTruth } from '../devices/world'
import { dryForReal } from './trueDrying'
import { COOKS, HYGROMETER, MACHINES, PLACES, type Chapter, type MachineName } from './story'

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** A deed at an instant. Chapters yield them in order; the author tells all chapters in the order of time. */
export interface Deed {
  at: number
  act: () => void
}

/** Where the deeds of a chapter are written to. */
export interface Stage {
  context: Context
  machines: Record<MachineName, string>
  /** Run that each machine has going, for batches that join it. */
  running: Partial<Record<MachineName, string>>
  /** What truly lies in the cabinet's rack now, for the simulated devices. */
  rack?: RackTruth & { machineId: string }
  /** The small mill. */
  grinderId: string
  /** Jars packed so far. */
  shelf: { jarId: string; foodKey: string; purpose: string; netG: number; place: string }[]
  /** Cautions read so far. */
  accepted: Set<string>
  now: number
}

/** Tells one chapter through the same services that the interface calls. */
export function* tell(chapter: Chapter, index: number, stage: Stage): Generator<Deed> {
  const source = randomSource(chapter.seed ?? 1000 + index)
  const food = stage.context.foods.find(chapter.food)!
  const card = cardOf(food, chapter.card)
  const { until } = chapter
  const batchId = uuidv7()
  const log = (when: number, body: NewEntry['body']): Deed => {
    const at = Math.round(when)
    return {
      at,
      act: () => {
        logEntry(stage.context, batchId, { id: uuidv7(), at, body })
      },
    }
  }
  /** A weight typed wrong, and put right two minutes later. */
  function* mistyped(when: number, totalG: number): Generator<Deed> {
    const at = Math.round(when)
    const id = uuidv7()
    yield {
      at,
      act: () => {
        logEntry(stage.context, batchId, { id, at, body: { kind: 'weigh', totalG: Math.round(totalG * 1.1) } })
      },
    }
    yield {
      at: at + 120_000,
      act: () => {
        logEntry(stage.context, batchId, { id: uuidv7(), at, replaces: id, body: { kind: 'weigh', totalG } })
      },
    }
  }

  const loadedAt = Math.round(
    until?.stage === 'drying'
      ? stage.now - until.loadedHoursAgo * HOUR
      : until?.stage === 'resting'
        ? stage.now - (until.days + 1) * DAY
        : Math.min(morning(stage.now - chapter.daysAgo * DAY), stage.now - chapter.daysAgo * DAY + 4 * HOUR),
  )
  const cameAt = Math.round(
    until?.stage === 'intake' || until?.stage === 'prep'
      ? stage.now - chapter.daysAgo * DAY - 0.7 * HOUR
      : loadedAt - (1.2 + source.uniform()) * HOUR,
  )
  yield {
    at: cameAt,
    act: () => {
      startBatch(stage.context, {
        id: batchId,
        entry: {
          id: uuidv7(),
          at: cameAt,
          body: {
            kind: 'intake',
            foodKey: food.key,
            cultivar: chapter.cultivar,
            plant: chapter.plant,
            source: chapter.source,
            weightG: chapter.rawG,
            purpose: chapter.purpose,
            cardKey: card.key,
          },
        },
      })
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
  const way = wayOf(card, machine.kind)
  // Cautions are read once in a year, and written down.
  for (const step of ['prep', 'load', 'grind'] as const) {
    for (const rule of cautionsAt(step, food, { way: machine.kind, liquid: card.liquid }).cares) {
      if (stage.accepted.has(rule.key)) continue
      stage.accepted.add(rule.key)
      yield log(cutAt + 60_000, { kind: 'caution', rule: rule.key })
    }
  }
  const { waterG, deeds } = prepSteps(card.steps, food, chapter.rawG - trim, cutAt, source, log)
  yield* deeds
  const loadedG = chapter.rawG - trim - waterG - Math.round(source.uniform() * 15)
  const positions =
    until?.stage === 'drying' ? until.positions : positionsFor(loadedG, trayTakesG(card, machine.trayAreaM2).mean, machine.trays)
  const truth = dryForReal({
    food,
    card,
    way: machine.kind,
    dryness: (loadedG + waterG) / loadedG,
    target: food.target[chapter.purpose],
    loadedG,
    placePaces: positions.map(position => machine.places[position - 1]!),
    machinePace: machine.pace,
    source,
  })
  const byTray = machine.kind === 'freeze-dryer' || (until?.stage === 'drying' ? until.byTray === true : source.uniform() < 0.4)
  const loads = positions.map((position, i) => ({ position, weightG: Math.round(truth.trayShares[i]! * loadedG) }))
  const totalG = byTray ? loads.reduce((sum, tray) => sum + tray.weightG, 0) : loadedG
  const room = { roomC: Math.round(18 + 6 * source.uniform()), roomHumidity: Math.round(42 + 24 * source.uniform()) / 100 }
  const measured =
    byTray && !until && machine.kind === 'dehydrator'
      ? { chamberC: card.temperatureC + machine.dialOffC + Math.round(2 * source.normal()) }
      : undefined
  const runId = until?.stage === 'drying' && until.joins ? () => stage.running[chapter.machine]! : () => batchRun
  const batchRun = uuidv7()
  const usualHours = () => {
    const { low, high, runs } = hoursInMachine(stage.context, stage.machines[chapter.machine], {
      food,
      card,
      thicknessMm: card.thicknessMm,
      cutBy,
      purpose: chapter.purpose,
      choices: {},
    })
    return runs > 0 ? { low: Math.round(low * 10) / 10, high: Math.round(high * 10) / 10, runs } : undefined
  }
  yield {
    at: loadedAt,
    act: () => {
      logEntry(stage.context, batchId, {
        id: uuidv7(),
        at: loadedAt,
        body: {
          kind: 'load',
          runId: runId(),
          machineId: stage.machines[chapter.machine],
          positions,
          trays: byTray ? loads : undefined,
          totalG,
          usualHours: usualHours(),
          way: machine.kind,
          frozen: machine.kind === 'freeze-dryer' ? positions : undefined,
        },
      })
      if (runId() !== batchRun) return
      stage.running[chapter.machine] = batchRun
      logOnRun(stage.context, batchRun, {
        id: uuidv7(),
        at: loadedAt + 60_000,
        body: { kind: 'heat', runId: batchRun, setC: way.temperatureC },
      })
      logOnRun(stage.context, batchRun, {
        id: uuidv7(),
        at: loadedAt + 120_000,
        body: { kind: 'air', runId: batchRun, ...(machine.kind === 'sun' ? { roomC: 32, roomHumidity: 0.42 } : room) },
      })
      if (machine.kind === 'sun')
        logOnRun(stage.context, batchRun, {
          id: uuidv7(),
          at: loadedAt + 180_000,
          body: { kind: 'outlook', runId: batchRun, duskMinute: DUSK_H * 60 },
        })
    },
  }
  if (measured) {
    const at = loadedAt + HOUR
    yield {
      at,
      act: () => {
        logOnRun(stage.context, batchRun, { id: uuidv7(), at, body: { kind: 'air', runId: batchRun, ...measured } })
      },
    }
  }

  const noisy = (value: number) => Math.max(1, Math.round(value * (1 + 0.003 * source.normal())))
  // Outdoors only the hours of sun count: it stands indoors at night.
  const atHour = (hours: number) => Math.round(machine.kind === 'sun' ? sunInstant(loadedAt, hours) : loadedAt + hours * HOUR)
  const weigh = (hours: number): Deed[] => {
    const at = atHour(hours)
    if (!byTray) return [log(at, { kind: 'weigh', totalG: noisy(truth.total(hours)) })]
    return truth
      .trays(hours)
      .map((grams, i) => log(at + i * 20_000, { kind: 'weigh', trays: [{ position: positions[i]!, weightG: noisy(grams) }] }))
  }
  if (until?.stage === 'drying' && until.byTray) {
    const hours = Array.from({ length: 4 * 30 }, (_, i) => i / 4)
    stage.rack = {
      machineId: stage.machines[chapter.machine],
      loadedAt,
      setC: card.temperatureC,
      hours,
      weightG: hours.map(hour => truth.total(hour)),
      tareG: positions.length * machine.trayTareG,
    }
  }
  if (until?.stage === 'drying') {
    const slip = until.mistypedAt
    if (slip !== undefined) yield* mistyped(loadedAt + slip * HOUR, noisy(truth.total(slip)))
    if (machine.kind === 'sun') yield* nights(stage, batchRun, loadedAt, stage.now)
    for (const hours of until.weighedAt) yield* weigh(hours)
    return
  }

  if (chapter.then) {
    yield* smokedFirst(chapter, stage, { log, batchId, smokeRunId: batchRun, loadedAt, truth, source, food })
    return
  }
  const outAfter = truth.finishH * (1.04 + 0.06 * source.uniform())
  const looks = machine.kind === 'freeze-dryer' ? 0 : source.integer(2, 5)
  for (let i = 0; i < looks; i++) yield* weigh(outAfter * (0.4 + (0.58 * (i + 0.5 * source.uniform())) / looks))
  const outAt = atHour(outAfter)
  if (machine.kind === 'sun') yield* nights(stage, batchRun, loadedAt, outAt)
  if (machine.kind === 'freeze-dryer') yield* weigh(outAfter - 2.1)
  yield* weigh(outAfter)
  yield log(outAt + 5 * 60_000, {
    kind: 'feel',
    check: {
      form: machine.kind === 'freeze-dryer' ? 'foam' : card.feelForm,
      answers: dryAnswers(machine.kind === 'freeze-dryer' ? 'foam' : card.feelForm, food.pliable && chapter.purpose === 'pieces'),
      cooled: true,
      places: Math.min(3, positions.length),
    },
  })
  const dryG = Math.round(truth.total(outAfter))
  yield log(outAt + 8 * 60_000, { kind: 'unload', weightG: dryG })
  yield washed(stage, batchRun, outAt + 9 * 60_000)
  if (chapter.twice) {
    yield* driedTwice(chapter, stage, { log, at: outAt + 20 * 60_000, dryG, food })
    return
  }
  yield* after(chapter, food, source, log, outAt + 10 * 60_000, dryG, stage)
}

/** This household washes its trays after each run: nothing of one food comes along to the next. */
const washed = ({ context }: Stage, runId: string, at: number): Deed => ({
  at: Math.round(at),
  act: () => {
    logOnRun(context, runId, { id: uuidv7(), at: Math.round(at), body: { kind: 'tick', runId, list: 'end', item: 'wash' } })
  },
})

/** From the machine to the shelf. */
function* after(
  chapter: Chapter,
  food: Food,
  source: RandomSource,
  log: (at: number, body: NewEntry['body']) => Deed,
  outAt: number,
  dryG: number,
  stage: Stage,
): Generator<Deed> {
  const { until } = chapter
  let at = outAt
  let dry = dryG
  if (!chapter.noRest && MACHINES[chapter.machine].kind !== 'freeze-dryer') {
    const apart = until?.stage === 'resting' && dryG > 150
    yield log(
      at,
      apart
        ? {
            kind: 'rest',
            jars: [
              { name: 'Jar A', sizeMl: 1500 },
              { name: 'Jar B', sizeMl: 1500 },
            ],
          }
        : { kind: 'rest', container: '1.5 L jar' },
    )
    const looks = until?.stage === 'resting' ? until.looks : source.integer(3, 7)
    for (let day = 1; day <= looks; day++) {
      yield log(at + day * DAY, { kind: 'look', saw: 'dry' })
      if (day === 2 && until?.stage === 'resting' && until.jarAir)
        yield log(at + day * DAY + 60_000, {
          kind: 'jarAir',
          shown: until.jarAir,
          closedHours: 48,
          celsius: 20,
          calibration: calibrateHygrometer(HYGROMETER.readings),
        })
    }
    if (until?.stage === 'resting') return
    at += (7.1 + source.uniform()) * DAY
    dry = Math.round(dryG * (1 + 0.002 * source.uniform()))
    yield log(at, { kind: 'restEnd', weightG: dry })
  }
  let product = dry
  if (chapter.purpose !== 'pieces') {
    product = Math.round(dry * (0.93 + 0.05 * source.uniform()))
    at += 0.5 * HOUR
    yield log(at, { kind: 'grind', dryInG: dry, powderOutG: product, ...session(dry, product, food, stage.grinderId) })
  }
  const sizeMl = chapter.purpose === 'pieces' ? 1000 : 250
  const perJar = jarTakesG(food.powderDensity.value.mean, chapter.purpose, sizeMl)
  const count = Math.max(1, Math.ceil(product / perJar))
  const packed = until?.stage === 'grinding' ? Math.floor(count * until.packedShare) || 1 : count
  const jars: { jarId: string; netG: number }[] = []
  for (let i = 0; i < packed; i++) {
    const netG = i === count - 1 ? product - jars.reduce((sum, jar) => sum + jar.netG, 0) : Math.round(product / count)
    const jarId = uuidv7()
    jars.push({ jarId, netG })
    stage.shelf.push({ jarId, foodKey: food.key, purpose: chapter.purpose, netG, place: PLACES[chapter.place]! })
    yield log(at + (i + 1) * 4 * 60_000, {
      kind: 'pack',
      jarId,
      netG,
      packageKey: chapter.packageKey ?? 'screw-jar',
      place: PLACES[chapter.place]!,
      sizeMl,
    })
  }
  if (until) return
  const used = use(chapter, source, stage, jars, at + HOUR)
  const lived = life(chapter, food, stage, log, jars, at)
  yield* inOrder([...used, ...lived])
}

function inOrder(deeds: Deed[]): Deed[] {
  return deeds.sort((a, b) => a.at - b.at)
}

/** Rounds in the small mill and where the rest went, as far as anybody looked. */
function session(dryG: number, outG: number, food: Food, grinderId: string): object {
  const count = Math.ceil(dryG / (CUP_ML * 0.6 * looseGMl(food.powderDensity.value.mean, 'pieces')))
  const each = Math.round((10 * dryG) / count) / 10
  const rounds = Array.from({ length: count }, (_, i) => ({
    inG: i + 1 < count ? each : Math.round(10 * (dryG - each * (count - 1))) / 10,
  }))
  const missing = dryG - outG
  const part = (share: number) => Math.round(10 * missing * share) / 10
  return {
    grinderId,
    cleaned: 'washed',
    rounds: count <= 40 ? rounds : undefined,
    lost: missing > 3 ? { dustG: part(0.2), filmG: part(0.35), rejectsG: part(0.3) } : undefined,
  }
}
const CUP_ML = 120

/** Looks after sealing, noses over the months, and a word for next time. Chance of its own: older figures stay. */
function* life(
  chapter: Chapter,
  food: Food,
  { context, now }: Stage,
  log: (at: number, body: NewEntry['body']) => Deed,
  jars: readonly { jarId: string; netG: number }[],
  packedAt: number,
): Generator<Deed> {
  const source = randomSource(9000 + Math.round(chapter.rawG))
  const first = jars[0]!
  const onJar = (at: number, body: NewJarEntry['body']): Deed => {
    const when = Math.round(at)
    return {
      at: when,
      act: () => {
        logOnJar(context, first.jarId, { id: uuidv7(), at: when, body })
      },
    }
  }
  const { low, high } = food.keepsMonths[chapter.purpose]
  // Each household's pantry is a little kinder or harsher than the rule.
  const halfLifeMs = Math.sqrt(low * high) * 30.44 * DAY * Math.exp(0.2 * source.normal())
  yield onJar(packedAt + 1.3 * DAY, { kind: 'lookJar', jarId: first.jarId, saw: 'loose' })
  for (let at = packedAt + 60 * DAY; at < now - 2 * DAY; at += 75 * DAY) {
    const strength = 2 ** (-(at - packedAt) / halfLifeMs) * Math.exp(0.15 * source.normal())
    if ((chapter.used ?? 0) < 0.95)
      yield onJar(at, { kind: 'smell', jarId: first.jarId, smell: strength > 0.65 ? 'strong' : strength > 0.35 ? 'weaker' : 'crushed' })
  }
  if (chapter.word) yield log(Math.min(packedAt + 12 * DAY, now - DAY), { kind: 'review', ...chapter.word })
}

/** Jars are opened one after the other, a few spoons at a time. */
function* use(
  chapter: Chapter,
  source: RandomSource,
  { context, now }: Stage,
  jars: readonly { jarId: string; netG: number }[],
  from: number,
): Generator<Deed> {
  let left = Math.round((chapter.used ?? 0) * jars.reduce((sum, jar) => sum + jar.netG, 0))
  const takes: { jarId: string; weightG: number }[] = []
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
  for (const [i, take] of takes.entries()) {
    const at = Math.round(from + (span * (i + 1)) / (takes.length + 1))
    const use = source.pick(['Soup', 'Bread', 'Stew', 'Rub', 'Sauce', 'Broth'])
    yield {
      at,
      act: () => {
        logOnJar(context, take.jarId, { id: uuidv7(), at, body: { kind: 'take', ...take, use } })
      },
    }
  }
}

function positionsFor(loadedG: number, perTrayG: number, trays: number): number[] {
  const count = Math.min(trays, Math.max(2, Math.round(loadedG / perTrayG)))
  return Array.from({ length: count }, (_, i) => i + 1)
}

function dryAnswers(form: string, pliable: boolean): Record<string, string> {
  switch (form) {
    case 'leaves':
      return { crumble: 'crumbles', stem: 'snaps' }
    case 'foam':
      return { touch: 'chalky', middle: 'even' }
    case 'sheet':
      return { peel: 'breaks', middle: 'even' }
    case 'shreds':
      return { crunch: 'crunches', mesh: 'fall' }
    default:
      return { bend: pliable ? 'leathery' : 'snaps', middle: 'even' }
  }
}

/** Nine in the morning, UTC, of an instant's day. */
function morning(at: number): number {
  return Math.floor(at / DAY) * DAY + 9 * HOUR
}

/** Dusk and morning of the racks, hours UTC. */
const DUSK_H = 18
const OUT_H = 9

/** The instant at which so many hours of sun are over, from nine to dusk each day. */
function sunInstant(from: number, hours: number): number {
  let at = from
  let left = hours
  for (;;) {
    const dusk = Math.floor(at / DAY) * DAY + DUSK_H * HOUR
    const today = Math.max(0, (dusk - at) / HOUR)
    if (left <= today) return at + left * HOUR
    left -= today
    at = Math.floor(at / DAY) * DAY + DAY + OUT_H * HOUR
  }
}

/** In at dusk, out in the morning, until an instant. */
function* nights(stage: Stage, runId: string, from: number, to: number): Generator<Deed> {
  const set = (at: number, setC: number | null): Deed => ({
    at,
    act: () => {
      logOnRun(stage.context, runId, { id: uuidv7(), at, body: { kind: 'heat', runId, setC } })
    },
  })
  for (let day = Math.floor(from / DAY) * DAY; day < to; day += DAY) {
    const dusk = day + DUSK_H * HOUR
    if (dusk > from && dusk < to) yield set(dusk, null)
    const out = day + DAY + OUT_H * HOUR
    if (out < to) yield set(out, 34)
  }
}

/** Steps of a card beyond trimming and cutting that leave a mark: cooking with its thermometer, water boiled off. */
function prepSteps(
  steps: readonly CardStep[],
  food: Food,
  weightG: number,
  cutAt: number,
  source: RandomSource,
  log: (at: number, body: NewEntry['body']) => Deed,
): { waterG: number; deeds: Deed[] } {
  const deeds: Deed[] = []
  let waterG = 0
  const coreC = safeCoreC(food)
  const off = (share: number) => {
    const grams = Math.round((weightG - waterG) * share)
    waterG += grams
    return grams
  }
  steps.forEach(({ step }, i) => {
    const at = cutAt + (i + 2) * 60_000
    if (step === 'roast' || step === 'thicken')
      deeds.push(log(at, { kind: 'prep', step, effect: 'water', weightG: off(0.1 + 0.06 * source.uniform()) }))
    if (step === 'cook' || step === 'boil')
      deeds.push(log(at, { kind: 'prep', step, effect: 'none', coreC: coreC === undefined ? undefined : coreC + 3 }))
    if (step === 'puree' || step === 'freeze') deeds.push(log(at, { kind: 'prep', step, effect: 'none' }))
  })
  return { waterG, deeds }
}

interface Leg {
  log: (at: number, body: NewEntry['body']) => Deed
  food: Food
}

/** A pass in the smoke, then a night in another machine. */
function* smokedFirst(
  chapter: Chapter,
  stage: Stage,
  leg: Leg & { batchId: string; smokeRunId: string; loadedAt: number; truth: ReturnType<typeof dryForReal>; source: RandomSource },
): Generator<Deed> {
  const { log, food, loadedAt, truth, source } = leg
  const smokeH = 4
  const card = cardOf(food, chapter.card)
  // An hour of smoke is worth a little more than one in the dryer.
  const dried = (hours: number) => Math.round(truth.total(1.3 * Math.min(hours, smokeH) + Math.max(0, hours - smokeH)))
  const smokedG = dried(smokeH)
  const smokeOut = loadedAt + smokeH * HOUR
  yield log(smokeOut, { kind: 'weigh', totalG: smokedG })
  yield log(smokeOut + 60_000, { kind: 'unload', weightG: smokedG })
  yield washed(stage, leg.smokeRunId, smokeOut + 120_000)
  const name = chapter.then!
  const machine = MACHINES[name]
  const runId = uuidv7()
  const at = Math.round(smokeOut) + 20 * 60_000
  yield {
    at,
    act: () => {
      logEntry(stage.context, leg.batchId, {
        id: uuidv7(),
        at,
        body: { kind: 'load', runId, machineId: stage.machines[name], positions: [1, 2, 3, 4], totalG: smokedG, way: machine.kind },
      })
      logOnRun(stage.context, runId, {
        id: uuidv7(),
        at: at + 60_000,
        body: { kind: 'heat', runId, setC: wayOf(card, machine.kind).temperatureC },
      })
    },
  }
  const endH = smokeH + Math.max(2, truth.finishH * 4.4)
  yield log(at + 0.7 * (endH - smokeH) * HOUR, { kind: 'weigh', totalG: dried(smokeH + 0.7 * (endH - smokeH)) })
  const outAt = at + (endH - smokeH) * HOUR
  const dryG = dried(endH)
  yield log(outAt, { kind: 'weigh', totalG: dryG })
  yield log(outAt + 60_000, {
    kind: 'feel',
    check: { form: card.feelForm, answers: dryAnswers(card.feelForm, false), cooled: true, places: 3 },
  })
  yield log(outAt + 120_000, { kind: 'unload', weightG: dryG })
  yield washed(stage, runId, outAt + 180_000)
  yield* after(chapter, food, source, log, outAt + 10 * 60_000, dryG, stage)
}

/** Leaf the quick way: ground with its stalks half dry, an hour more in the dryer, ground again. */
function* driedTwice(chapter: Chapter, stage: Stage, leg: Leg & { at: number; dryG: number }): Generator<Deed> {
  const { log, food, dryG } = leg
  const machine = MACHINES[chapter.machine]
  const runId = uuidv7()
  const coarseG = Math.round(dryG * 0.98)
  let at = Math.round(leg.at)
  yield log(at, { kind: 'grind', dryInG: dryG, powderOutG: coarseG, note: 'Coarse, stalks still tough', cleaned: 'washed' })
  at += 10 * 60_000
  yield log(at, { kind: 'load', runId, machineId: stage.machines[chapter.machine], positions: [1, 2], totalG: coarseG, way: machine.kind })
  const heatAt = at + 60_000
  yield {
    at: heatAt,
    act: () => {
      logOnRun(stage.context, runId, {
        id: uuidv7(),
        at: heatAt,
        body: { kind: 'heat', runId, setC: cardOf(food, chapter.card).temperatureC },
      })
    },
  }
  at += 70 * 60_000
  const driedG = Math.round(coarseG * 0.97)
  yield log(at, { kind: 'unload', weightG: driedG })
  yield washed(stage, runId, at + 30_000)
  at += 15 * 60_000
  const fineG = Math.round(driedG * 0.97)
  yield log(at, { kind: 'grind', dryInG: driedG, powderOutG: fineG, cleaned: 'washed' })
  yield log(at + 5 * 60_000, {
    kind: 'pack',
    jarId: uuidv7(),
    netG: fineG,
    packageKey: 'screw-jar',
    place: PLACES[chapter.place]!,
    sizeMl: 250,
  })
}
