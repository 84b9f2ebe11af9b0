import fc from 'fast-check'
import { assess, checkEntry, foldBatch, holdLimit, toPackG } from '#core/batch'
import { estimateOfRun } from '#core/water'
import type { Entry, EntryBody } from '#core/log'
import type { InputError } from '#core/errors'
import { cardOf, wayOf } from '#core/foods'
import { pacePerHour } from '#core/kinetics'
import type { WayKey } from '#core/ways'
import { agendaOf, alternatives, compareBoughtIn, wakingStart } from '#core/planning'
import { BOOK, findFood } from '../../support/foods'
import { DAY, HOUR, logOf, MORNING } from '../../support/logbook'

const RUN = '018f0000-0000-7000-8000-000000000001'
const RUN_2 = '018f0000-0000-7000-8000-000000000002'
const HOUSEHOLD = { timeZone: 'UTC', sleepFrom: 22 * 60, sleepTo: 6 * 60 }
const intake = (foodKey: string, cardKey: string, weightG = 2000, purpose: 'pieces' | 'flakes' | 'powder' = 'powder'): EntryBody => ({
  kind: 'intake',
  foodKey,
  cardKey,
  purpose,
  source: 'Own garden',
  weightG,
})
const load = (way: WayKey, totalG: number, more: Partial<Extract<EntryBody, { kind: 'load' }>> = {}): EntryBody => ({
  kind: 'load',
  runId: RUN,
  machineId: RUN,
  positions: [1, 2],
  totalG,
  way,
  ...more,
})
const heat = (setC: number | null, runId = RUN): EntryBody => ({ kind: 'heat', runId, setC })
const fold = (...items: Parameters<typeof logOf>) => foldBatch(logOf(...items), findFood)!
const todos = (state: ReturnType<typeof fold>, hours: number) =>
  agendaOf(state, state.stage === 'drying' || state.stage === 'resting' ? assess(state, MORNING + hours * HOUR) : undefined, HOUSEHOLD)
/** Hours of the morning's log that an instant is. */
const hoursOf = (at: number) => (at - MORNING) / HOUR

describe('the way of a run', () => {
  it('gives its heat and hours to the estimate', () => {
    const chili = findFood('hot-chili')!
    const card = cardOf(chili, 'pieces-25')
    const oven = fold([0, intake('hot-chili', 'pieces-25')], [1, load('oven', 1700)], [1, heat(75)])
    expect(oven.run!.way).toMatchObject({ way: 'oven', temperatureC: 75 })
    // 2 to 4 h in an oven (common practice) against 9 to 13 in a dehydrator.
    const hours = assess(oven, MORNING + HOUR)!.estimate.hoursToTarget.p50
    expect(hours).toBeGreaterThan(1.8)
    expect(hours).toBeLessThan(4.5)
    expect(wayOf(card, 'dehydrator').usualHours.value).toEqual({ low: 9, high: 13 })
  })
  it('older loads without a way are a dehydrator’s', () => {
    expect(
      fold([0, intake('carrot', 'slices-3')], [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }]).run!.way.way,
    ).toBe('dehydrator')
  })
  it('is reckoned where the reference has none for the kind', () => {
    const way = wayOf(cardOf(findFood('potato')!, 'slices-3'), 'sun')
    expect(way).toMatchObject({ way: 'sun', temperatureC: 35 })
    expect(way.usualHours.value.low).toBeCloseTo(7 * 2.2, 6)
  })
  it('sun dries chilies in two to four days of about eight hours (common practice: 2–3 hot dry days)', () => {
    const { low, high } = wayOf(cardOf(findFood('hot-chili')!, 'pieces-25'), 'sun').usualHours.value
    expect(low / 8).toBeGreaterThan(1.5)
    expect(high / 8).toBeLessThan(4)
  })
  it('seeded halves take four to five days in a warm cupboard (common practice), within a day', () => {
    const { low, high } = wayOf(cardOf(findFood('hot-chili')!, 'halves'), 'air').usualHours.value
    expect(low / 24).toBeLessThan(4)
    expect(low / 24).toBeGreaterThan(2)
    expect(high / 24).toBeGreaterThan(4.5)
    expect(high / 24).toBeLessThan(6)
  })
})

describe('what hangs in the air', () => {
  const mint = (...more: [number, EntryBody][]) =>
    estimateOfRun(fold([0, intake('mint', 'bunches', 600)], [1, load('air', 350)], [1, heat(22)], ...more))!.hoursToTarget
  it('does not get to powder in usual air, measured or not, and does in desert air (common practice: a last crisp in a machine)', () => {
    expect(mint().p50).toBe(Infinity)
    expect(mint([2, { kind: 'air', runId: RUN, roomC: 22, roomHumidity: 0.55 }]).p50).toBe(Infinity)
    expect(mint([2, { kind: 'air', runId: RUN, roomC: 30, roomHumidity: 0.12 }]).p50).toBeLessThan(300)
  })
})

describe('sun', () => {
  /** Hours at 34 °C that make one at the card’s 35 (Arrhenius, 30 kJ/mol). */
  const rate = 1 / pacePerHour(34, 35)
  const days = (...more: [number, EntryBody][]) =>
    fold(
      [0, intake('apricot', 'halves', 2000, 'pieces')],
      [1, load('sun', 1800)],
      [1, heat(34)],
      [1.1, { kind: 'outlook', runId: RUN, duskMinute: 18 * 60 }],
      ...more,
    )
  it('counts the hours outdoors only, and nothing is dried at night', () => {
    const state = days([10, heat(null)], [25, heat(34)], [27, { kind: 'weigh', totalG: 1200 }])
    expect(state.run!.clock.hoursAt(MORNING + 27 * HOUR)).toBeCloseTo(11, 6)
    expect(state.run!.clock.equivalentHoursAt(MORNING + 27 * HOUR)).toBeLessThanOrEqual(
      state.run!.clock.equivalentHoursAt(MORNING + 10 * HOUR) + 2.01,
    )
  })
  it('tells its finish by days of sun, tomorrow’s too while it stands indoors', () => {
    // Twenty hours of sun to come are two days and a half, not a day and a night.
    const at = (hours: number, ...more: [number, EntryBody][]) => hoursOf(days(...more).run!.clock.instantAt(hours))
    expect(at(6)).toBeCloseTo(1 + 6 * rate, 6)
    expect(at(20) - 1).toBeGreaterThan(2 * 24)
    expect(at(20) - 1).toBeLessThan(3 * 24)
    const indoors = at(20, [10, heat(null)])
    expect(Number.isFinite(indoors)).toBe(true)
    expect(indoors).toBeGreaterThan(24)
    // Later hours are never earlier instants.
    const instants = Array.from({ length: 60 }, (_, i) => at(i / 2, [10, heat(null)]))
    for (let i = 1; i < instants.length; i++) expect(instants[i]!).toBeGreaterThanOrEqual(instants[i - 1]!)
  })
  it('counts no night that nobody wrote down: eight hours a day until it is said to be in', () => {
    const { clock } = days().run!
    const counted = [9, 12, 24, 25, 29, 49, 60].map(hour => clock.hoursAt(MORNING + hour * HOUR))
    expect(counted.map(hours => Math.round(hours * 10) / 10)).toEqual([8, 8, 8, 8, 12, 16, 24])
    const closed = days([72, heat(null)]).run!.clock
    expect(closed.hoursAt(MORNING + 80 * HOUR)).toBeCloseTo(24, 6)
    // A long day that was ended by hand counts whole.
    expect(days([13, heat(null)]).run!.clock.hoursAt(MORNING + 20 * HOUR)).toBeCloseTo(12, 6)
  })
  it('ends its days at the dusk that was entered, whoever brings it in, and that of every day', () => {
    // Nine hours from going out.
    const dusk = (duskH: number): [number, EntryBody] => [
      1.2,
      { kind: 'outlook', runId: RUN, duskMinute: 18 * 60, duskAt: MORNING + duskH * HOUR },
    ]
    const hoursAt = (hour: number, ...more: [number, EntryBody][]) =>
      Math.round(days(...more).run!.clock.hoursAt(MORNING + hour * HOUR) * 10) / 10
    for (const duskH of [10, 10 + 24, 10 - 48])
      expect([9, 10, 12, 26, 40].map(hour => hoursAt(hour, dusk(duskH)))).toEqual([8, 9, 9, 10, 18])
    expect(hoursAt(20, dusk(10), [13, heat(null)])).toBe(9)
    expect(hoursAt(20, dusk(10), [7, heat(null)])).toBe(6)
    // Put out after dusk: nobody knows its days then, and they are usual ones.
    expect(hoursAt(20, dusk(0.5))).toBe(8)
  })
  it('its clock and its instants turn each other round, in and out, forgotten or not, with a dusk or without (property)', () => {
    const turns = fc.array(fc.double({ min: 0.5, max: 60, noNaN: true }), { maxLength: 5 })
    const dusks = fc.option(fc.double({ min: -40, max: 40, noNaN: true }), { nil: undefined })
    fc.assert(
      fc.property(turns, fc.double({ min: 0.1, max: 80, noNaN: true }), dusks, (gaps, hours, dusk) => {
        let at = 1
        const said: [number, EntryBody][] =
          dusk === undefined ? [] : [[1.2, { kind: 'outlook', runId: RUN, duskMinute: 1080, duskAt: MORNING + dusk * HOUR }]]
        const { clock } = days(...said, ...gaps.map((gap, i): [number, EntryBody] => [(at += gap), heat(i % 2 === 0 ? null : 34)])).run!
        const instant = clock.instantAt(hours)
        const now = MORNING + (at + 1) * HOUR
        // What is to come is told as if it went out again tomorrow; what was is what the log says.
        if (instant <= now) expect(clock.equivalentHoursAt(instant)).toBeCloseTo(hours, 6)
        else expect(clock.equivalentHoursAt(now)).toBeLessThanOrEqual(hours + 1e-6)
      }),
      { numRuns: 200 },
    )
  })
  it('asks to bring it in at dusk, an hour before rain, and out again when the dew is off', () => {
    const dusk = todos(days(), 2).find(todo => todo.kind === 'bringIn')!
    expect(hoursOf(dusk.from)).toBe(10)
    const rain = todos(days([1.2, { kind: 'outlook', runId: RUN, duskMinute: 18 * 60, rainAt: MORNING + 7 * HOUR }]), 2).find(
      todo => todo.kind === 'bringIn',
    )!
    expect(hoursOf(rain.from)).toBe(6)
    expect(rain.title).toMatch(/before the rain/)
    const out = todos(days([10, heat(null)]), 11)
    expect(out.map(todo => todo.kind)).toEqual(['takeOutside'])
    expect(hoursOf(out[0]!.from)).toBe(25)
  })
  it('rain after dusk changes nothing', () => {
    const todo = todos(days([1.2, { kind: 'outlook', runId: RUN, duskMinute: 18 * 60, rainAt: MORNING + 14 * HOUR }]), 2).find(
      item => item.kind === 'bringIn',
    )!
    expect(hoursOf(todo.from)).toBe(10)
  })
})

describe('smoke, then a machine', () => {
  const smoked = (...more: [number, EntryBody][]) =>
    fold([0, intake('jalapeno', 'halves')], [1, load('smoker', 1800)], [1, heat(85)], ...more)
  it('asks to turn hourly and to end the smoke at three to five hours', () => {
    const list = todos(smoked(), 1.5)
    expect(list.map(todo => todo.kind)).toEqual(['turn', 'endSmoke'])
    expect(hoursOf(list[0]!.from)).toBe(2)
    expect([hoursOf(list[1]!.from), hoursOf(list[1]!.to!)]).toEqual([4, 6])
  })
  it('goes on in a dehydrator with the solids of the first loading and a share of its hours', () => {
    const state = smoked(
      [5, { kind: 'weigh', totalG: 1100 }],
      [5.1, { kind: 'unload', weightG: 1100 }],
      [5.5, load('dehydrator', 1100, { runId: RUN_2 })],
      [5.5, heat(57, RUN_2)],
    )
    expect(state.stage).toBe('drying')
    expect(state.earlierRuns.map(run => run.way.way)).toEqual(['smoker'])
    const fresh = fold([0, intake('jalapeno', 'halves')], [1, load('dehydrator', 1800)], [1, heat(57)])
    const second = assess(state, MORNING + 6 * HOUR)!.estimate
    expect(second.hoursToTarget.p50).toBeLessThan(assess(fresh, MORNING + 2 * HOUR)!.estimate.hoursToTarget.p50)
    expect(second.solidsG.p50).toBeCloseTo(assess(fresh, MORNING + 2 * HOUR)!.estimate.solidsG.p50, -1)
  })
})

describe('a freeze dryer’s agenda', () => {
  const trays = (...grams: number[]): EntryBody => ({ kind: 'weigh', trays: grams.map((weightG, i) => ({ position: i + 1, weightG })) })
  const state = (...more: [number, EntryBody][]) =>
    fold(
      [0, intake('raspberry', 'whole', 1700)],
      [
        1,
        load('freeze-dryer', 1600, {
          trays: [
            { position: 1, weightG: 800 },
            { position: 2, weightG: 800 },
          ],
          frozen: [1, 2],
        }),
      ],
      [1, heat(50)],
      ...more,
    )
  it('weighs when the cycle should be through, then two hours on, until no tray loses', () => {
    expect(todos(state(), 2).map(todo => todo.kind)).toEqual(['round'])
    const second = todos(state([28, trays(125, 128)]), 28)
    expect(second.map(todo => todo.kind)).toEqual(['round'])
    expect(hoursOf(second[0]!.from)).toBeCloseTo(30, 3)
    expect(todos(state([28, trays(125, 128)], [30.1, trays(125, 127.9)]), 31)[0]).toMatchObject({ kind: 'takeOut' })
  })
})

describe('leaf the quick way: dry, grind, dry, grind', () => {
  const path: [number, EntryBody, string][] = [
    [0, intake('parsley', 'stalked', 800), 'intake'],
    [1, load('dehydrator', 500), 'drying'],
    [1, heat(41), 'drying'],
    [9, { kind: 'unload', weightG: 90 }, 'resting'],
    [9.2, { kind: 'grind', dryInG: 90, powderOutG: 88 }, 'grinding'],
    [9.4, load('dehydrator', 88, { runId: RUN_2, positions: [1] }), 'drying'],
    [9.4, heat(41, RUN_2), 'drying'],
    [10.5, { kind: 'unload', weightG: 84 }, 'grinding'],
    [10.6, { kind: 'grind', dryInG: 84, powderOutG: 81 }, 'grinding'],
    [10.7, { kind: 'pack', jarId: 'j1', netG: 81, packageKey: 'screw-jar', place: 'P' }, 'shelf'],
  ]
  it('knows its stage at every step, and that powder is in the trays', () => {
    path.forEach((_, i) =>
      expect([i, fold(...path.slice(0, i + 1).map(([hours, body]) => [hours, body] as [number, EntryBody])).stage]).toEqual([
        i,
        path[i]![2],
      ]),
    )
    const after = fold(...path.slice(0, 8).map(([hours, body]) => [hours, body] as [number, EntryBody]))
    expect(after.run!.powder).toBe(true)
    expect(toPackG(after)).toBe(84)
    expect(toPackG(fold(...path.slice(0, 9).map(([hours, body]) => [hours, body] as [number, EntryBody])))).toBe(81)
  })
  it('powder dried in the oven is as much lighter as it lost', () => {
    const state = fold(...path.slice(0, 5).map(([hours, body]) => [hours, body] as [number, EntryBody]), [
      9.5,
      { kind: 'powderDry', how: 'oven-off', minutes: 15, beforeG: 88, afterG: 85 },
    ])
    expect(toPackG(state)).toBe(85)
  })
})

describe('parts, holds and weights', () => {
  it('a part that leaves takes its solids along', () => {
    const whole = fold([0, intake('tomato', 'slices-6', 4000)], [1, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }])
    const parted = fold(
      [0, intake('tomato', 'slices-6', 4000)],
      [1, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }],
      [1.2, { kind: 'split', weightG: 1200, to: RUN }],
    )
    expect(parted.balance.weightG.p50).toBeCloseTo(whole.balance.weightG.p50 - 1200, 6)
    expect(parted.balance.solidsG.p50 / parted.balance.weightG.p50).toBeCloseTo(whole.balance.solidsG.p50 / whole.balance.weightG.p50, 6)
  })
  it('a trim at which nothing came off is not filled in', () => {
    expect(fold([0, intake('carrot', 'slices-3', 1000)], [1, { kind: 'prep', step: 'trim', effect: 'none' }]).balance.weightG.p50).toBe(
      1000,
    )
    expect(
      fold([0, intake('carrot', 'slices-3', 1000)], [1, { kind: 'prep', step: 'wash', effect: 'none' }]).balance.weightG.p50,
    ).toBeLessThan(950)
  })
  it('waits are as long as its state lets it: two hours cut, one in the heat, two days cold (USDA)', () => {
    const leek = findFood('leek')!
    expect(holdLimit('counter', 'cut', leek)).toBe(2 * HOUR)
    expect(holdLimit('counter', 'cut', leek, { roomC: 34 })).toBe(HOUR)
    expect(holdLimit('refrigerator', 'cut', leek)).toBe(2 * DAY)
    expect(holdLimit('refrigerator', 'raw', leek)).toBe(10 * DAY)
    expect(holdLimit('freezer', 'dry', leek)).toBeGreaterThan(60 * DAY)
  })
  it('a hold stands instead of the other todos, until it is taken up again', () => {
    const log: Parameters<typeof logOf> = [
      [0, intake('pumpkin', 'roasted')],
      [1, { kind: 'prep', step: 'roast', effect: 'water', weightG: 300 }],
      [2, { kind: 'hold', place: 'refrigerator' }],
    ]
    const held = fold(...log)
    expect(held.hold).toEqual({ place: 'refrigerator', since: MORNING + 2 * HOUR, until: MORNING + 2 * HOUR + 2 * DAY })
    expect(todos(held, 3)).toMatchObject([{ kind: 'held', to: MORNING + 2 * HOUR + 2 * DAY }])
    expect(fold(...log, [20, { kind: 'hold', place: null }]).hold).toBeUndefined()
    expect(fold(...log, [20, { kind: 'prep', step: 'puree', effect: 'none' }]).hold).toBeUndefined()
  })
  it('doubtful food goes from the machine to the refrigerator and back', () => {
    const state = fold(
      [0, intake('carrot', 'slices-3')],
      [1, load('dehydrator', 1700)],
      [1, heat(57)],
      [9, { kind: 'unload', weightG: 300 }],
      [9.2, { kind: 'hold', place: 'refrigerator' }],
    )
    expect(state.hold?.until).toBe(MORNING + 9.2 * HOUR + 7 * DAY)
  })
  it('what roasting took is guessed where it was not weighed, with more doubt', () => {
    const weighed = fold(
      [0, intake('pumpkin', 'roasted')],
      [1, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 500 }],
      [2, { kind: 'prep', step: 'roast', effect: 'water', weightG: 375 }],
    )
    const guessed = fold(
      [0, intake('pumpkin', 'roasted')],
      [1, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 500 }],
      [2, { kind: 'prep', step: 'roast', effect: 'water' }],
    )
    const spread = (state: typeof weighed) => state.balance.weightG.p90 - state.balance.weightG.p10
    expect(guessed.balance.weightG.p50).toBeGreaterThan(900)
    expect(guessed.balance.weightG.p50).toBeLessThan(1300)
    expect(spread(guessed)).toBeGreaterThan(spread(weighed) + 100)
  })
  it('refuses a part larger than what is there, and a hold in the machine', () => {
    const refused = (log: Entry[], body: EntryBody) => {
      try {
        checkEntry(log, { id: 'new', seq: 99, at: MORNING + 2 * HOUR, recordedAt: MORNING, body }, { now: MORNING + DAY, find: BOOK.find })
        return {}
      } catch (error) {
        return Object.fromEntries((error as InputError).problems.map(problem => [problem.field, problem.message]))
      }
    }
    expect(refused(logOf([0, intake('carrot', 'slices-3', 1000)]), { kind: 'split', weightG: 1500, to: RUN }).weightG).toMatch(/take less/)
    expect(
      refused(logOf([0, intake('carrot', 'slices-3')], [1, load('dehydrator', 1700)]), { kind: 'hold', place: 'freezer' }).kind,
    ).toMatch(/in a machine/)
  })
})

describe('ways of going about a basket', () => {
  const machines = [
    { id: 'm1', name: 'Cabinet', kind: 'dehydrator' as const, trays: 6, trayAreaM2: 0.12, watts: 600, lowC: 35, highC: 75 },
    { id: 'm2', name: 'Oven', kind: 'oven' as const, trays: 3, trayAreaM2: 0.16, watts: 2400, lowC: 50, highC: 250 },
    { id: 'm3', name: 'Smoker', kind: 'smoker' as const, trays: 3, trayAreaM2: 0.16, watts: 800, lowC: 40, highC: 110 },
    { id: 'm4', name: 'Racks', kind: 'sun' as const, trays: 6, trayAreaM2: 0.3, watts: 1, lowC: 20, highC: 40 },
  ]
  const ask = (foodKey: string, cardKey: string, weightG: number) =>
    alternatives({
      food: findFood(foodKey)!,
      purpose: 'powder',
      cardKey,
      machineId: 'm1',
      weightG,
      machines,
      ownOf: () => ({}),
      hoursOf: (machineId, card) => ({
        ...wayOf(card, machines.find(machine => machine.id === machineId)!.kind).usualHours.value,
        runs: 0,
      }),
      jarMl: 250,
      startAt: MORNING,
      household: HOUSEHOLD,
    })
  it('lays thick beside thin, in every machine that suits, without the smoke that only begins', () => {
    const rows = ask('tomato', 'slices-6', 5000)
    expect(new Set(rows.map(row => row.machineId))).toEqual(new Set(['m1', 'm2', 'm4']))
    const thin = rows.find(row => row.machineId === 'm1' && row.cardKey === 'slices-6')!
    const thick = rows.find(row => row.machineId === 'm1' && row.cardKey === 'slices-12')!
    expect(thin.asked).toBe(true)
    expect(thick.loads.p50).toBeLessThan(thin.loads.p50)
    expect(thick.hoursPerLoad.p50).toBeGreaterThan(thin.hoursPerLoad.p50)
    expect(rows.map(row => row.endsAt.p50)).toEqual([...rows.map(row => row.endsAt.p50)].sort((a, b) => a - b))
  })
  it('sun takes days of eight hours, and asks nobody to be awake at its end', () => {
    const row = ask('tomato', 'slices-6', 5000).find(item => item.machineId === 'm4' && item.cardKey === 'slices-6')!
    expect(row.hoursPerLoad.p50).toBeGreaterThan(16)
    expect((row.endsAt.p50 - MORNING) / HOUR).toBeGreaterThan(row.loads.p50 * 2 * 24)
    expect(row.awake).toBe(1)
  })
  it('sun draws no power, vegetables are not laid out in it', () => {
    expect(ask('tomato', 'slices-6', 5000).find(row => row.machineId === 'm4')!.energyKWh.p90).toBe(0)
    expect(ask('carrot', 'slices-3', 5000).some(row => row.machineId === 'm4')).toBe(false)
  })
  it('starts so that it ends while people are awake, and starts awake', () => {
    // Ten hours from noon end at ten: asleep. From an evening start they end in the morning.
    const noon = MORNING + 4 * HOUR
    const { startAt, awake } = wakingStart({ p10: 9.5, p50: 10, p90: 10.5 }, noon, HOUSEHOLD)
    expect(awake).toBeGreaterThanOrEqual(0.8)
    const minute = (at: number) => new Date(at).getUTCHours() * 60 + new Date(at).getUTCMinutes()
    expect(minute(startAt)).toBeGreaterThanOrEqual(HOUSEHOLD.sleepTo)
    expect(minute(startAt)).toBeLessThan(HOUSEHOLD.sleepFrom)
    expect(minute(startAt + 10 * HOUR)).toBeGreaterThanOrEqual(HOUSEHOLD.sleepTo)
    expect(wakingStart({ p10: 4, p50: 5, p90: 6 }, noon, HOUSEHOLD)).toEqual({ startAt: noon, awake: 1 })
    // Beside an oven somebody is awake all the while: what takes longer than a waking day has no start at all.
    const oven = wakingStart({ p10: 9, p50: 10, p90: 11 }, noon, HOUSEHOLD, true)
    expect(new Date(oven.startAt).getUTCDate()).toBe(new Date(noon).getUTCDate() + 1)
    expect(oven.awake).toBeGreaterThanOrEqual(0.8)
    expect(wakingStart({ p10: 17, p50: 20, p90: 24 }, noon, HOUSEHOLD, true).awake).toBe(0)
  })
  it('tells how sure it is where nothing is', () => {
    expect(wakingStart({ p10: 8, p50: 20, p90: 50 }, MORNING, HOUSEHOLD).awake).toBeLessThan(0.9)
  })
})

describe('own peeling against bought in', () => {
  const garlic = findFood('garlic')!
  const ask = (more: Partial<Parameters<typeof compareBoughtIn>[0]>) =>
    compareBoughtIn({
      food: garlic,
      purpose: 'powder',
      ownPriceKg: 2,
      ownMinutesKg: 45,
      boughtPriceKg: 9,
      boughtMinutesKg: 2,
      hourWorth: 0,
      ...more,
    })
  it('own is cheaper while hands are free, bought where they are dear', () => {
    expect(ask({}).cheaper).toBe('own')
    expect(ask({ hourWorth: 30 }).cheaper).toBe('bought')
  })
  it('turns exactly at the worth it names', () => {
    const { evenAt } = ask({})
    expect(ask({ hourWorth: evenAt! - 0.01 }).cheaper).toBe('own')
    expect(ask({ hourWorth: evenAt! + 0.01 }).cheaper).toBe('bought')
  })
  it('100 g of garlic powder at 5 % needs 100·0.95/0.414 g peeled, by mass', () => {
    const { own, bought } = ask({})
    expect(bought.kilograms).toBeCloseTo((0.1 * 0.95) / 0.414, 6)
    expect(own.kilograms).toBeCloseTo(bought.kilograms / 0.85, 6)
    expect(own.minutes).toBeCloseTo(own.kilograms * 45, 6)
  })
  it('has no turning point where one costs less of both, and refuses what is negative by name', () => {
    expect(ask({ boughtPriceKg: 1 }).evenAt).toBeUndefined()
    expect(() => ask({ ownMinutesKg: -1 })).toThrow('ownMinutesKg')
  })
})
