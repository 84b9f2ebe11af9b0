import fc from 'fast-check'
import { assess, foldBatch, lessonsOf, unusualOf } from '#core/batch'
import type { EntryBody } from '#core/log'
import { waterOf } from '#core/water'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

/** How much water a lot holds, at any instant from the knife to the jar. */
const RUN = '0199b000-0000-7000-8000-000000000001'
type Item = [hours: number, body: EntryBody]
const stateAt = (...items: Item[]) => foldBatch(logOf(...items), findFood)!
const at = (hours: number) => MORNING + hours * HOUR
const loaded: Item[] = [
  [0, BEETROOT],
  [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2], totalG: 1700 }],
  [1, { kind: 'heat', runId: RUN, setC: 57 }],
]
const weighed: Item[] = [
  [4, { kind: 'weigh', totalG: 620 }],
  [7, { kind: 'weigh', totalG: 285 }],
  [10, { kind: 'weigh', totalG: 226 }],
]
const off: Item = [10, { kind: 'heat', runId: RUN, setC: null }]
const damp: Item = [1, { kind: 'air', runId: RUN, roomC: 22, roomHumidity: 0.75 }]
const air = (hours: number, shown: number): Item => [
  hours,
  { kind: 'jarAir', shown, celsius: 20, closedHours: 12, calibration: { offset: 0, gain: 1, sd: 0.02 } },
]

describe('before loading', () => {
  it('is what the food brings, by its preparing', () => {
    const { moisture, known, since } = waterOf(stateAt(...loaded, ...weighed), at(0.5))
    expect({ known, since }).toEqual({ known: 'preparing', since: at(0) })
    expect(moisture.p50).toBeCloseTo(findFood('beetroot')!.rawMoisture.value.mean, 1)
  })
})

describe('preparing', () => {
  const basket: Item = [0, BEETROOT]
  const prepared = (...steps: Partial<Extract<EntryBody, { kind: 'prep' }>>[]) =>
    stateAt(basket, ...steps.map((step, i): Item => [0.1 * (i + 1), { kind: 'prep', effect: 'none', step: 'cut', ...step } as EntryBody]))
  const toGoOn = (...steps: Parameters<typeof prepared>) => prepared(...steps).balance.weightG.p50
  const trimmed = BEETROOT.weightG * (1 - findFood('beetroot')!.trimShare.value.mean)
  it('fills in the usual trim where none was written down, and specks cut off later do not take its place', () => {
    expect(toGoOn({})).toBeCloseTo(trimmed, -1)
    const specks = toGoOn({ step: 'cut' }, { step: 'trim', effect: 'waste', weightG: 30 })
    expect(specks).toBeLessThan(toGoOn({}))
    expect(specks).toBeGreaterThan(toGoOn({}) - 60)
  })
  it('takes a first trim as all that came off, however little, and a large one later too', () => {
    expect(toGoOn({ step: 'trim', effect: 'waste', weightG: 30 })).toBeCloseTo(1970, 0)
    expect(toGoOn({ step: 'wash' }, { step: 'trim', effect: 'waste', weightG: 30 })).toBeCloseTo(1970, 0)
    expect(toGoOn({ step: 'cut' }, { step: 'trim', effect: 'waste', weightG: 400 })).toBeCloseTo(1600, 0)
  })
  it('takes nothing off where skin and seed were blended in, or nothing came off', () => {
    expect(toGoOn({ step: 'puree', school: 'whole' })).toBeCloseTo(2000, 0)
    expect(toGoOn({ step: 'trim' })).toBeCloseTo(2000, 0)
    expect(toGoOn({ step: 'puree', school: 'scooped' })).toBeLessThan(1950)
  })
  it('from jars straight to the grinder is as dry as it was kept', () => {
    const again = stateAt([0, { ...BEETROOT, fromJars: [{ jarId: RUN, weightG: 2000 }], fromForm: 'pieces' } as EntryBody])
    expect(waterOf(again)).toMatchObject({ known: 'jars', moisture: { p50: again.food.target.powder } })
  })
  it('goes by the card of the cut that was chosen at the board', () => {
    const cards = findFood('beetroot')!.cards
    const other = cards.find(card => card.key !== BEETROOT.cardKey)!
    expect(prepared({ cutName: other.name }).card).toBe(other)
    expect(prepared({ cutName: other.name }).cutName).toBe(other.name)
    expect(prepared({ cutName: 'By hand, as it comes' }).card.key).toBe(BEETROOT.cardKey)
  })
})

describe('in its machine', () => {
  it('falls hour by hour, by hours between weights and by weight at them', () => {
    const state = stateAt(...loaded, ...weighed)
    const hours = [1, 2, 3, 4, 5, 7, 9, 10, 12]
    const waters = hours.map(hour => waterOf(state, at(hour)))
    expect(waters.map(water => water.known)).toEqual(['hours', 'hours', 'hours', 'weight', 'hours', 'weight', 'hours', 'weight', 'hours'])
    for (let i = 1; i < waters.length; i++) expect(waters[i]!.moisture.p50).toBeLessThan(waters[i - 1]!.moisture.p50)
    expect(waters.at(-1)!.since).toBe(at(10))
  })
  it('is known better afterwards: a later weight tells of an earlier hour', () => {
    const then = waterOf(stateAt(...loaded, ...weighed.slice(0, 1)), at(4)).moisture
    const since = waterOf(stateAt(...loaded, ...weighed), at(4)).moisture
    expect(since.p90 - since.p10).toBeLessThan(then.p90 - then.p10)
  })
  it('is less sure the longer nobody weighed', () => {
    const state = stateAt(...loaded, ...weighed.slice(0, 2))
    const width = (hours: number) => {
      const { p10, p90 } = waterOf(state, at(hours)).moisture
      return p90 / p10
    }
    expect(width(9)).toBeGreaterThan(width(7))
    expect(width(11)).toBeGreaterThan(width(9))
  })
})

describe('a rack that is off, and that nobody weighs', () => {
  const night = stateAt(...loaded, damp, ...weighed, off)
  it('takes water back in a damp room, by the hour, toward what the room allows', () => {
    const figures = [10, 12, 16, 24, 48, 480].map(hours => waterOf(night, at(hours)).moisture.p50)
    for (let i = 1; i < figures.length; i++) expect(figures[i]!).toBeGreaterThan(figures[i - 1]!)
    expect(figures.at(-1)!).toBeLessThan(0.3)
    expect(waterOf(night, at(16)).known).toBe('hours')
  })
  it('and the page says so: grams, hours that it will need, and that it is an estimate', () => {
    const assessed = assess(night, at(20))!
    expect(assessed.estimate.moistureNow.p50).toBeCloseTo(waterOf(night, at(20)).moisture.p50, 6)
    expect(assessed.verdict.witnesses[0]).toMatchObject({ name: 'weight', headline: expect.stringMatching(/an estimate$/) as string })
    expect(assessed.verdict.witnesses[0]!.detail).toContain('Not weighed in the 10 hours since')
    const [found] = unusualOf(night, assessed, at(20))
    expect(found).toMatchObject({ kind: 'tookBack', weighed: false, atC: 57 })
    const { grams, hoursMore } = found as { grams: number; hoursMore: number }
    expect(grams).toBeGreaterThan(5)
    expect(hoursMore).toBeGreaterThan(0.2)
  })
  it('a wet load dries on a little instead', () => {
    const wet = stateAt(...loaded, damp, weighed[0]!, [4, { kind: 'heat', runId: RUN, setC: null }])
    expect(waterOf(wet, at(14)).moisture.p50).toBeLessThan(waterOf(wet, at(4)).moisture.p50)
  })
  it('is what it was once the heat is logged on again and the same hours lie between', () => {
    const on = stateAt(...loaded, damp, ...weighed, off, [20, { kind: 'heat', runId: RUN, setC: 57 }])
    expect(waterOf(on, at(20)).moisture.p50).toBeCloseTo(waterOf(night, at(20)).moisture.p50, 2)
  })
  it('weighed cold twice, the first weight is not told wrong by what was taken up after it', () => {
    const cold: Item[] = [
      [14, { kind: 'weigh', totalG: 231 }],
      [22, { kind: 'weigh', totalG: 238 }],
    ]
    const log = logOf(...loaded, damp, ...weighed, off, ...cold)
    const state = foldBatch(log, findFood)!
    const [first, second] = [14, 22].map(hour => waterOf(state, at(hour)).moisture.p50)
    // Seven grams of water in some 212 g of solids.
    expect(second! - first!).toBeGreaterThan(0.015)
    expect(second! - first!).toBeLessThan(0.045)
    expect(waterOf(state, at(10)).moisture.p50).toBeLessThan(first!)
    expect(lessonsOf(log, findFood).every(lesson => lesson.revised === undefined)).toBe(true)
    // From the last cold weight on it drifts again.
    expect(waterOf(state, at(40)).moisture.p50).toBeGreaterThan(second!)
    expect(waterOf(state, at(22)).known).toBe('weight')
  })
  it('under vacuum nothing changes', () => {
    const frozen = stateAt(
      [0, BEETROOT],
      [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700, way: 'freeze-dryer' }],
      [1, { kind: 'heat', runId: RUN, setC: 50 }],
      [20, { kind: 'weigh', totalG: 260 }],
      [20, { kind: 'heat', runId: RUN, setC: null }],
    )
    expect(assess(frozen, at(40))!.estimate.moistureNow).toEqual(assess(frozen, at(20))!.estimate.moistureNow)
  })
})

describe('taken out', () => {
  const out = (hours: number, weightG?: number): Item => [hours, { kind: 'unload', weightG }]
  it('by its weight, where it was weighed', () => {
    expect(waterOf(stateAt(...loaded, ...weighed, out(12, 222))).known).toBe('weight')
  })
  it('unweighed it is an estimate, and no certain one', () => {
    const state = stateAt(...loaded, ...weighed, out(14))
    expect(waterOf(state)).toMatchObject({ known: 'hours', since: at(10) })
    const [weight] = assess(state, at(14))!.verdict.witnesses
    expect(weight!.headline).toMatch(/^About .* an estimate$/)
    expect(weight!.says).not.toBe('dry')
    // And no ratio is learned from the weight of a wetter hour.
    expect(state.dryWeighed).toBe(false)
    expect(stateAt(...loaded, ...weighed, out(14, 220)).dryWeighed).toBe(true)
    expect(stateAt(...loaded, ...weighed, out(10.2)).dryWeighed).toBe(true)
  })
  it('what stood off before it came out took its water along', () => {
    const wasOff = (...items: Item[]) => waterOf(stateAt(...loaded, damp, ...weighed, ...items)).moisture.p50
    expect(wasOff(off, out(22))).toBeGreaterThan(wasOff(off, out(10.1)) + 0.005)
  })
  it('never weighed it goes by its hours with all their doubt, or by a full test of the hand', () => {
    const unweighed = waterOf(stateAt(...loaded, out(30)))
    expect(unweighed.known).toBe('hours')
    expect(unweighed.moisture.p90).toBeGreaterThan(1.5 * unweighed.moisture.p10)
    expect(waterOf(stateAt(...loaded, out(2)))).toMatchObject({ known: 'hours' })
  })
  it('by the air of its jar, until powder was dried on', () => {
    const rest: Item = [12.1, { kind: 'rest' }]
    const jarred: Item[] = [...loaded, ...weighed, out(12, 222), rest, air(40, 0.3), [200, { kind: 'restEnd' }]]
    const byAir = waterOf(stateAt(...jarred))
    expect(byAir).toMatchObject({ known: 'jar air', since: at(40) })
    const ground: Item[] = [...jarred, [201, { kind: 'grind', dryInG: 230, powderOutG: 226 }]]
    const dried = waterOf(stateAt(...ground, [202, { kind: 'powderDry', how: 'low-oven', minutes: 40, beforeG: 226, afterG: 222 }]))
    // Four grams of water of 226 g, by hand.
    expect(dried.moisture.p50).toBeCloseTo(1 - ((1 - byAir.moisture.p50) * 226) / 222, 9)
    expect(dried).toMatchObject({ known: 'weight', since: at(202) })
  })
})

it('is a share with its doubt about it at every instant, whatever was logged (property)', () => {
  const item = fc.oneof(
    fc.integer({ min: 150, max: 1700 }).map((totalG): EntryBody => ({ kind: 'weigh', totalG })),
    fc.constantFrom<EntryBody>({ kind: 'heat', runId: RUN, setC: null }, { kind: 'heat', runId: RUN, setC: 57 }),
  )
  const logs = fc.array(fc.tuple(fc.double({ min: 1.1, max: 40, noNaN: true }), item), { maxLength: 8 })
  fc.assert(
    fc.property(logs, fc.double({ min: 0, max: 80, noNaN: true }), (items, hours) => {
      const state = stateAt(...loaded, ...items.sort((a, b) => a[0] - b[0]))
      const { moisture, since } = waterOf(state, at(hours))
      const { p10, p50, p90 } = moisture
      expect([p10, p50, p90].every(value => value >= 0 && value < 1)).toBe(true)
      expect(p10).toBeLessThanOrEqual(p50)
      expect(p50).toBeLessThanOrEqual(p90)
      expect(since).toBeLessThanOrEqual(at(hours))
      expect(assess(state, at(hours))!.verdict.headline).not.toBe('')
    }),
    { numRuns: 150 },
  )
})
