import type { EntryBody } from '#core/log'
import { foldBatch } from '#core/batch'
import { batchInsight, summarise, trialDifferences, worthOf, type FinishedBatch, type TrialSide } from '#core/insight'
import { BEETROOT, logOf } from '../../support/logbook'
import { findFood } from '../../support/foods'

const grind = (more: Partial<Extract<EntryBody, { kind: 'grind' }>> = {}): EntryBody => ({
  kind: 'grind',
  dryInG: 224,
  powderOutG: 210,
  ...more,
})
const whole = (grinding: EntryBody) =>
  logOf(
    [0, { ...BEETROOT, price: 3 }],
    [0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }],
    [1, { kind: 'load', runId: 'r', machineId: 'm', positions: [1, 2, 3], totalG: 1700 }],
    [1, { kind: 'heat', runId: 'r', setC: 57 }],
    [3, { kind: 'weigh', totalG: 1050 }],
    [5, { kind: 'weigh', totalG: 640 }],
    [8, { kind: 'weigh', totalG: 330 }],
    [11, { kind: 'weigh', totalG: 245 }],
    [14, { kind: 'weigh', totalG: 225 }],
    [14.2, { kind: 'unload', weightG: 224 }],
    [190, grinding],
    [191, { kind: 'pack', jarId: 'j', netG: 210, packageKey: 'screw-jar', place: 'P' }],
  )
const insight = (grinding: EntryBody) => {
  const log = whole(grinding)
  return batchInsight(foldBatch(log, findFood)!, log)
}

describe('what a batch taught', () => {
  it('counts its heat by machine, its price and its hands', () => {
    const found = insight(grind())
    expect(found.heat).toEqual([{ machineId: 'm', hours: expect.closeTo(13.2, 1), fullPowerH: expect.closeTo(0.65 * 13.2, 1) }])
    expect(found.price).toBe(3)
    expect(found.handsMinutes).toBeGreaterThan(30)
    expect(found.handsMinutes).toBeLessThan(120)
  })
  it('lays losses to their causes, and leaves the rest untold; a seed counts as gone in', () => {
    expect(insight(grind({ lost: { dustG: 3, filmG: 5 } })).lost).toEqual({ dustG: 3, filmG: 5, rejectsG: 0, cleaningG: 0, unknownG: 6 })
    expect(insight(grind({ powderOutG: 230, seed: { jarId: 'x', weightG: 20 } })).lost!.unknownG).toBe(14)
  })
  it('tries its own window: what was said halfway beside what came', () => {
    const { window } = insight(grind())
    expect(window!.low).toBeLessThan(window!.high)
    expect(window!.actual).toBeGreaterThan(9)
    expect(window!.actual).toBeLessThan(15)
  })
})

describe('the sum over batches', () => {
  const batch = (rawG: number, productG: number, more: Partial<FinishedBatch> = {}): FinishedBatch => ({
    rawG,
    loadedG: 0.8 * rawG,
    dryG: productG / 0.95,
    productG,
    kWh: 3,
    ...more,
  })
  const sum = summarise([
    batch(1000, 100),
    batch(2000, 240),
    batch(3000, 330, {
      insight: {
        heat: [],
        handsMinutes: 60,
        price: 6,
        lost: { dustG: 2, filmG: 3, rejectsG: 4, cleaningG: 0, unknownG: 1 },
        window: { low: 8, middle: 10, high: 12, actual: 11 },
      },
    }),
  ])
  it('has the middle of each step, and the range from three batches on', () => {
    expect(sum.steps.whole).toMatchObject({ batches: 3, middle: expect.closeTo(0.11, 6) })
    expect(sum.steps.prep).toMatchObject({ middle: expect.closeTo(0.8, 9), spread: expect.anything() })
    expect(summarise([batch(1000, 100)]).steps.whole!.spread).toBeUndefined()
    expect(summarise([batch(1000, 100, { dryG: undefined })]).steps.grinding).toBeUndefined()
  })
  it('adds up losses, power and price, and counts windows that held', () => {
    expect(sum).toMatchObject({
      lost: { dustG: 2, filmG: 3, rejectsG: 4, unknownG: 1 },
      kWh: 9,
      price: 6,
      priced: 1,
      windows: { runs: 1, held: 1, medianError: expect.closeTo(1 / 11, 9) },
    })
  })
  it('says whether it was worth it, by arithmetic that can be followed', () => {
    // 0.67 kg for 6 of baskets, 9 kWh at 0.3 and an hour of hands at 10.
    const worth = worthOf(sum, { kWh: 0.3, hour: 10, shopPerKg: 40 })!
    expect(worth.ownPerKg).toBeCloseTo((6 + 2.7 + 10) / 0.67, 6)
    expect(worth.saved).toBeCloseTo(40 * 0.67 - 18.7, 6)
    expect(worthOf(sum, { kWh: 0.3, hour: 0 })!.saved).toBeUndefined()
    expect(worthOf(summarise([]), { kWh: 0.3, hour: 0 })).toBeUndefined()
  })
})

describe('two batches tried beside each other', () => {
  const side = (number: number, more: Partial<TrialSide> = {}): TrialSide => ({
    number,
    method: { machine: 'Cabinet', cut: '3 mm slices', setC: 57, thicknessMm: 3, purpose: 'powder', rested: true },
    rawG: 2000,
    loadedG: 1700,
    dryG: 200,
    productG: 190,
    hoursToDry: { p10: 9.5, p50: 10, p90: 10.5 },
    handsMinutes: 60,
    ...more,
  })
  const said = (a: TrialSide, b: TrialSide) => Object.fromEntries(trialDifferences(a, b).map(item => [item.what, item]))
  it('differ in one thing, in several, or in none, and the words say which', () => {
    expect(said(side(1), side(2)).method!.words).toMatch(/done alike/)
    expect(said(side(1), side(2, { method: { ...side(1).method, thicknessMm: 6 } })).method).toMatchObject({
      clear: true,
      words: 'They differ in the thickness alone.',
    })
    expect(said(side(1), side(2, { method: { ...side(1).method, machine: 'Stack', setC: 65 } })).method).toMatchObject({
      clear: false,
      words: expect.stringContaining('machine, heat at once'),
    })
  })
  it('hours differ only beyond the doubt of both', () => {
    expect(said(side(1), side(2, { hoursToDry: { p10: 10, p50: 11, p90: 12 } })).hours).toMatchObject({ clear: false })
    expect(said(side(1), side(2, { hoursToDry: { p10: 12, p50: 13, p90: 14 } })).hours).toMatchObject({
      clear: true,
      words: 'Batch 2 took 3.0 hours more to dry than batch 1: 13.0 against 10.0.',
    })
  })
  it('yield, hands, colour and taste are said with their figures', () => {
    const all = said(side(1, { colour: 4, taste: 3 }), side(2, { productG: 160, colour: 4, taste: 5 }))
    expect(all.yield!.words).toBe('Batch 1 gave more of the basket as product: 9.5 % against 8.0.')
    expect(all.hands!.words).toMatch(/^Batch 1 asked less/)
    expect(all.colour!.words).toBe('Colour came out alike, 4 of 5.')
    expect(all.taste!.words).toBe('Taste was better in batch 2: 5 of 5 against 3.')
  })
  it('what was not noted is not said', () => {
    const all = said(side(1, { productG: undefined, hoursToDry: undefined }), side(2))
    expect(Object.keys(all)).toEqual(['method'])
  })
})
