import { heatLaw } from '#core/hours'
import { assess, foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import { cardOf } from '#core/foods'
import { bestByWindow } from '#core/keeping'
import {
  agendaOf,
  finishAxis,
  forecastBasket,
  groupOf,
  heatChoices,
  nextWaking,
  sleepAround,
  startOfDay,
  type Household,
} from '#core/planning'
import { BEETROOT, DAY, HOUR, HOUSEHOLD, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const HOUSE: Household = { timeZone: 'Europe/Lisbon', sleepFrom: 22 * 60 + 30, sleepTo: 6 * 60 + 30 }
const at = (text: string) => Date.parse(text)

describe('days and nights', () => {
  it('finds the night around an instant and the one to come', () => {
    // Lisbon is at UTC+1 in summer.
    expect(sleepAround(at('2026-07-01T12:00Z'), HOUSE)).toEqual({ from: at('2026-07-01T21:30Z'), to: at('2026-07-02T05:30Z') })
    expect(sleepAround(at('2026-07-02T02:00Z'), HOUSE).to).toBe(at('2026-07-02T05:30Z'))
    expect(nextWaking(at('2026-07-02T02:00Z'), HOUSE)).toBe(at('2026-07-02T05:30Z'))
    expect(nextWaking(at('2026-07-02T09:00Z'), HOUSE)).toBe(at('2026-07-02T09:00Z'))
  })
  it('keeps to the wall clock across the end of summer time', () => {
    // Clocks went back at 01:00 UTC on 25 October 2026: that night is an hour longer.
    const night = sleepAround(at('2026-10-24T20:00Z'), HOUSE)
    expect((night.to - night.from) / HOUR).toBe(9)
    expect((startOfDay(at('2026-10-25T12:00Z'), 'Europe/Lisbon', 1) - startOfDay(at('2026-10-25T12:00Z'), 'Europe/Lisbon')) / HOUR).toBe(25)
  })
  it('takes people who sleep by day', () => {
    expect(sleepAround(at('2026-07-01T10:00Z'), { timeZone: 'UTC', sleepFrom: 9 * 60, sleepTo: 16 * 60 })).toEqual({
      from: at('2026-07-01T09:00Z'),
      to: at('2026-07-01T16:00Z'),
    })
  })
})

describe('the agenda', () => {
  const load: EntryBody = { kind: 'load', runId: 'r', machineId: 'm', positions: [1, 2], totalG: 1700 }
  const heat: EntryBody = { kind: 'heat', runId: 'r', setC: 57 }
  const todos = (items: [number, EntryBody][], now = MORNING + 2 * HOUR) => {
    const state = foldBatch(logOf(...items), findFood)!
    return agendaOf(state, assess(state, now), HOUSE)
  }
  const first = (items: [number, EntryBody][]) => todos(items)[0]!

  it.each<[string, [number, EntryBody][], string]>([
    ['a basket', [[0, BEETROOT]], 'prepare'],
    [
      'cut food',
      [
        [0, BEETROOT],
        [1, { kind: 'prep', step: 'cut', effect: 'none' }],
      ],
      'load',
    ],
    [
      'trays without heat',
      [
        [0, BEETROOT],
        [1, load],
      ],
      'heat',
    ],
    [
      'trays on the heat',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
      ],
      'weigh',
    ],
    [
      'a finish at hand',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [5, { kind: 'weigh', totalG: 500 }],
        [9, { kind: 'weigh', totalG: 245 }],
      ],
      'test',
    ],
    [
      'dry trays',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
      ],
      'rest',
    ],
    [
      'a jar at rest',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
        [13, { kind: 'rest' }],
      ],
      'look',
    ],
    [
      'beads in the jar',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
        [13, { kind: 'rest' }],
        [37, { kind: 'look', saw: 'moisture' }],
      ],
      'redry',
    ],
    [
      'mould in the jar',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
        [13, { kind: 'rest' }],
        [37, { kind: 'look', saw: 'mould' }],
      ],
      'discard',
    ],
    [
      'the rest at its end',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
        [13, { kind: 'rest' }],
        [160, { kind: 'look', saw: 'dry' }],
      ],
      'grind',
    ],
    [
      'rested food',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
        [13, { kind: 'restEnd' }],
      ],
      'grind',
    ],
    [
      'open powder',
      [
        [0, BEETROOT],
        [1, load],
        [1, heat],
        [12, { kind: 'unload' }],
        [13, { kind: 'restEnd' }],
        [14, { kind: 'grind', dryInG: 200, powderOutG: 190 }],
      ],
      'pack',
    ],
  ])('of %s', (_, items, kind) => expect(first(items).kind).toBe(kind))

  it('asks for the first weight at two thirds of the usual time, and never in the night', () => {
    const look = first([
      [0, BEETROOT],
      [1, load],
      [1, heat],
    ])
    expect((look.from - MORNING) / HOUR).toBeCloseTo(1 + (2 / 3) * Math.sqrt(8 * 13), 0)
    const evening = first([
      [10, BEETROOT],
      [11, load],
      [11, heat],
    ])
    expect(nextWaking(evening.from, HOUSE)).toBe(evening.from)
  })
  it('puts things where they belong in the day', () => {
    const now = at('2026-10-06T17:40Z') // 18:40 in Lisbon
    const group = (from: number, to?: number, kind: 'weigh' | 'dry' | 'prepare' = 'weigh') => groupOf({ kind, from, to }, now, HOUSE)
    expect(group(now - 2 * HOUR)).toBe('late')
    expect(group(now + HOUR)).toBe('today')
    expect(group(now - 5 * HOUR, now + HOUR)).toBe('today')
    expect(group(now + 9 * HOUR)).toBe('sleep')
    expect(group(now + 20 * HOUR)).toBe('later')
    expect(group(now + 8 * HOUR, now + 11 * HOUR, 'dry')).toBe('sleep')
    expect(group(now, now + 5 * DAY, 'prepare')).toBe('later')
  })
})

describe('the forecast', () => {
  const food = findFood('tomato')!
  const input = {
    food,
    card: cardOf(food, 'slices-6'),
    purpose: 'powder' as const,
    weightG: 5000,
    machine: { trays: 6, trayAreaM2: 0.1, watts: 600 },
    jarMl: 250,
    startAt: MORNING,
    household: HOUSEHOLD,
  }

  it('gives ranges in order and keeps the mass', () => {
    const forecast = forecastBasket(input)
    for (const interval of [
      forecast.preparedG,
      forecast.trays,
      forecast.loads,
      forecast.hoursPerLoad,
      forecast.dryG,
      forecast.productG,
      forecast.jars,
      forecast.energyKWh,
    ]) {
      expect(interval.p10).toBeLessThanOrEqual(interval.p50)
      expect(interval.p50).toBeLessThanOrEqual(interval.p90)
    }
    // 5 kg less 8 %, 5.5 % solids, at 6 % water: about 270 g.
    expect(forecast.dryG.p50).toBeGreaterThan(240)
    expect(forecast.dryG.p50).toBeLessThan(300)
    expect(forecast.productG.p90).toBeLessThanOrEqual(forecast.dryG.p90)
    expect(forecast.loads.p50).toBeGreaterThanOrEqual(2)
    expect((forecast.endsAt.p50 - MORNING) / HOUR).toBeGreaterThan(forecast.hoursPerLoad.p50)
  })
  it('trims no more what is a part of another basket, and says what it is in cups', () => {
    const part = forecastBasket({ ...input, weightG: 1000, prepared: { mean: 0.055, sd: 0.004 }, own: { prep: undefined } })
    expect(part.preparedG).toMatchObject({ p10: 1000, p50: 1000, p90: 1000 })
    // 55 g of solids at 6 % water are 58.5 g; and nine tenths and a half of that is powder.
    expect(part.dryG.p50).toBeCloseTo(55 / 0.94, 0)
    const density = food.powderDensity.value.mean
    expect(part.productMl.p50 / (part.productG.p50 / density)).toBeCloseTo(1, 1)
    // Freeze-dried pieces keep their volume: as many grams fill more jars.
    const pieces = (kind: 'dehydrator' | 'freeze-dryer') =>
      forecastBasket({ ...input, purpose: 'pieces', machine: { ...input.machine, kind } })
    const [shrunk, whole] = [pieces('dehydrator'), pieces('freeze-dryer')]
    expect(whole.productMl.p50 / whole.productG.p50 / (shrunk.productMl.p50 / shrunk.productG.p50)).toBeCloseTo(2.5, 1)
    expect(whole.jars.p50).toBeGreaterThan(2 * shrunk.jars.p50 - 2)
  })
  it('agrees with "5 lb of tomatoes to half a cup of powder" (common practice), at 0.6 g/mL and twofold', () => {
    const { productG } = forecastBasket({ ...input, weightG: 5 * 453.59237 })
    const cup = 0.5 * 236.6 * 0.6
    expect(productG.p50 / cup).toBeGreaterThan(0.5)
    expect(productG.p50 / cup).toBeLessThan(2)
  })
  it('learns from own batches', () => {
    const slow = forecastBasket({
      ...input,
      own: {
        dry: { factor: { p10: 1.2, p50: 1.25, p90: 1.3 }, lots: 8 },
        recovery: { factor: { p10: 0.78, p50: 0.8, p90: 0.82 }, lots: 3 },
      },
      usualHours: { low: 20, high: 26, runs: 5 },
    })
    const plain = forecastBasket(input)
    // Its hours are those that were learned, to the draw.
    expect(slow.hoursPerLoad.p50).toBeCloseTo(Math.sqrt(20 * 26), 0)
    expect(slow.hoursPerLoad.p10).toBeCloseTo(20, 0)
    expect(slow.hoursPerLoad.p90).toBeCloseTo(26, 0)
    expect([slow.ownRuns, plain.ownRuns]).toEqual([5, 0])
    expect(slow.dryG.p50 / plain.dryG.p50).toBeCloseTo(1.25, 1)
    expect(slow.productG.p50 / slow.dryG.p50).toBeCloseTo(0.8 * 0.95, 2)
    expect(slow.dryG.p90 - slow.dryG.p10).toBeLessThan(plain.dryG.p90 - plain.dryG.p10)
    expect(slow.ownBatches).toBe(8)
  })
  it('takes longer where the machine does not come to the card’s heat, by wet bulb and Arrhenius', () => {
    const plain = forecastBasket(input)
    const cool = forecastBasket({ ...input, machine: { ...input.machine, lowC: 25, highC: 40 } })
    // Two thirds of the hours by exp(3608 · (1/313.15 − 1/330.15)) = 1.81; one by (57 − 25.8)/(40 − 20.9) = 1.63.
    expect(cool.hoursPerLoad.p50 / plain.hoursPerLoad.p50).toBeCloseTo((2 * 1.81 + 1.63) / 3, 1)
    expect(forecastBasket({ ...input, machine: { ...input.machine, lowC: 30, highC: 75 } })).toEqual(plain)
  })
  it('refuses a basket of nothing', () => expect(() => forecastBasket({ ...input, weightG: 0 })).toThrow('weightG'))
})

describe('the heat at loading', () => {
  const schools = [{ name: '62 °C, quick', celsius: 62 }, { name: 'as it comes' }]
  it('is the card’s first, then the schools’, as far as the machine goes', () => {
    expect(heatChoices('dehydrator', 57, schools, { lowC: 35, highC: 75 })).toEqual([
      { celsius: 57, because: 'card' },
      { celsius: 62, because: { school: '62 °C, quick' } },
    ])
    expect(heatChoices('dehydrator', 57, schools, { lowC: 35, highC: 60 })).toEqual([{ celsius: 57, because: 'card' }])
  })
  it('is never without a choice: as near as the machine comes, below or above', () => {
    expect(heatChoices('dehydrator', 57, [], { lowC: 25, highC: 40 })).toEqual([{ celsius: 40, because: 'nearest' }])
    expect(heatChoices('dehydrator', 40, [], { lowC: 65, highC: 120 })).toEqual([{ celsius: 65, because: 'nearest' }])
  })
  it('stretches the hours where there is a dial, and nowhere else', () => {
    expect(heatLaw('dehydrator', 57, 57)).toBe(1)
    expect(heatLaw('dehydrator', 40, 57)).toBeGreaterThan(1.7)
    expect(heatLaw('freeze-dryer', 40, 57)).toBe(1)
  })
})

describe('keeping', () => {
  const food = findFood('beetroot')!
  it('is the food’s own months in a lined jar at 20 °C', () => {
    expect(bestByWindow({ food, purpose: 'powder', packageKey: 'screw-jar' }).months).toEqual({ low: 6, high: 9 })
  })
  it('shortens in a bag, in the warm and without a rest; lengthens in the cold', () => {
    const low = (more: Partial<Parameters<typeof bestByWindow>[0]>) =>
      bestByWindow({ food, purpose: 'powder', packageKey: 'screw-jar', ...more }).months.low
    expect(low({ packageKey: 'bag' })).toBe(3)
    expect(low({ storageC: 30 })).toBeCloseTo(6 / 1.9, 6)
    expect(low({ storageC: 10 })).toBeCloseTo(6 * 1.9, 6)
    expect(low({ rested: false })).toBeCloseTo(4.8, 6)
    expect(bestByWindow({ food, purpose: 'powder', packageKey: 'screw-jar', storageC: 30, rested: false }).reason).toMatch(
      /fades faster.*not rested/,
    )
  })
  it('pieces outlast powder (common practice)', () => {
    expect(bestByWindow({ food, purpose: 'pieces', packageKey: 'screw-jar' }).months.high).toBeGreaterThan(9)
  })
  it('refuses a pantry in an oven, and an unknown package', () => {
    expect(() => bestByWindow({ food, purpose: 'powder', packageKey: 'screw-jar', storageC: 80 })).toThrow('storageC')
    expect(() => bestByWindow({ food, purpose: 'powder', packageKey: 'sock' as never })).toThrow('packageKey')
  })
})

describe('an axis for finishes', () => {
  it('runs from now to the last of them with a little room, and is never too short', () => {
    const axis = finishAxis([{ to: MORNING + 10 * HOUR }, { to: Infinity }], MORNING, 2)
    const { left, width } = axis.place({ from: MORNING + 5 * HOUR, to: MORNING + 10 * HOUR })
    expect(left).toBeCloseTo(5 / 10.5, 9)
    expect(left + width).toBeCloseTo(10 / 10.5, 9)
    expect(finishAxis([], MORNING, 6).place({ from: MORNING, to: MORNING + 3 * HOUR }).width).toBeCloseTo(3 / 6.3, 9)
  })
  it('draws what is past at its beginning, as a bar that can be seen', () => {
    const axis = finishAxis([{ to: MORNING - HOUR }], MORNING, 2)
    expect(axis.place({ from: MORNING - 3 * HOUR, to: MORNING - HOUR })).toEqual({ left: 0, width: 0.02 })
  })
})

describe('a forecast is true before the knife', () => {
  const CABINET = { trays: 9, trayAreaM2: 0.1, watts: 600, kind: 'dehydrator' as const, lowC: 35, highC: 75 }
  const of = (key: string, cardKey: string, weightG: number, machine: Parameters<typeof forecastBasket>[0]['machine'] = CABINET) => {
    const food = findFood(key)!
    return forecastBasket({
      food,
      card: cardOf(food, cardKey),
      purpose: 'powder',
      weightG,
      machine,
      jarMl: 250,
      startAt: MORNING,
      household: HOUSEHOLD,
    })
  }
  it('what is roasted loses a quarter of its water weight on the way to the tray (common practice), and its solids nothing', () => {
    const roasted = of('butternut', 'roasted', 6000)
    const cut = of('butternut', 'shreds', 6000)
    expect(roasted.preparedG.p50 / cut.preparedG.p50).toBeGreaterThan(0.65)
    expect(roasted.preparedG.p50 / cut.preparedG.p50).toBeLessThan(0.85)
    expect(Math.abs(roasted.dryG.p50 / cut.dryG.p50 - 1)).toBeLessThan(0.08)
  })
  it('a thin purée is thickened to that of a tin, a thick one is left', () => {
    const food = findFood('pumpkin')!
    const sheet = of('pumpkin', 'sheet', 6000)
    // Nine tenths water at most: what is dry in it over what is spread.
    expect(sheet.dryG.p50 / sheet.preparedG.p50).toBeGreaterThan(1 - food.rawMoisture.value.mean)
    expect(sheet.preparedG.p50).toBeLessThan(of('pumpkin', 'shreds', 6000).preparedG.p50)
  })
  it('milk for a freeze dryer is counted by depth: 5.85 kg are four trays, one load, about 40 hours (common practice)', () => {
    const milk = of('milk-whole', 'liquid', 5850, { trays: 4, trayAreaM2: 0.1, watts: 1000, kind: 'freeze-dryer' })
    expect(milk.trays.p50).toBe(4)
    expect(milk.loads.p50).toBe(1)
    expect(milk.hoursPerLoad.p50).toBeGreaterThan(34)
    expect(milk.hoursPerLoad.p50).toBeLessThan(46)
    // Half of it is half as deep, and takes much less than the whole.
    const half = of('milk-whole', 'liquid', 2900, { trays: 4, trayAreaM2: 0.1, watts: 1000, kind: 'freeze-dryer' })
    expect(half.loads.p90).toBe(1)
    expect(half.hoursPerLoad.p50).toBeLessThan(milk.hoursPerLoad.p50 + 1)
  })
  it('counts the places that are free: what finds none waits for the others', () => {
    const alone = of('tomato', 'slices-6', 2500)
    const free = MORNING + 10 * HOUR
    const one = of('tomato', 'slices-6', 2500, { ...CABINET, free: 1, freeAt: free })
    const none = of('tomato', 'slices-6', 2500, { ...CABINET, free: 0, freeAt: free })
    expect(alone.loads.p50).toBe(1)
    expect(alone).toMatchObject({ free: 9, places: 9, freeAt: undefined })
    expect(one.loads.p50).toBe(2)
    expect(one).toMatchObject({ free: 1, places: 9, freeAt: free })
    expect(none.loads.p50).toBe(1)
    // Both wait for the rack: they end as much later as it is free.
    // On an empty machine a second load begins when the first is out, and so on.
    const twice = of('tomato', 'slices-6', 9000, CABINET)
    const [start, { p50: loads }] = [alone.endsAt.p50 - alone.hoursPerLoad.p50 * HOUR, twice.loads]
    expect(loads).toBeGreaterThanOrEqual(2)
    expect((twice.endsAt.p50 - start) / HOUR / twice.hoursPerLoad.p50).toBeGreaterThan(1.7)
    for (const later of [one, none]) expect((later.endsAt.p50 - alone.endsAt.p50) / HOUR).toBeCloseTo(10, 0)
    // Places that are free enough are enough.
    expect(of('tomato', 'slices-6', 400, { ...CABINET, free: 2, freeAt: free }).endsAt.p50).toBeLessThan(free + 8 * HOUR)
  })
})
