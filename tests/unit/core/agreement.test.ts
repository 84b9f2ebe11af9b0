import { foldBatch } from '#core/batch'
import { purposeFactor, wayOf, type Purpose } from '#core/foods'
import type { BatchState, Entry, EntryBody } from '#core/log'
import { forecastBasket, nearestHeat, type ForecastInput } from '#core/planning'
import { estimateOfRun, reachOf } from '#core/water'
import { WAYS, type WayKey } from '#core/ways'
import { findFood, FOODS } from '../../support/foods'
import { MORNING } from '../../support/logbook'

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

describe('a load in heated air', () => {
  // What is nearly dry when it comes in has no curve to speak of, and a batch tells it by water alone.
  const NEARLY_DRY = 0.3
  const heated = asked.filter(
    ({ food, card, machine }) => WAYS[machine.kind!].plainHeat && (card.moisture ?? food.rawMoisture).value.mean > NEARLY_DRY,
  )
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
