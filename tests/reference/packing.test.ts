import { saturationKPa } from '#core/air'
import { InputError } from '#core/errors'
import { dampOf, desiccantG, moistureIngress, oxygenAbsorber, PERMEANCE, permeanceOf, silicaHolds } from '#core/keeping'
import { ISOTHERMS, type Isotherm } from '#core/sorption'
import { findFood } from '../support/foods'

const PANTRY = { celsius: 22, humidity: 0.6 }
/** Nearly straight up to an activity of 0.6: GAB with c = 1 and a small K is X = Xm·K·a/(1 − K·a), here within a tenth of a percent of a line. */
const STRAIGHT: Isotherm = { monolayer: 200, c: 1, k: 0.001, heatC: 0, heatK: 0 }

describe('moisture that gets into a package', () => {
  it('agrees with Heiss and Labuza’s closed form where the isotherm is a straight line', () => {
    // ln((Xe − Xi)/(Xe − Xc)) = (k/x)·A·(po/b)/Ws · t (Labuza & Altunakar 2007, from memory), with b the line's slope and k·A/x one permeance.
    const slope = 0.2
    const [solidsG, gPerDayKPa, limit] = [100, 0.01, 0.4]
    const moisture = 0.04 / 1.04
    const xe = slope * PANTRY.humidity
    const days = (Math.log((xe - 0.04) / (xe - slope * limit)) * slope * solidsG) / (gPerDayKPa * saturationKPa(PANTRY.celsius))
    expect(moistureIngress({ isotherm: STRAIGHT, solidsG, moisture, gPerDayKPa, pantry: PANTRY, limit }).daysToLimit / days).toBeCloseTo(
      1,
      2,
    )
  })
  it('a plastic lid reaches the limit within months, a lined lid in years (common practice)', () => {
    const ask = (gPerDayKPa: number) =>
      moistureIngress({ isotherm: ISOTHERMS.wateryVegetable, solidsG: 110, moisture: 0.05, gPerDayKPa, pantry: PANTRY, limit: 0.4 })
        .daysToLimit
    expect(ask(PERMEANCE['plastic-lid'])).toBeLessThan(365)
    expect(ask(PERMEANCE['screw-jar'])).toBeGreaterThan(3 * 365)
    expect(ask(PERMEANCE.bag)).toBeLessThan(ask(PERMEANCE['plastic-lid']))
    expect(ask(PERMEANCE['foil-bag'])).toBeGreaterThan(ask(PERMEANCE['screw-jar']))
  })
  it('never passes the air it stands in, and never falls', () => {
    const { curve, daysToLimit } = moistureIngress({
      isotherm: ISOTHERMS.leafy,
      solidsG: 40,
      moisture: 0.05,
      gPerDayKPa: 0.05,
      pantry: { celsius: 20, humidity: 0.5 },
      limit: 0.6,
      days: 2000,
    })
    expect(daysToLimit).toBe(Infinity)
    for (let i = 1; i < curve.length; i++) expect(curve[i]!.activity).toBeGreaterThanOrEqual(curve[i - 1]!.activity - 1e-9)
    expect(curve.at(-1)!.activity).toBeCloseTo(0.5, 2)
  })
  it('the curve crosses the limit on the day it names', () => {
    const { curve, daysToLimit } = moistureIngress({
      isotherm: ISOTHERMS.allium,
      solidsG: 100,
      moisture: 0.05,
      gPerDayKPa: 0.01,
      pantry: PANTRY,
      limit: 0.4,
    })
    const after = curve.findIndex(point => point.activity >= 0.4)
    expect(curve[after]!.day).toBeGreaterThanOrEqual(daysToLimit)
    expect(curve[after - 1]!.day).toBeLessThanOrEqual(daysToLimit)
  })
  it('what is wet already is at its limit now', () => {
    expect(
      moistureIngress({ isotherm: ISOTHERMS.allium, solidsG: 100, moisture: 0.15, gPerDayKPa: 0.01, pantry: PANTRY, limit: 0.4 })
        .daysToLimit,
    ).toBe(0)
  })
  it('a maker’s rate is at 38 °C and 90 % (ASTM E96): a square metre passes it at that difference', () => {
    expect(permeanceOf(5, 1) * saturationKPa(38) * 0.9).toBeCloseTo(5, 9)
    expect(() => permeanceOf(0, 1)).toThrow(InputError)
  })
  it.each([
    ['solidsG', 0],
    ['gPerDayKPa', -1],
    ['moisture', 1.2],
    ['limit', 0],
  ])('refuses %s of %d by name', (field, value) => {
    expect(() =>
      moistureIngress({
        isotherm: ISOTHERMS.allium,
        solidsG: 100,
        moisture: 0.05,
        gPerDayKPa: 0.01,
        pantry: PANTRY,
        limit: 0.4,
        [field]: value,
      }),
    ).toThrow(field)
  })
})

describe('a jar’s months', () => {
  const jar = (more: Partial<Parameters<typeof dampOf>[0]> = {}) =>
    dampOf({ food: findFood('onion')!, purpose: 'powder', netG: 110, gPerDayKPa: PERMEANCE['plastic-lid'], celsius: 20, ...more })!
  it('clump before they mould, sooner the warmer, the leakier and the smaller', () => {
    expect(jar().daysToClump).toBeLessThan(jar().daysToMould)
    expect(jar({ celsius: 28 }).daysToClump).toBeLessThan(jar().daysToClump)
    expect(jar({ gPerDayKPa: PERMEANCE.bag }).daysToClump).toBeLessThan(jar().daysToClump)
    expect(jar({ netG: 30 }).daysToClump).toBeLessThan(jar().daysToClump)
  })
  it('are drawn from the packing on, and are not told of in the cold', () => {
    expect(jar().curve[0]!.day).toBe(0)
    expect(jar().curve.at(-1)!.day).toBeLessThanOrEqual(1100)
    expect(dampOf({ food: findFood('onion')!, purpose: 'powder', netG: 110, gPerDayKPa: PERMEANCE.bag, celsius: -18 })).toBeUndefined()
  })
})

describe('oxygen absorbers', () => {
  it.each([
    [250, 112, 50, 1],
    [1000, 240, 300, 1],
    [3800, 500, 1000, 1],
    [12_000, 2000, 2000, 2],
  ])('a jar of %d mL with %d g takes %d cc, %d of them', (jarMl, dryG, sizeCc, count) => {
    const found = oxygenAbsorber(jarMl, dryG)
    expect(found).toMatchObject({ sizeCc, count })
    expect(found.oxygenMl).toBeCloseTo((jarMl - dryG / 1.4) * 0.21, 9)
    expect(found.sizeCc * found.count).toBeGreaterThanOrEqual(found.oxygenMl)
  })
  it('more than fits is refused', () => {
    expect(() => oxygenAbsorber(100, 200)).toThrow('does not fit')
  })
})

describe('silica gel', () => {
  it('takes up more the damper the air, about a fifth of itself at 40 %', () => {
    expect(silicaHolds(0.4)).toBeCloseTo(0.22, 9)
    expect(silicaHolds(0.25)).toBeGreaterThan(silicaHolds(0.2))
    expect(silicaHolds(0.95)).toBe(0.33)
  })
  it('for the air of a jar alone a tenth of a gram is enough; what gets in decides', () => {
    const air = desiccantG({ airMl: 200, filledIn: { celsius: 22, humidity: 0.6 }, wanted: 0.2, ingressG: 0 })
    // Saturated air at 22 °C holds 19.4 g/m³ (handbook).
    expect(air).toBeCloseTo((200e-6 * 19.4 * 0.6) / 0.11, 3)
    expect(desiccantG({ airMl: 200, filledIn: { celsius: 22, humidity: 0.6 }, wanted: 0.2, ingressG: 1.1 })).toBeCloseTo(air + 10, 6)
    expect(() => desiccantG({ airMl: 200, filledIn: { celsius: 22, humidity: 0.6 }, wanted: 0.9, ingressG: 0 })).toThrow('wanted')
  })
})
