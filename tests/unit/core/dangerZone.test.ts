import { assess, checkEntry, coolInside, dangerZoneOf, foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import { agendaOf, nightChoices } from '#core/planning'
import { stopsAtLoading } from '#core/safety'
import { FOODS, findFood } from '../../support/foods'
import { HOUR, HOUSEHOLD, logOf, MORNING } from '../../support/logbook'

const RUN = '018f0000-0000-7000-8000-000000000001'
const intake = (foodKey: string, more: object = {}): EntryBody => ({
  kind: 'intake',
  foodKey,
  source: 'Kitchen',
  weightG: 1000,
  purpose: 'powder',
  cardKey: findFood(foodKey)!.cards[0]!.key,
  ...more,
})
const load = (more: object = {}): EntryBody => ({ kind: 'load', runId: RUN, machineId: 'cabinet', positions: [1], totalG: 900, ...more })
const heat = (setC: number | null): EntryBody => ({ kind: 'heat', runId: RUN, setC })
const MACHINE = { name: 'Cabinet', kind: 'dehydrator' as const, trays: 6, lowC: 10, highC: 90, taken: [] }
const cook: EntryBody = { kind: 'prep', step: 'cook', effect: 'none', coreC: 80 }
const weigh = (totalG: number): EntryBody => ({ kind: 'weigh', totalG })
type Item = [hours: number, body: EntryBody]
const stateOf = (...items: Item[]) => foldBatch(logOf(...items), findFood)!
const zone = (hours: number, ...items: Item[]) => dangerZoneOf(stateOf(...items), MORNING + hours * HOUR)

describe('the danger clock (USDA: two hours in all between 40 and 140 °F, one above 90 °F)', () => {
  it('runs at the counter, stands still in the cold, and says until when', () => {
    const found = zone(1, [0, intake('rice-cooked')])!
    expect(found).toMatchObject({ counting: true, over: false })
    expect(found.hours).toBeCloseTo(1, 6)
    expect(found.until).toBe(MORNING + 2 * HOUR)
    // Nobody wrote where it stood: that is asked, not taken for the counter.
    const unsaid = zone(5, [0, intake('milk-whole')])!
    expect(unsaid).toMatchObject({ over: false, counting: true, until: undefined })
    expect(unsaid.unsaidH).toBeCloseTo(5, 6)
    expect(zone(5, [0, intake('milk-whole')], [0, { kind: 'hold', place: 'counter' }])).toMatchObject({ over: true, unsaidH: 0 })
    const cold: Item[] = [
      [0, intake('rice-cooked')],
      [0.5, { kind: 'hold', place: 'refrigerator' }],
    ]
    expect(zone(9, ...cold)).toMatchObject({ counting: false, over: false })
    expect(zone(9, ...cold)!.hours).toBeCloseTo(0.5, 6)
    expect(zone(11, ...cold, [10, { kind: 'hold', place: null }])!.hours).toBeCloseTo(1.5, 6)
    // A hot day: each hour counts twice.
    expect(zone(1, [0, intake('rice-cooked')], [0, { kind: 'hold', place: 'counter', roomC: 35 }])).toMatchObject({ over: true })
  })
  it('knows what was frozen as cold: by its own step, or since it went in frozen solid', () => {
    const freeze: EntryBody = { kind: 'prep', step: 'freeze', effect: 'none' }
    for (const food of ['milk-whole', 'shrimp-cooked']) {
      const frozen = zone(25, [0, intake(food)], [0.3, freeze])!
      expect(frozen).toMatchObject({ counting: false, over: false })
      expect(frozen.hours).toBeCloseTo(0.3, 6)
    }
    // Taken out for another step, nobody wrote where it stood: that is asked again.
    const out = zone(30, [0, intake('milk-whole')], [0.3, freeze], [26, { kind: 'prep', step: 'spread', effect: 'none' }])!
    expect(out).toMatchObject({ counting: true, over: false })
    expect(out.unsaidH).toBeCloseTo(0.3 + 4, 6)
    // Nothing was written of the freezer, but it was frozen solid.
    const solid = (frozen?: number[]) =>
      zone(
        25,
        [0, intake('milk-whole')],
        [0.2, { kind: 'hold', place: 'refrigerator' }],
        [8, { kind: 'hold', place: null }],
        [24, load({ frozen, way: 'freeze-dryer' })],
      )
    const unsaid = zone(25, [0, intake('milk-whole')], [24, load({ frozen: [1], way: 'freeze-dryer' })])!
    expect(unsaid.unsaidH).toBe(0)
    expect(zone(25, [0, intake('milk-whole')], [24, load({ way: 'freeze-dryer' })])!.unsaidH).toBeCloseTo(24, 6)
    // What somebody wrote stands: sixteen hours on the counter are sixteen hours.
    expect(solid([1])!.over).toBe(true)
  })
  it('is not set back by cooking again: the hours before count, those on the fire do not', () => {
    const counter: EntryBody = { kind: 'hold', place: 'counter' }
    const boiled: EntryBody = { kind: 'prep', step: 'cook', effect: 'none', coreC: 80 }
    expect(zone(6.1, [0, intake('rice-cooked')], [0, counter], [6, boiled])).toMatchObject({ over: true })
    expect(zone(10.1, [0, intake('chicken-cooked')], [0, counter], [10, boiled])!.hours).toBeGreaterThan(10)
    // A stew that cooked for two hours stood on the fire for two hours.
    const stewed = zone(2.6, [0, intake('chicken-cooked')], [0, counter], [2.5, { ...boiled, minutes: 120 } as EntryBody])!
    expect(stewed.hours).toBeCloseTo(0.6, 6)
    // Out of the refrigerator to be cooked: where it stood from then on nobody wrote.
    const out = zone(12, [0, intake('chicken-cooked')], [0, { kind: 'hold', place: 'refrigerator' }], [8, boiled])!
    expect(out).toMatchObject({ over: false })
    expect(out.unsaidH).toBeCloseTo(4, 6)
    // Dry beans wait in their sack; from the pot on the clock runs.
    const beans = intake('black-beans-cooked', { weighed: 'uncooked' })
    expect(zone(30, [0, beans])).toBeUndefined()
    expect(zone(31, [0, beans], [30, { kind: 'prep', step: 'cook', effect: 'none' }])!.hours).toBeCloseTo(1, 6)
  })
  it('what was said before a machine says nothing of where it stands after', () => {
    const after = zone(
      40,
      [0, intake('rice-cooked')],
      [0, { kind: 'hold', place: 'counter' }],
      [0.5, load({ totalG: 990 })],
      [0.5, heat(65)],
      [8, { kind: 'unload' }],
    )!
    expect(after.over).toBe(false)
  })
  it('over it only discarding is left, or a word on where it stood', () => {
    const log = logOf([0, intake('rice-cooked')], [0, { kind: 'hold', place: 'counter' }])
    const at = MORNING + 8 * HOUR
    const come =
      (body: EntryBody, more: object = {}) =>
      () =>
        checkEntry(log, { id: 'new', seq: 999, at, recordedAt: at, body, ...more }, { now: at, find: findFood, machine: MACHINE })
    expect(come(load())).toThrow(/toxins.*Discard it.*stood in the cold, log that/i)
    expect(come({ kind: 'prep', step: 'cook', effect: 'none', coreC: 90 })).toThrow(/Discard it/)
    expect(come({ kind: 'split', to: RUN, weightG: 100 })).toThrow(/Discard it/)
    expect(come({ kind: 'finish' })).not.toThrow()
    expect(come({ kind: 'note', text: 'It smelt well.' })).not.toThrow()
    expect(come({ kind: 'hold', place: 'refrigerator' })).not.toThrow()
    // It stood in the refrigerator: what was written was wrong, and is corrected.
    const mended = [
      ...log,
      { ...log[1]!, id: 'mend', seq: 3, replaces: log[1]!.id, body: { kind: 'hold', place: 'refrigerator' } as EntryBody },
    ]
    expect(() =>
      checkEntry(mended, { id: 'new', seq: 999, at, recordedAt: at, body: load() }, { now: at, find: findFood, machine: MACHINE }),
    ).not.toThrow()
  })
  it('runs in heat that is too low, and not at 60 °C and above', () => {
    const run = (setC: number): Item[] => [
      [0, intake('chicken-cooked')],
      [0.1, cook],
      [0.2, load()],
      [0.2, heat(setC)],
    ]
    expect(zone(2, ...run(57))).toMatchObject({ over: true, counting: true, setC: 57 })
    expect(zone(3, ...run(68))!.hours).toBeCloseTo(0.2, 6)
    expect(zone(3, ...run(68))).toMatchObject({ counting: false, over: false })
    // Switched off for the night it runs on, at the room's warmth.
    expect(zone(6, ...run(68), [3, heat(null)])).toMatchObject({ over: true, counting: true })
  })
  it('the food itself is cooler than its air while it is moist, and a thick load too long', () => {
    const run = (thin: boolean): Item[] => [
      [0, intake('rice-cooked')],
      [0.2, load({ totalG: 990 })],
      [0.2, heat(63)],
      ...(thin
        ? ([
            [1.2, weigh(600)],
            [2.2, weigh(400)],
            [3.2, weigh(345)],
          ] as Item[])
        : ([
            [4, weigh(800)],
            [8, weigh(640)],
          ] as Item[])),
    ]
    const inside = (hours: number, thin: boolean) => coolInside(stateOf(...run(thin)), MORNING + hours * HOUR)!
    // Wet bulb of a kitchen's air heated to 63 °C (ASHRAE Fundamentals, by psychrolib): some 27 °C.
    expect(inside(3.2, true).wetC).toBeGreaterThan(24)
    expect(inside(3.2, true).wetC).toBeLessThan(31)
    expect(inside(3.2, true).hours).toBeLessThanOrEqual(inside(3.2, true).limitH)
    expect(inside(8, false).hours).toBeGreaterThan(inside(8, false).limitH)
    expect(coolInside(stateOf([0, intake('carrot')], [0.2, load()], [0.2, heat(57)]), MORNING + 3 * HOUR)).toBeUndefined()
  })
  it('a probe that falls while the run should be hot is an alarm; one that comes up slowly is none', () => {
    const probe = (chamberC: number): EntryBody => ({ kind: 'air', runId: RUN, chamberC })
    const asked = (...probes: Item[]) => {
      const state = stateOf([0, intake('carrot')], [0.2, load()], [0.2, heat(57)], ...probes)
      return agendaOf(state, assess(state, MORNING + 5 * HOUR), HOUSEHOLD).filter(todo => /still hot/.test(todo.title))
    }
    expect(asked([1, probe(54)], [2, probe(31)])).toMatchObject([{ kind: 'danger', from: MORNING + 2 * HOUR }])
    expect(asked([0.5, probe(35)], [1.5, probe(42)])).toEqual([])
    expect(asked([1, probe(54)], [2, probe(31)], [2.5, probe(55)])).toEqual([])
    // Switched off it is meant to be cold.
    expect(asked([1, probe(54)], [1.5, heat(null)], [2, probe(31)])).toEqual([])
    expect(asked([4, probe(30)])).toHaveLength(1)
  })
  it('ends once it is dry enough that nothing grows', () => {
    const dried: Item[] = [
      [0, intake('rice-cooked')],
      [0.2, load({ totalG: 990 })],
      [0.2, heat(65)],
      [3, weigh(420)],
      [5, weigh(335)],
      [7, weigh(330)],
    ]
    const wet = zone(7, ...dried.slice(0, 4), [4, heat(null)])!
    const dry = zone(30, ...dried, [7.1, heat(null)])!
    expect(wet.counting).toBe(true)
    expect(dry).toMatchObject({ counting: false, over: false })
  })
  it('is of what is perishable: low-acid food once it is cooked, and no fruit', () => {
    expect(zone(9, [0, intake('carrot')])).toBeUndefined()
    const puree: EntryBody = { kind: 'prep', step: 'puree', effect: 'none' }
    expect(zone(9, [0, intake('pumpkin')], [5, puree], [5, { kind: 'hold', place: 'counter' }])).toMatchObject({ over: true })
    expect(zone(9, [0, intake('apple')], [5, { kind: 'prep', step: 'puree', effect: 'none' }])).toBeUndefined()
    // A vegetable that was cooked is dried at the card's 57 °C, and not at 45.
    const beetroot = (setC: number): Item[] => [
      [0, intake('beetroot')],
      [0.1, { kind: 'prep', step: 'cook', effect: 'none' }],
      [0.2, load()],
      [0.2, heat(setC)],
    ]
    expect(zone(6, ...beetroot(57))).toMatchObject({ over: false, counting: false })
    expect(zone(6, ...beetroot(45))).toMatchObject({ over: true, counting: true })
    expect(zone(9, [0, intake('tomato')], [5, { kind: 'prep', step: 'cook', effect: 'none' }])).toBeUndefined()
  })
  it('the cards of perishable food are hot enough', () => {
    const cool = FOODS.filter(food => food.traits.includes('perishable')).flatMap(food =>
      food.cards.flatMap(card =>
        card.ways
          .filter(way => ['dehydrator', 'oven', 'smoker'].includes(way.way) && way.temperatureC < 60)
          .map(way => `${food.key} ${way.way}`),
      ),
    )
    expect(cool).toEqual([])
  })
  it('pulses, rice and all animal food are not dried in sun and room air', () => {
    for (const food of FOODS.filter(item => item.traits.includes('perishable')))
      for (const way of ['sun', 'air'] as const) expect(stopsAtLoading(food, food.cards[0]!, way, [])).toHaveLength(1)
    expect(stopsAtLoading(findFood('apple')!, findFood('apple')!.cards[0]!, 'sun', [])).toEqual([])
  })
})

describe('a night that must not be', () => {
  const room = { celsius: 20, humidity: 0.55 }
  const choices = (foodKey: string, setC: number, way?: string) => {
    const cooked: Item[] = foodKey === 'carrot' ? [] : [[0.1, cook]]
    const state = stateOf([0, intake(foodKey)], ...cooked, [0.2, load({ way })], [0.2, heat(setC)], [2, weigh(700)])
    const from = MORNING + 3 * HOUR
    return nightChoices(state, assess(state, from)!, room, { from, to: from + 9 * HOUR }, 600)!.map(({ key, barred }) => [key, barred])
  }
  it('cooked chicken is held neither warm nor without heat, and left on only where that is hot enough', () => {
    expect(choices('chicken-cooked', 68)).toEqual([
      ['leave', undefined],
      ['hold', 'perishable'],
      ['off', 'perishable'],
    ])
    expect(choices('chicken-cooked', 55)[0]).toEqual(['leave', 'perishable'])
    expect(choices('carrot', 57).every(([, barred]) => barred === undefined)).toBe(true)
  })
  it('an oven is not left on while people sleep', () => {
    expect(choices('carrot', 75, 'oven')).toEqual([
      ['leave', 'attended'],
      ['hold', 'attended'],
      ['off', undefined],
    ])
  })

  it('stands on Now and in the verdict, warns first, and lets the batch be ended', () => {
    const run = (setC: number): Item[] => [
      [0, intake('chicken-cooked')],
      [0.1, cook],
      [0.2, load()],
      [0.2, heat(setC)],
    ]
    const todos = (...items: Item[]) => {
      const state = stateOf(...items)
      return agendaOf(state, assess(state, MORNING + 3 * HOUR), HOUSEHOLD)
    }
    // Too cool from the start: first a word with its hour, then nothing but throwing it away.
    expect(todos(...run(57))[0]).toMatchObject({ kind: 'danger', title: 'More heat for the chicken' })
    expect(todos(...run(57))[0]!.to! - MORNING).toBeLessThan(2 * HOUR)
    expect(todos(...run(57), [2.5, weigh(700)])).toEqual([expect.objectContaining({ kind: 'discard' })])
    expect(todos(...run(68), [2.5, weigh(700)]).some(todo => todo.kind === 'danger' || todo.kind === 'discard')).toBe(false)
    expect(assess(stateOf(...run(57)), MORNING + 3 * HOUR)!.verdict).toMatchObject({ discard: true, headline: 'Too long in the warm' })
    expect(assess(stateOf(...run(68)), MORNING + 3 * HOUR)!.verdict.discard).toBeUndefined()
    const end = (setC: number) => () => {
      const at = MORNING + 3 * HOUR
      const entry = { id: 'new', seq: 999, at, recordedAt: at, body: { kind: 'finish' } as const }
      checkEntry(logOf(...run(setC)), entry, { now: at, find: findFood })
    }
    expect(end(57)).not.toThrow()
    expect(end(68)).toThrow(/nothing to finish/i)
  })
})
