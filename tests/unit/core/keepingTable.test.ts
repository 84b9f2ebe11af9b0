import { InputError } from '#core/errors'
import {
  bestByWindow,
  bestJar,
  dampOf,
  desiccantG,
  freshnessOf,
  jarsFor,
  jarTakesG,
  leakOf,
  measuredLeak,
  moistureIngress,
  oxygenAbsorber,
  PACKAGES,
  permeanceOf,
  silicaHolds,
  strengthOf,
  useMore,
} from '#core/keeping'
import { activityAt, isothermOf } from '#core/sorption'
import { saturationKPa } from '#core/air'
import { DAY } from '../../support/logbook'
import { findFood } from '../../support/foods'

const beetroot = findFood('beetroot')!
const refusal = (act: () => unknown) => {
  try {
    act()
  } catch (error) {
    if (error instanceof InputError) return error.problems.map(({ field, code, message }) => `${field}: ${code}: ${message}`).join('; ')
  }
  return 'taken'
}

describe('best by, word for word', () => {
  it('of each package, warm and cold, rested or not, and in oil', () => {
    const said = (more: Partial<Parameters<typeof bestByWindow>[0]>) => {
      const { months, reason, source } = bestByWindow({ food: beetroot, purpose: 'powder', packageKey: 'screw-jar', ...more })
      return `${months.low.toFixed(2)}–${months.high.toFixed(2)}: ${reason} (${source})`
    }
    expect({
      packages: PACKAGES.map(({ key }) => said({ packageKey: key })),
      warmth: [-30, -18, -15, 0, 10, 19, 19.1, 20, 20.9, 21, 30, 45].map(storageC => said({ storageC })),
      forms: (['powder', 'flakes', 'pieces'] as const).map(purpose => said({ purpose, rested: false })),
      oil: [-18, -15, -14, 4].map(storageC => said({ inOil: true, storageC })),
    }).toMatchSnapshot()
  })
  it('refuses what is no place and no package', () => {
    const asked = (more: object) =>
      refusal(() =>
        bestByWindow({ food: beetroot, purpose: 'powder', packageKey: 'screw-jar', ...more } as Parameters<typeof bestByWindow>[0]),
      )
    expect(asked({ storageC: -30.1 })).toBe('storageC: out-of-range: must be between −30 and 45 °C')
    expect(asked({ storageC: 45.1 })).toMatch(/^storageC/)
    expect(asked({ storageC: NaN })).toMatch(/^storageC/)
    expect(asked({ packageKey: 'sack' })).toBe('packageKey: unknown-package: is not a package Dulse knows')
  })
})

describe('what stands where in its time', () => {
  const now = 1000 * DAY
  const jar = { leftG: 10, bestFrom: now + 100 * DAY, bestTo: now + 200 * DAY }
  it.each([
    ['empty', { leftG: 0 }],
    ['empty', { leftG: -1, smell: 'none' }],
    ['stale', { smell: 'none', bestTo: now - 1 }],
    ['past', { bestTo: now - 1 }],
    ['use-first', { bestFrom: now - DAY, bestTo: now }],
    ['use-first', { bestFrom: now + 21 * DAY - 1 }],
    ['good', { bestFrom: now + 21 * DAY }],
    ['good', { smell: 'weaker' }],
  ])('%s', (freshness, more) => expect(freshnessOf({ ...jar, ...more }, now)).toBe(freshness))
})

describe('absorbers and gel, to the figure', () => {
  it('an absorber is a fifth of the air, the next size up, several of the largest', () => {
    expect(oxygenAbsorber(100, 0)).toEqual({ airMl: 100, oxygenMl: 21, sizeCc: 50, count: 1 })
    // 140 g of solids are 100 mL.
    expect(oxygenAbsorber(1100, 140).airMl).toBeCloseTo(1000, 9)
    expect(oxygenAbsorber(1100, 140).sizeCc).toBe(300)
    expect(oxygenAbsorber(100 / 0.42, 0).sizeCc).toBe(50)
    expect(oxygenAbsorber(20_000, 0)).toMatchObject({ sizeCc: 2000, count: 3 })
  })
  it('refuses what does not fit, no jar, and less than nothing', () => {
    expect(refusal(() => oxygenAbsorber(100, 140))).toBe('jarMl: does-not-fit: 140 g does not fit into 100 mL')
    expect(refusal(() => oxygenAbsorber(0, 0))).toMatch(/^jarMl/)
    expect(refusal(() => oxygenAbsorber(100, -1))).toMatch(/^jarMl/)
    expect(refusal(() => oxygenAbsorber(-100, -200))).toMatch(/^jarMl/)
  })
  it('gel goes by its sheet, straight between', () => {
    expect([0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8].map(at => Math.round(1e9 * silicaHolds(at)) / 1e9)).toEqual([
      0, 0.06, 0.11, 0.17, 0.22, 0.26, 0.29, 0.33,
    ])
    expect(silicaHolds(0.05)).toBeCloseTo(0.03, 12)
    expect(silicaHolds(0.35)).toBeCloseTo(0.195, 12)
    expect(silicaHolds(0.7)).toBeCloseTo(0.31, 12)
    expect(silicaHolds(0.95)).toBe(0.33)
  })
  it('gel for a jar is its vapour and what comes in, over what the gel takes', () => {
    const filledIn = { celsius: 20, humidity: 0.5 }
    // 8.65 g of vapour a cubic metre at 20 °C and 50 % (steam tables), so 8.65 mg in a litre.
    expect(desiccantG({ airMl: 1000, filledIn, wanted: 0.4, ingressG: 0 }) * 0.22).toBeCloseTo(0.00865, 4)
    expect(desiccantG({ airMl: 1000, filledIn, wanted: 0.4, ingressG: 2.2 })).toBeCloseTo(10 + 0.00865 / 0.22, 3)
    expect(desiccantG({ airMl: 1000, filledIn, wanted: 0.4, ingressG: -5 })).toBe(
      desiccantG({ airMl: 1000, filledIn, wanted: 0.4, ingressG: 0 }),
    )
    expect(refusal(() => desiccantG({ airMl: 1, filledIn, wanted: 0.049, ingressG: 0 }))).toBe(
      'wanted: out-of-range: must be between 5 and 60 % humidity',
    )
    expect(refusal(() => desiccantG({ airMl: 1, filledIn, wanted: 0.61, ingressG: 0 }))).toMatch(/^wanted/)
    expect([0.05, 0.6].map(wanted => refusal(() => desiccantG({ airMl: 1, filledIn, wanted, ingressG: 0 })))).toEqual(['taken', 'taken'])
  })
})

describe('what a package lets in, to the figure', () => {
  const room = { celsius: 20, humidity: 0.5 }
  it('is what the gel gained by the day and the pressure', () => {
    expect(measuredLeak({ gainedG: 1.4, days: 7, room })).toBeCloseTo(0.2 / (saturationKPa(20) * 0.5), 12)
    const words = 'gainedG: not-above-zero: must be above zero, as the days: weigh the gel again after a week'
    expect(refusal(() => measuredLeak({ gainedG: 0, days: 7, room }))).toBe(words)
    expect(refusal(() => measuredLeak({ gainedG: 1, days: 0, room }))).toBe(words)
    expect(refusal(() => permeanceOf(0, 1))).toBe('wvtr: not-above-zero: must be above zero, as the area')
    expect(refusal(() => permeanceOf(1, -1))).toMatch(/^wvtr/)
    expect(permeanceOf(5, 0.1)).toBeCloseTo(0.5 / (saturationKPa(38) * 0.9), 12)
  })
  it('is measured first, else as such packages do, else nobody knows', () => {
    expect([leakOf('bag', 0.3), leakOf('bag'), leakOf('other')]).toEqual([0.3, 0.05, undefined])
  })
  const question = {
    isotherm: isothermOf(beetroot),
    solidsG: 100,
    moisture: 0.04,
    gPerDayKPa: 0.02,
    pantry: room,
    limit: 0.4,
  }
  it('is drawn at 25 even days, as far as was asked, from what was sealed in', () => {
    const { curve } = moistureIngress({ ...question, days: 240 })
    expect(curve.map(point => Math.round(point.day * 1e6) / 1e6)).toEqual(Array.from({ length: 25 }, (_, i) => 10 * i))
    expect(curve[0]!.activity).toBeCloseTo(activityAt(question.isotherm, 0.04 / 0.96, 20), 9)
    // What came in by the last day is what the isotherm says of its activity.
    const gained = 0.02 * saturationKPa(20)
    expect(curve.at(-1)!.activity).toBeLessThan(activityAt(question.isotherm, 0.04 / 0.96 + (240 * gained * 0.5) / 100, 20))
    expect(moistureIngress({ ...question, days: 1e6 }).curve.at(-1)!.day).toBe(3650)
    const { daysToLimit, curve: own } = moistureIngress(question)
    expect(own.at(-1)!.day).toBeCloseTo(Math.max(30, 1.3 * daysToLimit), 6)
    // Air that never brings it there is followed for two years.
    expect(moistureIngress({ ...question, limit: 0.6 })).toMatchObject({ daysToLimit: Infinity })
    expect(moistureIngress({ ...question, limit: 0.6 }).curve.at(-1)!.day).toBeCloseTo(730, 6)
  })
  it('names each figure that makes no sense', () => {
    expect(refusal(() => moistureIngress({ ...question, solidsG: 0, gPerDayKPa: -1, moisture: 1, limit: 0 }))).toBe(
      'solidsG: not-above-zero: must be above zero; gPerDayKPa: not-above-zero: must be above zero; moisture: not-a-fraction: must be a fraction between 0 and 1; limit: not-a-fraction: must be a fraction between 0 and 1',
    )
  })
  it('a jar takes it up by its solids, not by its weight', () => {
    const jar = { food: beetroot, purpose: 'powder' as const, netG: 100, gPerDayKPa: 0.02, celsius: 20, humidity: 0.55 }
    for (const moisture of [0.03, 0.06])
      expect(dampOf({ ...jar, moisture })!.daysToClump).toBeCloseTo(
        moistureIngress({ ...question, pantry: { celsius: 20, humidity: 0.55 }, solidsG: 100 * (1 - moisture), moisture }).daysToLimit,
        9,
      )
    expect(dampOf({ ...jar, celsius: 0.9 })).toBeUndefined()
    expect(dampOf({ ...jar, celsius: 1 })).toBeDefined()
    expect(dampOf({ ...jar, netG: 0 })).toBeUndefined()
  })
})

describe('strength, to the figure', () => {
  it('without a nose halves at the middle of the usual months, and is half by then', () => {
    const { halfLife, curve, tests } = strengthOf({ low: 6, high: 24 }, [], 24)
    expect(tests).toBe(0)
    expect(halfLife.p50).toBeCloseTo(12, 6)
    // ± half a logarithm: 80 of 100 within exp(± 0.64).
    expect(halfLife.p90 / halfLife.p50).toBeCloseTo(Math.exp(1.2816 * 0.5), 1)
    expect(curve.map(point => point.month)).toEqual([0, 2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24])
    expect(curve[0]!.strength.p50).toBe(1)
    expect(curve[6]!.strength.p50).toBeCloseTo(0.5, 6)
    expect(curve[12]!.strength.p50).toBeCloseTo(0.25, 6)
    expect(curve[6]!.strength.p10).toBeLessThan(curve[6]!.strength.p90)
  })
  it('follows the nose: each weaker word shortens it', () => {
    const half = (smell: 'strong' | 'weaker' | 'crushed' | 'none') => strengthOf({ low: 6, high: 24 }, [{ months: 12, smell }]).halfLife.p50
    const [strong, weaker, crushed, none] = (['strong', 'weaker', 'crushed', 'none'] as const).map(half)
    expect(strong).toBeGreaterThan(12)
    // Half of it is what "weaker" stands for.
    expect(Math.abs(weaker! / 12 - 1)).toBeLessThan(0.1)
    expect(crushed).toBeLessThan(0.8 * weaker!)
    expect(none).toBeLessThan(crushed!)
  })
  it('faded powder is dosed up by what it lost, to twenty times at most', () => {
    expect([1, 0.5, 0.05, 0.01].map(useMore)).toEqual([1, 2, 20, 20])
  })
})

describe('jars for a weight, to the figure', () => {
  it('powder lies by its density, tapped by a fifth closer, nine tenths full at most', () => {
    expect(jarTakesG(0.5, 'powder', 1000)).toBeCloseTo(450, 9)
    expect(jarTakesG(0.5, 'flakes', 1000)).toBeCloseTo(270, 9)
    expect(jarTakesG(0.5, 'pieces', 1000)).toBeCloseTo(157.5, 9)
    // 270 g at 0.6 g/mL are 450 mL: just nine tenths of a half litre.
    expect(jarsFor(270, 0.5, 'powder', { sizes: [330, 500] })).toEqual([
      { sizeMl: 330, count: 2, fill: 450 / 2 / 330 },
      { sizeMl: 500, count: 1, fill: 0.9 },
    ])
    expect(jarsFor(99, 0.5, 'flakes', { sizes: [500] })[0]!.fill).toBeCloseTo(99 / (0.5 * 0.6 * 1.1) / 500, 12)
    expect(jarsFor(99, 0.5, 'pieces', { sizes: [1000] })[0]!.fill).toBeCloseTo(99 / (0.5 * 0.35 * 1.05) / 1000, 12)
    expect(jarsFor(0, 0.5, 'powder', { sizes: [50] })).toEqual([{ sizeMl: 50, count: 1, fill: 0 }])
  })
  it('the best is the smallest that takes all, else the fewest', () => {
    expect(bestJar(jarsFor(270, 0.5, 'powder')).sizeMl).toBe(500)
    expect(bestJar(jarsFor(3000, 0.5, 'powder'))).toMatchObject({ sizeMl: 2000, count: 3 })
  })
})
