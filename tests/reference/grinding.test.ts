import * as fc from 'fast-check'
import { InputError } from '#core/errors'
import {
  clumpRisk,
  GLASS,
  glassOf,
  grindBelowC,
  lidRestS,
  looseBelow,
  MESH_UM,
  nearestMesh,
  openingUm,
  planGrinding,
  settlingS,
  softensAtC,
  stickyAboveC,
  SUGARS,
  sumPasses,
  warmingK,
} from '#core/grinding'

describe('glass transition (Gordon–Taylor; anhydrous values and constants of Roos 1995, from memory)', () => {
  it.each([
    ['sucrose', 62, 18],
    ['lactose', 101, 40],
    ['fructose', 5, -18],
  ] as const)('%s dry at %d °C falls to about %d °C at 5 %% water', (sugar, dry, wet) => {
    expect(softensAtC(SUGARS[sugar], 0)).toBeCloseTo(dry, 9)
    expect(Math.abs(softensAtC(SUGARS[sugar], 0.05) - wet)).toBeLessThan(0.5)
  })
  it('more water softens it at less warmth; the driest needed and the limit turn each other round', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.values(GLASS)), fc.double({ min: 0.001, max: 0.2, noNaN: true }), (glass, moisture) => {
        expect(softensAtC(glass, moisture + 0.01)).toBeLessThan(softensAtC(glass, moisture))
        expect(looseBelow(glass, stickyAboveC(glass, moisture))).toBeCloseTo(moisture, 9)
      }),
    )
  })
  it('whole milk powder at 3 % water softens near 49 °C, 12 to 14 K below what its lactose would at 3 % (by hand: water in 0.73 of it)', () => {
    const whole = softensAtC(glassOf({ isotherm: 'milk', fat: 0.27 }), 0.03)
    // Gordon–Taylor of lactose at 0.0309/0.73 g water a gram of it.
    const x = 0.03 / 0.97 / 0.73
    expect(whole).toBeCloseTo((101 + 273.15 + 6.6 * x * 138.15) / (1 + 6.6 * x) - 273.15, 6)
    expect(softensAtC(SUGARS.lactose, 0.03) - whole).toBeGreaterThan(10)
  })
  it('sugary powders cake in a warm pantry, starchy ones hardly (common practice)', () => {
    expect(clumpRisk(GLASS.sugaryFruit, 0.05, 30)).toBe('cakes')
    expect(clumpRisk(GLASS.starchy, 0.06, 30)).toBe('none')
    expect(looseBelow(GLASS.sugaryFruit, 25)).toBeLessThan(looseBelow(GLASS.starchy, 25))
    expect(looseBelow({ dryC: 5, k: 3.7 }, 40)).toBe(0)
  })
  it('a grinder may be warmer than a pantry: seconds against weeks', () => {
    for (const glass of Object.values(GLASS)) expect(grindBelowC(glass, 0.05)).toBeGreaterThan(stickyAboveC(glass, 0.05))
    // Vegetables dried to 6 % are ground at room temperature, fruit at 8 % is not (common practice).
    expect(grindBelowC(GLASS.wateryVegetable, 0.06)).toBeGreaterThan(30)
    expect(grindBelowC(GLASS.sugaryFruit, 0.08)).toBeLessThan(25)
  })
})

describe('heat in the cup', () => {
  it('150 W for 60 s at 60 % into 60 g is 56 K (worked by hand)', () => {
    expect(warmingK(150, 60, 60)).toBeCloseTo(56.25, 9)
  })
  it('plans rounds by the cup’s volume and bursts by the warmth it may reach', () => {
    const plan = planGrinding({ dryG: 224, looseGMl: 0.2, cupMl: 300, watts: 150, startC: 22, mostC: 35 })
    expect(plan.rounds).toBe(7)
    expect(plan.gramsPerRound).toBe(32)
    expect(warmingK(150, plan.burstS, plan.gramsPerRound)).toBeLessThanOrEqual(13)
    expect(warmingK(150, plan.burstS + 1, plan.gramsPerRound)).toBeGreaterThan(13)
    expect(plan.restS).toBeGreaterThan(plan.burstS)
    expect(plan.burstsPerRound * plan.burstS).toBeGreaterThanOrEqual(60)
  })
  it.each([
    ['dryG', 0],
    ['cupMl', -1],
    ['watts', 0],
    ['mostC', 20],
  ])('refuses %s of %d by name', (field, value) => {
    const ask = () => planGrinding({ dryG: 200, looseGMl: 0.2, cupMl: 300, watts: 150, startC: 22, mostC: 35, [field]: value })
    expect(ask).toThrow(InputError)
    expect(ask).toThrow(field)
  })
})

describe('dust (Stokes, grains of 1,400 kg/m³, air at 20 °C)', () => {
  it.each([
    [10, 24],
    [5, 95],
    [2, 600],
  ])('grains of %d µm fall 10 cm in about %d s', (um, seconds) => {
    expect(Math.abs(settlingS(um, 10) / seconds - 1)).toBeLessThan(0.02)
  })
  it('the lid stays on between half a minute and ten (common practice), longer for chilies', () => {
    for (const height of [6, 10]) {
      expect(lidRestS(height, false)).toBeGreaterThanOrEqual(30)
      expect(lidRestS(height, true)).toBeLessThanOrEqual(605)
      expect(lidRestS(height, true)).toBeGreaterThan(lidRestS(height, false))
    }
  })
})

describe('sieves (ASTM E11, from memory)', () => {
  it.each([
    [20, 850],
    [30, 600],
    [40, 425],
    [50, 300],
    [60, 250],
    [80, 180],
    [100, 150],
  ])('No. %d opens %d µm', (mesh, um) => {
    expect(MESH_UM[mesh]).toBe(um)
    expect(nearestMesh(um * 1.04)).toBe(mesh)
  })
  it('the series falls by the fourth root of two, within its rounding', () => {
    const openings = Object.entries(MESH_UM)
      .sort((a, b) => Number(a[0]) - Number(b[0]))
      .map(([, um]) => um)
    for (let i = 1; i < openings.length; i++) expect(openings[i - 1]! / openings[i]!).toBeCloseTo(2 ** 0.25, 1)
  })
  it('a strainer is measured by counting its wires', () => {
    expect(openingUm(20, 25, 0.3)).toBeCloseTo(950, 9)
    expect(() => openingUm(100, 25, 0.3)).toThrow('no opening')
    expect(() => openingUm(0, 25, 0.3)).toThrow(InputError)
  })
  it('tells passes to a grade from what the last pass left', () => {
    expect(sumPasses([])).toEqual({ through: 0 })
    const one = { openingUm: 300, throughG: 80, overG: 40 }
    const { through, passesLeft } = sumPasses([one])
    expect(through).toBeCloseTo(2 / 3, 9)
    // A third stays each time: 1/3, 1/9, 1/27 is under 5 %.
    expect(passesLeft).toBe(2)
    expect(sumPasses([one, { openingUm: 300, throughG: 38, overG: 2 }])).toEqual({ through: 118 / 120, passesLeft: 0 })
    expect(sumPasses([{ openingUm: 300, throughG: 0, overG: 50 }]).passesLeft).toBeUndefined()
  })
  it('refuses a series out of order, and more on top than there was, by field', () => {
    const one = { openingUm: 300, throughG: 80, overG: 40 }
    expect(() => sumPasses([one, { openingUm: 600, throughG: 30, overG: 5 }])).toThrow('passes.1.openingUm')
    expect(() => sumPasses([one, { openingUm: 300, throughG: 80, overG: 5 }])).toThrow('passes.1.overG')
  })
})
