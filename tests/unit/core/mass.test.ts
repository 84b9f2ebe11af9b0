import * as fc from 'fast-check'
import { InputError } from '#core/errors'
import {
  balancePrep,
  dryBasis,
  dryingGain,
  overallYields,
  solidsOf,
  targetWeight,
  wetBasis,
  type PrepLedger,
  type PrepStep,
} from '#core/mass'

/** What is refused: the field, its code and its words. */
function refusal(act: () => unknown): { field: string; code: string; message: string } {
  try {
    act()
  } catch (error) {
    if (error instanceof InputError) return error.problems[0]!
    throw error
  }
  throw new Error('not refused')
}

const fraction = fc.double({ min: 0.01, max: 0.98, noNaN: true })

describe('mass balance', () => {
  it('wet and dry basis turn each other round', () => {
    fc.assert(fc.property(fraction, m => expect(wetBasis(dryBasis(m))).toBeCloseTo(m, 12)))
    expect(dryBasis(0.5)).toBe(1)
    expect(wetBasis(0)).toBe(0)
    for (const bad of [-0.1, 1, NaN])
      expect(refusal(() => dryBasis(bad))).toEqual({
        field: 'moistureWetBasis',
        code: 'not-a-fraction',
        message: 'must be a fraction from 0 to below 1',
      })
    for (const bad of [-1, NaN])
      expect(refusal(() => wetBasis(bad))).toEqual({
        field: 'moistureDryBasis',
        code: 'negative',
        message: 'must not be negative',
      })
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

  const ledger = (more: Partial<PrepLedger>) => () => balancePrep({ ...raw, steps: [], ...more })
  it.each<[string, Partial<PrepLedger>, string, string]>([
    ['no weight', { rawWeightG: 0 }, 'rawWeightG', 'must be a weight above 0 g'],
    ['no water', { rawMoisture: { mean: 0, sd: 0.01 } }, 'rawMoisture.mean', 'must be a fraction between 0 and 1'],
    ['only water', { rawMoisture: { mean: 1, sd: 0.01 } }, 'rawMoisture.mean', 'must be a fraction between 0 and 1'],
    ['doubt below nothing', { rawMoisture: { mean: 0.9, sd: -0.01 } }, 'rawMoisture.sd', 'must not be negative'],
    ['nothing loaded', { loadedWeightG: 0 }, 'loadedWeightG', 'must be a weight above 0 g'],
    [
      'less than nothing off',
      {
        steps: [
          { kind: 'added', name: 'salt', saltG: 1 },
          { kind: 'waste', name: 'trim', weightG: -1 },
        ],
      },
      'steps.1.weightG',
      '“trim” takes off less than nothing: give what left',
    ],
    [
      'all of it off',
      { steps: [{ kind: 'waste', name: 'trim', weightG: 1000 }] },
      'steps.0.weightG',
      '“trim” takes off 1000 g, but only 1000 g is there: check this weight or the one before',
    ],
    [
      'all of the water off',
      { steps: [{ kind: 'water', name: 'roast', weightG: 900 }] },
      'steps.0.weightG',
      '“roast” takes off 900 g of water, but there is only about 900 g in the food: some of it was food',
    ],
    [
      'water that went before',
      {
        steps: [
          { kind: 'water', name: 'roast', weightG: 500 },
          { kind: 'water', name: 'simmer', weightG: 450 },
        ],
      },
      'steps.1.weightG',
      '“simmer” takes off 450 g of water, but there is only about 400 g in the food: some of it was food',
    ],
    [
      'water that went with the waste',
      {
        steps: [
          { kind: 'waste', name: 'trim', weightG: 500 },
          { kind: 'water', name: 'roast', weightG: 460 },
        ],
      },
      'steps.1.weightG',
      '“roast” takes off 460 g of water, but there is only about 450 g in the food: some of it was food',
    ],
    [
      'more than a scale’s doubt loaded',
      { steps: [{ kind: 'waste', name: 'trim', weightG: 200 }], loadedWeightG: 817 },
      'loadedWeightG',
      '817 g on the trays is more than the 800 g that the steps before leave: check the basket’s weight or what was taken off',
    ],
  ])('refuses %s, by its field', (_, more, field, message) => {
    expect(refusal(ledger(more))).toMatchObject({ field, code: 'out-of-range', message })
  })
  it.each(['solidsG', 'waterG', 'saltG', 'sugarG', 'oilG'] as const)('refuses %s below nothing', part => {
    expect(refusal(ledger({ steps: [{ kind: 'added', name: 'season', [part]: -1 }] }))).toEqual({
      field: `steps.0.${part}`,
      code: 'out-of-range',
      message: '“season” adds less than nothing: give what came in',
    })
  })
  it('takes what is just possible: water that was added may go again, a scale may be two in a hundred off', () => {
    expect(
      ledger({
        steps: [
          { kind: 'added', name: 'soak', waterG: 200 },
          { kind: 'water', name: 'simmer', weightG: 1050 },
        ],
      }),
    ).not.toThrow()
    expect(
      ledger({
        steps: [
          { kind: 'added', name: 'seed', solidsG: 50, saltG: 10, sugarG: 20, oilG: 20 },
          { kind: 'waste', name: 'trim', weightG: 1090 },
        ],
      }),
    ).not.toThrow()
    expect(ledger({ steps: [{ kind: 'waste', name: 'trim', weightG: 200 }], loadedWeightG: 815 })).not.toThrow()
    expect(ledger({ rawMoisture: { mean: 0.9, sd: 0 } })).not.toThrow()
    expect(ledger({ steps: [{ kind: 'waste', name: 'trim', weightG: 0 }] })).not.toThrow()
  })
  it.each(['solidsG', 'saltG', 'sugarG', 'oilG'] as const)('counts %s that is added among the solids, alone or with the rest', part => {
    const alone = balancePrep({ ...raw, steps: [{ kind: 'added', name: 'season', [part]: 30 }] })
    expect(alone.solidsG.p50).toBeCloseTo(130, 6)
    expect(alone.weightG.p50).toBeCloseTo(1030, 6)
    expect(alone.moisture.p50).toBeCloseTo(900 / 1030, 6)
    const all = balancePrep({ ...raw, steps: [{ kind: 'added', name: 'season', solidsG: 1, saltG: 2, sugarG: 4, oilG: 8, waterG: 16 }] })
    expect(all.solidsG.p50).toBeCloseTo(115, 6)
    expect(all.weightG.p50).toBeCloseTo(1031, 6)
  })
  it('what is missing at loading beyond the steps left as food', () => {
    const eaten = balancePrep({ ...raw, steps: [{ kind: 'waste', name: 'trim', weightG: 100 }], loadedWeightG: 800 })
    expect(eaten.solidsG.p50).toBeCloseTo(80, 6)
    expect(eaten.prepYield.p50).toBeCloseTo(0.8, 6)
  })
  it('an unweighed step that cannot explain the loaded weight is taken as none, or as all that it can be', () => {
    const open: PrepStep[] = [{ kind: 'water', name: 'drip', usualShare: { mean: 0.1, sd: 0.02 } }]
    // More is there than the basket held, within the scale's doubt: nothing dripped off.
    expect(balancePrep({ ...raw, steps: open, loadedWeightG: 1010 }).solidsG.p50).toBeCloseTo(101, 6)
    // As good as all of it is gone: water cannot be that, and food went too. Solids never exceed the weight.
    const little = balancePrep({ ...raw, steps: open, loadedWeightG: 5 })
    expect(little.solidsG.p90).toBeLessThanOrEqual(5)
  })
  it('two unweighed steps share what the loaded weight says in proportion to what is usual', () => {
    const open: PrepStep[] = [
      { kind: 'waste', name: 'trim', usualShare: { mean: 0.2, sd: 0 } },
      { kind: 'water', name: 'roast', usualShare: { mean: 0.2, sd: 0 } },
    ]
    // (1 − x)² of the basket is left, so x = 0.3 at 490 g: the trim took 300 g with 30 of solids.
    expect(balancePrep({ ...raw, steps: open, loadedWeightG: 490 }).solidsG.p50).toBeCloseTo(70, 1)
    // Less than usual likewise: x = 0.1.
    expect(balancePrep({ ...raw, steps: open, loadedWeightG: 810 }).solidsG.p50).toBeCloseTo(90, 1)
  })
  it('thickening goes on until it is thick, and no further', () => {
    const thicken: PrepStep = { kind: 'water', name: 'thicken', reach: { mean: 0.1, sd: 0.01 } }
    const roast: PrepStep = { kind: 'water', name: 'roast', usualShare: { mean: 0.25, sd: 0.05 } }
    const pumpkin = { rawWeightG: 1000, rawMoisture: { mean: 0.93, sd: 0 } }
    const thick = (...steps: PrepStep[]) => balancePrep({ ...pumpkin, steps })
    expect(thick(thicken).solids.mean).toBeCloseTo(0.1, 2)
    // Roasted before, it only has less to lose: the steps do not add up to a paste.
    expect(thick(roast, thicken).solids.mean).toBeCloseTo(0.1, 1)
    expect(thick(roast, thicken).solidsG.p50).toBeCloseTo(70, 6)
    // What is thicker already stays as it is.
    expect(balancePrep({ rawWeightG: 1000, rawMoisture: { mean: 0.8, sd: 0 }, steps: [thicken] }).weightG.p50).toBe(1000)
    // And the weight on the trays settles it.
    const settled = balancePrep({ ...pumpkin, steps: [thicken], loadedWeightG: 600 })
    expect(settled.solidsG.p50).toBeCloseTo(70, 0)
    // Weighed is weighed.
    expect(thick({ ...thicken, weightG: 100 }).weightG.p50).toBe(900)
  })
  it('gives mean and spread of the solids, the same for the same seed', () => {
    const doubt: PrepLedger = { rawWeightG: 1000, rawMoisture: { mean: 0.8, sd: 0.03 }, steps: [] }
    const balance = balancePrep(doubt)
    expect(balance.solids.mean).toBeCloseTo(0.2, 2)
    expect(balance.solids.sd).toBeGreaterThan(0.026)
    expect(balance.solids.sd).toBeLessThan(0.034)
    expect(balance.moisture.p50).toBeCloseTo(0.8, 2)
    expect(balance.moisture.p90 - balance.moisture.p10).toBeCloseTo(2 * 1.2816 * 0.03, 1)
    expect(balancePrep(doubt)).toEqual(balance)
    expect(balancePrep({ ...doubt, seed: 1 })).toEqual(balance)
    expect(balancePrep({ ...doubt, seed: 2 })).not.toEqual(balance)
  })
  it('an unweighed step takes its usual share in the middle, more or less by its spread', () => {
    const { weightG } = balancePrep({ ...raw, steps: [{ kind: 'waste', name: 'trim', usualShare: { mean: 0.3, sd: 0.05 } }] })
    expect(weightG.p50).toBeGreaterThan(690)
    expect(weightG.p50).toBeLessThan(710)
    expect(weightG.p90 - weightG.p10).toBeGreaterThan(2 * 1.2816 * 50 * 0.85)
    expect(weightG.p90 - weightG.p10).toBeLessThan(2 * 1.2816 * 50 * 1.15)
    // A step of which nothing is known at all takes nothing.
    expect(balancePrep({ ...raw, steps: [{ kind: 'waste', name: 'trim' }] }).weightG.p50).toBe(1000)
  })
})

describe('drying a powder once more', () => {
  it('loses water only', () => {
    expect(dryingGain(100, 95, 0.1)).toEqual({ lostG: 5, before: 0.1, after: 1 - 90 / 95 })
    expect(dryingGain(100, 100, 0.1).after).toBeCloseTo(0.1, 12)
  })
  it('a hair below the solids is a scale’s doubt: all of the water is gone', () => {
    expect(dryingGain(100, 89.9, 0.1).after).toBe(0)
  })
  it.each([0, -1, 100.1, NaN])('refuses %s g after', afterG => {
    expect(refusal(() => dryingGain(100, afterG, 0.1))).toEqual({
      field: 'afterG',
      code: 'not-within-weight-before',
      message: 'must be above zero and not above the weight before',
    })
  })
})

describe('yields', () => {
  it('leaves out what was not weighed', () => {
    expect(overallYields({ rawG: 1000, loadedG: 800, dryG: 100 })).toEqual({
      prep: 0.8,
      dryingRatio: 8,
      powderRecovery: undefined,
      overall: undefined,
    })
  })
  it('what was loaded whole tells nothing of trimming; a dry weight of nothing gives no ratio', () => {
    expect(overallYields({ rawG: 1000, loadedG: 1000, dryG: 0, powderG: 90 })).toEqual({
      prep: undefined,
      dryingRatio: undefined,
      powderRecovery: undefined,
      overall: 0.09,
    })
    expect(overallYields({ dryG: 100, groundG: 100, powderG: 95 })).toEqual({
      prep: undefined,
      dryingRatio: undefined,
      powderRecovery: 0.95,
      overall: undefined,
    })
    expect(overallYields({ loadedG: 100 }).prep).toBeUndefined()
  })
})
