import * as fc from 'fast-check'
import { InputError } from '#core/errors'
import { balancePrep, dryBasis, overallYields, shrunkRatio, solidsOf, targetWeight, wetBasis, type PrepStep } from '#core/mass'

const fraction = fc.double({ min: 0.01, max: 0.98, noNaN: true })

describe('mass balance', () => {
  it('wet and dry basis turn each other round', () => {
    fc.assert(fc.property(fraction, m => expect(wetBasis(dryBasis(m))).toBeCloseTo(m, 12)))
    expect(dryBasis(0.5)).toBe(1)
    for (const bad of [-0.1, 1, NaN]) expect(() => dryBasis(bad)).toThrow(InputError)
    expect(() => wetBasis(-1)).toThrow(InputError)
  })
  it('solids stay whatever the moisture', () => {
    fc.assert(
      fc.property(fraction, fraction, fc.double({ min: 1, max: 1e5, noNaN: true }), (from, to, grams) => {
        expect(solidsOf(targetWeight(solidsOf(grams, from), to), to)).toBeCloseTo(solidsOf(grams, from), 6)
      }),
    )
  })
  // Whole milk has 88.1 % water (USDA, from memory): 244 g hold about 30 g of powder at 3.5 %.
  it('a cup of milk is about 30 g of powder', () => {
    expect(targetWeight(solidsOf(244, 0.881), 0.035)).toBeCloseTo(30.1, 1)
  })
})

describe('prep ledger', () => {
  const raw = { rawWeightG: 1000, rawMoisture: { mean: 0.9, sd: 0 } }

  it('waste is of the food’s make-up, water is only water, added is what it is', () => {
    const steps: PrepStep[] = [
      { kind: 'waste', name: 'trim', weightG: 200 },
      { kind: 'water', name: 'roast', weightG: 300 },
      { kind: 'added', name: 'season', saltG: 10, waterG: 5 },
    ]
    const balance = balancePrep({ ...raw, steps })
    expect(balance.weightG.p50).toBeCloseTo(515, 6)
    expect(balance.solidsG.p50).toBeCloseTo(800 * 0.1 + 10, 6)
    expect(balance.prepYield.p50).toBeCloseTo(0.515, 6)
  })
  it('carries the doubt of the raw moisture: tomato’s solids are ± 18 %', () => {
    const { solids } = balancePrep({ rawWeightG: 1000, rawMoisture: { mean: 0.945, sd: 0.01 }, steps: [] })
    expect(solids.mean).toBeCloseTo(0.055, 2)
    expect(solids.sd / solids.mean).toBeGreaterThan(0.15)
    expect(solids.sd / solids.mean).toBeLessThan(0.21)
  })
  it('fills an unweighed trim with the usual loss, wider', () => {
    const known = balancePrep({ ...raw, steps: [{ kind: 'waste', name: 'trim', weightG: 150 }] })
    const open = balancePrep({ ...raw, steps: [{ kind: 'waste', name: 'trim', usualShare: { mean: 0.15, sd: 0.05 } }] })
    expect(open.weightG.p90 - open.weightG.p10).toBeGreaterThan(80)
    expect(known.weightG.p90 - known.weightG.p10).toBeLessThan(1e-6)
  })
  it('lets the loaded weight settle what was not weighed', () => {
    const open: PrepStep[] = [
      { kind: 'waste', name: 'trim', weightG: 100 },
      { kind: 'water', name: 'roast', usualShare: { mean: 0.3, sd: 0.1 } },
    ]
    const balance = balancePrep({ ...raw, steps: open, loadedWeightG: 600 })
    expect(balance.weightG.p50).toBe(600)
    // 300 g of water must have gone, and with it no solids.
    expect(balance.solidsG.p50).toBeCloseTo(90, 1)
  })
  it('mass is kept: solids never grow, whatever leaves', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('waste' as const, 'water' as const), fc.double({ min: 0.5, max: 150, noNaN: true })), {
          maxLength: 4,
        }),
        list => {
          const balance = balancePrep({ ...raw, steps: list.map(([kind, weightG], i) => ({ kind, name: `step ${i}`, weightG })) })
          const waste = list.filter(([kind]) => kind === 'waste').length
          expect(balance.solidsG.p90).toBeLessThanOrEqual(100 + 1e-6)
          if (waste === 0) expect(balance.solidsG.p50).toBeCloseTo(100, 6)
          expect(balance.weightG.p50).toBeCloseTo(1000 - list.reduce((sum, [, grams]) => sum + grams, 0), 6)
        },
      ),
    )
  })
  it.each<[string, PrepStep[], number | undefined, RegExp]>([
    ['more off than is there', [{ kind: 'waste', name: 'trim', weightG: 1200 }], undefined, /“trim” takes off 1200 g, but only 1000 g/],
    ['more water than there is', [{ kind: 'water', name: 'roast', weightG: 950 }], undefined, /“roast”.*only about 900 g/],
    ['less than nothing added', [{ kind: 'added', name: 'season', saltG: -1 }], undefined, /“season” adds less than nothing/],
    ['more loaded than left', [{ kind: 'waste', name: 'trim', weightG: 200 }], 900, /more than the 800 g/],
  ])('refuses %s and names the step', (_, steps, loadedWeightG, words) => {
    expect(() => balancePrep({ ...raw, steps, loadedWeightG })).toThrow(words)
  })
})

describe('yields', () => {
  it('starts at the reference and moves to the user’s own', () => {
    const reference = { median: 8, sdLog: 0.15 }
    expect(shrunkRatio([], reference).median).toBeCloseTo(8, 9)
    const one = shrunkRatio([12], reference).median
    const many = shrunkRatio(
      Array.from({ length: 40 }, () => 12),
      reference,
    )
    expect(one).toBeGreaterThan(8)
    expect(one).toBeLessThan(9.5)
    expect(many.median).toBeGreaterThan(11.5)
    expect(many.sdLog).toBeLessThan(shrunkRatio([12], reference).sdLog)
    expect(() => shrunkRatio([0], reference)).toThrow('history.0')
    expect(() => shrunkRatio([], { median: 0, sdLog: 1 })).toThrow('reference.median')
  })
  it('leaves out what was not weighed', () => {
    expect(overallYields({ rawG: 1000, loadedG: 800, dryG: 100 })).toEqual({
      prep: 0.8,
      dryingRatio: 8,
      powderRecovery: undefined,
      overall: undefined,
    })
  })
})
