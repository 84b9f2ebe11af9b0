import { assess, foldBatch } from '#core/batch'
import { purposeFactor, wayOf, type Purpose } from '#core/foods'
import type { BatchState, Entry, EntryBody } from '#core/log'
import { forecastBasket, nearestHeat, type ForecastInput } from '#core/planning'
import { hoursOf, middleOf } from '#core/hours'
import { tryLoad, usualKnobs, type TryKnobs, type TryLoad } from '#core/tries'
import { estimateOfRun, reachOf } from '#core/water'
import { WAYS, type WayKey } from '#core/ways'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { findFood, FOODS } from '../../support/foods'
import { HOUR } from '#core/time'
import { HOUSEHOLD, MORNING } from '../../support/logbook'

/** Pages that ask the same are answered the same: every food, cut and way of the reference. */
const MACHINES = [
  { trays: 6, trayAreaM2: 0.1, watts: 500 },
  { trays: 9, trayAreaM2: 0.12, watts: 600 },
  { trays: 2, trayAreaM2: 0.2, watts: 2000 },
]
const WEIGHT_G = 1500

const asked = FOODS.flatMap(food =>
  food.cards.flatMap(card =>
    card.ways.flatMap(({ way, partOnly }, i) =>
      partOnly
        ? []
        : (['powder', 'pieces'] as const).map((purpose): ForecastInput => {
            const { value } = wayOf(card, way).usualHours
            const factor = purposeFactor(food, purpose, way)
            return {
              food,
              card,
              purpose,
              weightG: WEIGHT_G,
              machine: { ...MACHINES[i % MACHINES.length]!, kind: way, lowC: 30, highC: 80 },
              usualHours: { low: value.low * factor, high: value.high * factor, runs: 0 },
              jarMl: 500,
              startAt: MORNING,
              household: HOUSEHOLD,
            }
          }),
    ),
  ),
)

/** Its batch, once what was forecast for the trays is loaded and its heat is on. */
function onceLoaded({ food, card, purpose, machine }: ForecastInput, preparedG: number): BatchState {
  const way = machine.kind!
  const bodies: EntryBody[] = [
    { kind: 'intake', foodKey: food.key, cardKey: card.key, purpose, source: 'Garden', weightG: WEIGHT_G },
    { kind: 'load', runId: 'r', machineId: 'm', positions: [1], totalG: preparedG, way },
    { kind: 'heat', runId: 'r', setC: nearestHeat(wayOf(card, way).temperatureC, { lowC: machine.lowC!, highC: machine.highC! }) },
  ]
  const log = bodies.map((body, i): Entry => ({ id: `e${i}`, seq: i + 1, at: MORNING + i, recordedAt: MORNING + i, body }))
  return foldBatch(log, findFood)!
}

// What is nearly dry when it comes in has no curve to speak of, and a batch tells it by water alone.
const NEARLY_DRY = 0.3
const heated = asked.filter(
  ({ food, card, machine }) => WAYS[machine.kind!].plainHeat && (card.moisture ?? food.rawMoisture).value.mean > NEARLY_DRY,
)

describe('a load in heated air', () => {
  // A third of them: all take half a minute, and say the same.
  const told = heated
    .filter((_, i) => i % 3 === 0)
    .map(input => {
      const { hoursPerLoad, preparedG } = forecastBasket(input)
      // Infinity where its air does not get it there.
      const { p10, p50, p90 } = estimateOfRun(onceLoaded(input, preparedG.p50), MORNING + 3)!.hoursToTarget
      return { name: `${input.food.key} ${input.card.key} ${input.machine.kind} ${input.purpose}`, hoursPerLoad, p10, p50, p90 }
    })
  it('takes as long by the forecast as by its batch', () => {
    const reaches = told.filter(({ p90 }) => Number.isFinite(p90))
    expect(reaches.length).toBeGreaterThan(0.9 * told.length)
    const apart = reaches.map(({ hoursPerLoad, p50 }) => Math.abs(Math.log(p50 / hoursPerLoad.p50)))
    expect(apart.filter(value => value > 0.03).length / apart.length).toBeLessThan(0.06)
    expect(Math.max(...apart)).toBeLessThan(0.15)
    const early = reaches.map(({ hoursPerLoad, p10 }) => Math.log(p10 / hoursPerLoad.p10))
    expect(early.filter(value => Math.abs(value) > 0.1).length / early.length).toBeLessThan(0.06)
  })
})

describe('whether the air lets it become dry enough', () => {
  it('is said before it is loaded as it is after: by any way, in a room that nobody measured', () => {
    for (const input of asked.filter((_, i) => i % 5 === 0)) {
      const { reaches, preparedG } = forecastBasket(input)
      const state = onceLoaded(input, preparedG.p50)
      expect(reaches).toBeCloseTo(reachOf(state, state.run!).chance, 9)
    }
  })
  it('is doubtful of powder in the sun and of bunches for powder in a room, and sure of slices in a dehydrator', () => {
    const of = (foodKey: string, cardKey: string, kind: WayKey, purpose: Purpose) =>
      forecastBasket(
        asked.find(
          input => input.food.key === foodKey && input.card.key === cardKey && input.machine.kind === kind && input.purpose === purpose,
        )!,
      ).reaches
    expect(of('habanero', 'halves', 'sun', 'powder')).toBeLessThan(0.9)
    expect(of('sage', 'bunches', 'air', 'powder')).toBeLessThan(0.9)
    expect(of('beetroot', 'slices-3', 'dehydrator', 'powder')).toBeGreaterThan(0.9)
  })
})

describe('a basket', () => {
  it('takes the same power, trays and hours whatever stands in its machine now', () => {
    for (const input of asked.filter((_, i) => i % 7 === 0)) {
      const alone = forecastBasket(input)
      const beside = forecastBasket({ ...input, machine: { ...input.machine, free: 1, freeAt: MORNING } })
      for (const figure of ['energyKWh', 'trays', 'hoursPerLoad', 'preparedG', 'dryG', 'productG', 'jars'] as const)
        expect({ figure, of: beside[figure] }).toEqual({ figure, of: alone[figure] })
    }
  })
  it('gives as much dry by either purpose, less what the mill keeps', () => {
    const byPurpose = (purpose: Purpose) => asked.filter(input => input.purpose === purpose)
    byPurpose('powder').forEach((input, i) => {
      if (i % 7 !== 0) return
      const powder = forecastBasket(input)
      expect(powder.productG.p50).toBeLessThanOrEqual(powder.dryG.p50)
      // Powder is dried on: it holds less water than pieces of the same food.
      expect(powder.dryG.p50).toBeLessThanOrEqual(forecastBasket(byPurpose('pieces')[i]!).dryG.p50 * 1.02)
    })
  })
})

describe('what if', () => {
  /** The basket of a forecast as its what-if takes it, in its one machine. */
  const triedOf = ({ food, card, purpose, weightG, machine }: ForecastInput, preparedG: number): TryLoad => ({
    food,
    log: [
      {
        id: 'typed',
        seq: 1,
        at: MORNING,
        recordedAt: MORNING,
        body: { kind: 'intake', foodKey: food.key, cardKey: card.key, purpose, source: 'Garden', weightG },
      },
    ],
    preparedG,
    machines: [{ id: 'm', name: 'Rack', kind: machine.kind!, lowC: 30, highC: 80, ...machine }],
    startAt: MORNING,
    household: HOUSEHOLD,
  })

  it('untouched says the hours, trays, loads and power of the forecast above it', () => {
    const apart = heated.flatMap(input => {
      const forecast = forecastBasket(input)
      const load = triedOf(input, forecast.preparedG.p50)
      const tried = tryLoad(load, usualKnobs(load, 'm', input.card.key))
      expect({ trays: tried.trays, loads: tried.loads }).toEqual({ trays: forecast.trays.p50, loads: forecast.loads.p50 })
      if (!Number.isFinite(tried.finishH.p90)) return []
      return [
        {
          name: `${input.food.key} ${input.card.key} ${input.machine.kind} ${input.purpose}`,
          hours: Math.abs(Math.log(tried.finishH.p50 / forecast.hoursPerLoad.p50)),
          // Of what may be one load or two a forecast tells the middle of both.
          power: forecast.loads.p10 < forecast.loads.p90 ? 0 : Math.abs(Math.log(tried.kWh! / forecast.energyKWh.p50)),
        },
      ]
    })
    expect(apart.length).toBeGreaterThan(0.9 * heated.length)
    expect(apart.filter(({ hours }) => hours > 0.03).length / apart.length).toBeLessThan(0.1)
    expect(Math.max(...apart.map(({ hours }) => hours))).toBeLessThan(0.15)
    expect(Math.max(...apart.map(({ power }) => power))).toBeLessThan(0.1)
  })

  it.each<[string, Partial<TryKnobs>]>([
    ['milder', { setC: 46 }],
    ['hotter', { setC: 68 }],
    ['thinner', { thicknessMm: 4, loadKgM2: 2 }],
    ['in a damp room', { room: { celsius: 20, humidity: 0.75 } }],
    ['heaped', { loadKgM2: 15 }],
  ])('%s: every page that is asked the same says the same', (_, knobs) => {
    const input = asked.find(
      ({ food, card, machine }) => food.key === 'beetroot' && card.key === 'slices-6' && machine.kind === 'dehydrator',
    )!
    const { preparedG } = forecastBasket(input)
    const load = triedOf(input, preparedG.p50)
    // A room that was measured: in one that nobody knows some loads never end, and the middle of all is later.
    const usual = { ...usualKnobs(load, 'm', 'slices-6'), room: { celsius: 20, humidity: 0.45 } }
    const { finishH, trays } = tryLoad(load, { ...usual, ...knobs })
    // As it comes to lie on whole trays.
    const loadKgM2 = load.preparedG / 1000 / (trays * input.machine.trayAreaM2)
    const byLaws = middleOf(
      hoursOf({ ...input, way: 'dehydrator', thicknessMm: usual.thicknessMm, setC: usual.setC, room: usual.room, ...knobs, loadKgM2 }),
    )
    expect(Math.abs(Math.log(finishH.p50 / byLaws))).toBeLessThan(0.03)
  })

  it('taken over says the same once it is loaded so, to the minute: every fifth load, heaped, hotter, in its room', () => {
    for (const [i, input] of heated.entries()) {
      if (i % 5 !== 0) continue
      const load = triedOf(input, forecastBasket(input).preparedG.p50)
      const usual = usualKnobs(load, 'm', input.card.key)
      const room = { celsius: 22, humidity: 0.6 }
      const { finishH, trays } = tryLoad(load, { ...usual, room, setC: usual.setC + 4, loadKgM2: 2 * usual.loadKgM2 })
      const { trayAreaM2, kind } = input.machine
      const bodies: EntryBody[] = [
        {
          kind: 'load',
          runId: 'r',
          machineId: 'm',
          positions: Array.from({ length: trays }, (_, tray) => tray + 1),
          totalG: load.preparedG,
          trayAreaM2,
          way: kind!,
        },
        { kind: 'heat', runId: 'r', setC: usual.setC + 4 },
        { kind: 'air', runId: 'r', roomC: room.celsius, roomHumidity: room.humidity },
      ]
      const log = bodies.map((body, k): Entry => ({ id: `l${k}`, seq: k + 2, at: MORNING, recordedAt: MORNING, body }))
      const { middle, from } = assess(foldBatch([...load.log, ...log], findFood)!, MORNING)!.finish
      expect(MORNING + finishH.p50 * HOUR).toBeCloseTo(middle, 3)
      expect(MORNING + finishH.p10 * HOUR).toBeCloseTo(from, 3)
    }
  })

  it('of another cut is held against that cut’s own target', () => {
    const jerky = asked.find(
      ({ food, card, machine, purpose }) =>
        food.key === 'beef-cooked' && card.key === 'jerky-6' && machine.kind === 'dehydrator' && purpose === 'pieces',
    )!
    const load = triedOf(jerky, 1000)
    expect(tryLoad(load, usualKnobs(load, 'm', 'jerky-6')).target).toBe(jerky.card.target!.pieces)
    expect(tryLoad(load, usualKnobs(load, 'm', 'strips-6')).target).toBe(jerky.food.target.pieces)
  })

  it('a thickness that another card has dries as that card, and another cut has its own hours', () => {
    const input = asked.find(({ food, machine }) => food.key === 'zucchini' && machine.kind === 'dehydrator')!
    const cuts = input.food.cards.filter(card => card.key.startsWith('slices') && card.ways.some(({ way }) => way === 'dehydrator'))
    const thick = cuts[0]!
    const thin = cuts.find(card => card.thicknessMm !== thick.thicknessMm)!
    const load = triedOf({ ...input, card: thick }, 1000)
    const byKnob = tryLoad(load, usualKnobs({ ...load, thicknessMm: thin.thicknessMm }, 'm', thick.key)).finishH.p50
    const byCut = tryLoad(load, usualKnobs(load, 'm', thin.key)).finishH.p50
    const byForecast = forecastBasket({ ...input, card: thin, usualHours: undefined }).hoursPerLoad.p50
    expect(Math.abs(Math.log(byKnob / byCut))).toBeLessThan(0.06)
    expect(Math.abs(Math.log(byCut / byForecast))).toBeLessThan(0.05)
  })
})

describe('usual hours', () => {
  /** Rooms in which they are laid down, written, learned from, drawn or practised. */
  const ROOMS = ['core/hours/', 'core/foods/', 'core/log/', 'core/learning/', 'core/kinetics/', 'core/simulation/', 'core/practice/']
  /** Who reads a card's hours and makes no hours of a load of them. */
  const READERS = [
    // A pass in the smoke is by the clock, whatever it is.
    'core/planning/agenda.ts',
    'app/components/batch/WayCard.vue',
    'server/services/plan/options.ts',
    // What own runs teach is told against the card.
    'app/composables/useTries.ts',
    'server/services/learning.ts',
  ]
  const filesIn = (folder: string): string[] =>
    readdirSync(folder, { withFileTypes: true }).flatMap(item => {
      const path = join(folder, item.name)
      return item.isDirectory() ? filesIn(path) : /\.(?:ts|vue)$/.test(item.name) ? [path] : []
    })

  it('are turned into hours of a load by one room alone', () => {
    const who = ['core', 'app', 'server', 'shared']
      .flatMap(filesIn)
      .filter(path => !ROOMS.some(room => path.startsWith(room)) && /usualHours\.(?:value|low|high)\b/.test(readFileSync(path, 'utf8')))
    expect(who.sort()).toEqual(READERS.sort())
  })
})
