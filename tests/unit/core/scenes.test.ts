import { assess, checkEntry, foldBatch } from '#core/batch'
import { waterOf } from '#core/water'
import { InputError } from '#core/errors'
import { estimateDrying } from '#core/kinetics'
import type { Entry, EntryBody } from '#core/log'
import { agendaOf } from '#core/planning'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

/** What happened where practice left the card, and what must be said of it. */
const RUN = '0199b000-0000-7000-8000-000000000001'
const JAR = '0199b000-0000-7000-8000-0000000000aa'
type Item = [hours: number, body: EntryBody]
const intake = (foodKey: string, weightG: number): EntryBody => ({
  ...(BEETROOT as Extract<EntryBody, { kind: 'intake' }>),
  foodKey,
  weightG,
})
const stateAt = (...items: Item[]) => foldBatch(logOf(...items), findFood)!
const judged = (hours: number, ...items: Item[]) => assess(stateAt(...items), MORNING + hours * HOUR)!
const PEOPLE = { timeZone: 'UTC', sleepFrom: 1350, sleepTo: 390 }
const todoAt = (hours: number, ...items: Item[]) => agendaOf(stateAt(...items), judged(hours, ...items), PEOPLE)[0]!
function refusals(log: Entry[], hours: number, body: EntryBody): string[] {
  const now = MORNING + 2000 * HOUR
  try {
    checkEntry(log, { id: 'new', seq: 1e9, at: MORNING + hours * HOUR, recordedAt: now, body }, { now, find: findFood })
    return []
  } catch (error) {
    if (error instanceof InputError) return error.problems.map(problem => problem.code)
    throw error
  }
}

describe('parsnips taken out wet and closed in a jar that nobody looks at', () => {
  const load: Item[] = [
    [0, intake('parsnip', 2000)],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2, 3], totalG: 1800 }],
    [0, { kind: 'heat', runId: RUN, setC: 57 }],
    [2, { kind: 'weigh', totalG: 1380 }],
    [4, { kind: 'weigh', totalG: 1090 }],
  ]
  const out: Item = [6, { kind: 'unload', weightG: 800 }]
  const rest: Item = [6.5, { kind: 'rest' }]
  const wetShare = 1 - (1800 * (1 - findFood('parsnip')!.rawMoisture.value.mean)) / 800
  it('the weight at taking out is a witness', () => {
    const { estimate, verdict } = judged(6.2, ...load, out)
    expect(Math.abs(estimate.moistureNow.p50 - wetShare)).toBeLessThan(0.05)
    expect(verdict.level).toBe('keep-drying')
  })
  it('ten days later it is not certified, and the day’s list says so', () => {
    const { verdict } = judged(250, ...load, out, rest)
    expect(verdict).toMatchObject({ level: 'keep-drying', headline: 'Dry it again' })
    expect(verdict.witnesses.find(witness => witness.name === 'rest')).toMatchObject({ says: 'nothing', headline: 'Not looked at yet' })
    expect(todoAt(250, ...load, out, rest).kind).toBe('redry')
  })
  it('a look that saw nothing does not outweigh the scale either', () => {
    const { verdict } = judged(250, ...load, out, rest, [200, { kind: 'look', saw: 'dry' }])
    expect(verdict.level).toBe('keep-drying')
    expect(verdict.disagreement).toMatch(/weights say/)
  })
  it('what is packed holds what the scale says, and no jar without air may be closed over it', () => {
    const ended: Item[] = [...load, out, rest, [250, { kind: 'restEnd' }], [250.5, { kind: 'grind', dryInG: 800, powderOutG: 780 }]]
    const water = waterOf(stateAt(...ended))
    expect(water.known).toBe('weight')
    expect(water.moisture.p50).toBeGreaterThan(0.4)
    const pack = (packageKey: 'vacuum-jar' | 'glass-jar'): EntryBody =>
      ({ kind: 'pack', jarId: JAR, netG: 200, packageKey, sizeMl: 500, place: 'Shelf' }) as EntryBody
    expect(refusals(logOf(...ended), 251, pack('vacuum-jar'))).toContain('stop-no-oxygen')
  })
})

describe('two reads of the same end, a weight apart', () => {
  const slow: Item[] = [
    [0, intake('carrot', 3700)],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2, 3], totalG: 3300 }],
    [0, { kind: 'heat', runId: RUN, setC: 57 }],
    [3, { kind: 'weigh', totalG: 1750 }],
    [6, { kind: 'weigh', totalG: 870 }],
    [8, { kind: 'weigh', totalG: 620 }],
    [10, { kind: 'weigh', totalG: 484 }],
  ]
  it('the dry weight that is told then and two hours later overlap: 8 in 10 means that they meet', () => {
    const then = judged(10, ...slow).estimate
    const later = judged(12, ...slow, [12, { kind: 'weigh', totalG: 472 }]).estimate
    expect(later.targetWeightG.p10).toBeLessThan(then.targetWeightG.p90)
    expect(then.targetWeightG.p10).toBeLessThan(later.targetWeightG.p90)
    // A load that weighed more than its dry weight was not dry before that weight.
    expect(then.probabilityDry < 0.1 ? later.hoursToTarget.p10 : 10).toBeGreaterThan(9)
  })
  it('a tray of chips that loses 4 g of 48 in two hours is neither constant nor “almost certain”', () => {
    const { verdict, estimate } = judged(
      10,
      [0, intake('apple', 420)],
      [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 330 }],
      [0, { kind: 'heat', runId: RUN, setC: 57 }],
      [4, { kind: 'weigh', totalG: 96 }],
      [8, { kind: 'weigh', totalG: 48 }],
      [10, { kind: 'weigh', totalG: 44 }],
    )
    expect(estimate.probabilityDry).toBeLessThan(0.95)
    expect(verdict.witnesses[0]!.detail).not.toMatch(/constant weight|Almost certain/)
  })
})

describe('a jar at rest', () => {
  const dry: Item[] = [
    [0, intake('beetroot', 1800)],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
    [0, { kind: 'heat', runId: RUN, setC: 57 }],
    [9, { kind: 'weigh', totalG: 232 }],
    [12, { kind: 'weigh', totalG: 219 }],
    [14, { kind: 'unload', weightG: 217 }],
    [14.2, { kind: 'rest' }],
  ]
  it('that nobody looked at is unknown, however long it stood', () => {
    for (const days of [1, 8, 60]) {
      const { verdict } = judged(15 + 24 * days, ...dry)
      expect(verdict.level).toBe('cool-and-check')
      expect(verdict.headline).toBe('Look at the jar')
    }
    expect(todoAt(15 + 24 * 9, ...dry)).toMatchObject({ kind: 'look' })
  })
  it('that was looked at may go on after its days', () => {
    const looks: Item[] = [1, 3, 5, 7].map(day => [14.2 + 24 * day, { kind: 'look', saw: 'dry' }])
    expect(judged(15 + 24 * 7.5, ...dry, ...looks).verdict.level).toBe('grind')
    expect(judged(15 + 24 * 3.5, ...dry, ...looks.slice(0, 2)).verdict.level).toBe('rest')
  })
  it('of two, one not looked at, is not done', () => {
    const two = dry.map(([hours, body]): Item =>
      body.kind === 'rest' ? [hours, { kind: 'rest', jars: [{ name: 'Left' }, { name: 'Right' }] }] : [hours, body],
    )
    const half = judged(15 + 24 * 8, ...two, [14.2 + 24 * 7, { kind: 'look', saw: 'dry', jar: 1 }])
    expect(half.verdict.headline).toBe('Look at the jar')
  })
  it('whose weight at the end is known tells of the solids', () => {
    const ended = judged(
      15 + 24 * 8,
      ...dry,
      [14.2 + 24 * 7, { kind: 'look', saw: 'dry' }],
      [14.2 + 24 * 8, { kind: 'restEnd', weightG: 260 }],
    )
    // Nine grams more than came out: it was not so dry, or took some up.
    expect(ended.estimate.moistureNow.p50).toBeGreaterThan(judged(15, ...dry).estimate.moistureNow.p50 + 0.008)
  })
})

describe('a load that runs at a third of the speed', () => {
  // First order at 3.4 times the card, as a damp cellar makes it.
  const SOLIDS = 0.12
  const weightAt = (hours: number) => 2000 * SOLIDS * (1.02 + (1 / SOLIDS - 1.02) * Math.exp(-hours / 8.4))
  const run = (...hours: number[]) =>
    estimateDrying({
      startWeightG: 2000,
      solids: { mean: SOLIDS, sd: 0.012 },
      targetMoisture: 0.06,
      usualHours: { low: 8, high: 13 },
      weighIns: hours.map(hour => ({ hours: hour, weightG: Math.round(weightAt(hour)) })),
    })
  it('is not dry while the scale says that it loses', () => {
    const estimate = run(6, 10, 14, 18, 21, 24)
    const truth = 1 - (2000 * SOLIDS) / weightAt(24)
    expect(truth).toBeGreaterThan(0.3)
    expect(estimate.moistureNow.p10).toBeLessThan(truth)
    expect(estimate.moistureNow.p90).toBeGreaterThan(truth)
    expect(estimate.probabilityDry).toBeLessThan(0.01)
    expect(estimate.flags).toEqual([])
    expect(estimate.pace.p50).toBeGreaterThan(2.5)
  })
  it('nor half way, weighed twice', () => expect(run(7, 14).probabilityDry).toBeLessThan(0.01))
})

it('a heat that was forgotten in the log is seen by what was lost', () => {
  const { estimate, verdict } = judged(
    13,
    [0, intake('garlic', 1800)],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
    [12, { kind: 'unload', weightG: 735 }],
  )
  expect(estimate.moistureNow.p50).toBeLessThan(0.15)
  expect(verdict.witnesses[0]!.headline).not.toBe('Not weighed yet')
})

it('while it dries, such a heat is on for the day’s list and the page alike', () => {
  const items: Item[] = [
    [0, intake('garlic', 1800)],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
  ]
  expect(stateAt(...items).run!.setC).toBeNull()
  const weighed: Item[] = [...items, [5, { kind: 'weigh', totalG: 1100 }]]
  expect(stateAt(...weighed).run!.setC).toBe(stateAt(...weighed).run!.way.temperatureC)
  expect(todoAt(5.1, ...weighed).kind).not.toBe('heat')
  // Off is off, where it was said; and until then it was on.
  const off = stateAt(...weighed, [5.2, { kind: 'heat', runId: RUN, setC: null }]).run!
  expect(off.setC).toBeNull()
  expect(off.clock.hoursAt(MORNING + 9 * HOUR)).toBeCloseTo(5.2, 6)
})

it('a load at the instant of the taking out is not lost', () => {
  const state = stateAt(
    [0, intake('beetroot', 1800)],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
    [0, { kind: 'heat', runId: RUN, setC: 57 }],
    [6, { kind: 'unload', weightG: 700 }],
    [6, { kind: 'load', runId: JAR, machineId: RUN, positions: [2], totalG: 700 }],
  )
  expect(state.stage).toBe('drying')
  expect(state.run).toMatchObject({ runId: JAR, unloadedAt: undefined })
  expect(state.earlierRuns[0]!.unloadedAt).toBe(MORNING + 6 * HOUR)
})
