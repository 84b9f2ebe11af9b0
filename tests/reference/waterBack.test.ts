import fc from 'fast-check'
import { InputError } from '#core/errors'
import { flourSwap, freshOf, inVessels, powderFor, PRODUCTS, productOf, solidsOfRatio, waterBack } from '#core/using'

const exactly = (value: number) => ({ p10: value, p50: value, p90: value })

describe('water back, by mass balance', () => {
  it('244 g of whole milk needs about 30 g of powder and 214 g of water (88.1 % water, USDA; powder at 3 %)', () => {
    const { powderG, waterG } = waterBack({ moisture: 0.03, target: 0.881, wantedG: 244 })
    expect(powderG).toBeCloseTo(30, 0)
    expect(waterG).toBeCloseTo(214, 0)
  })
  it('half a cup of pumpkin powder, 60 g at 5 % water, makes 570 g of purée at 90 % with 510 g of water', () => {
    const { totalG, waterG, holdBackG } = waterBack({ moisture: 0.05, target: 0.9, powderG: 60 })
    expect(totalG).toBeCloseTo(570, 6)
    expect(waterG).toBeCloseTo(510, 6)
    expect(holdBackG).toBeCloseTo(51, 6)
  })
  it('keeps the solids, whichever amount is given (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.12, noNaN: true }),
        fc.double({ min: 0.2, max: 0.97, noNaN: true }),
        fc.double({ min: 1, max: 5000, noNaN: true }),
        (moisture, target, grams) => {
          const byProduct = waterBack({ moisture, target, wantedG: grams })
          expect(byProduct.powderG + byProduct.waterG).toBeCloseTo(grams, 6)
          expect(byProduct.powderG * (1 - moisture)).toBeCloseTo(grams * (1 - target), 6)
          expect(waterBack({ moisture, target, powderG: byProduct.powderG }).totalG).toBeCloseTo(grams, 6)
        },
      ),
    )
  })
  it.each([
    [{ moisture: 0.05, target: 0.03, wantedG: 100 }, 'target'],
    [{ moisture: 0.05, target: 0.9, wantedG: 0 }, 'wantedG'],
    [{ moisture: 1, target: 0.9, wantedG: 5 }, 'moisture'],
    [{ moisture: 0.05, target: 0.9 }, 'wantedG'],
    [{ moisture: 0.05, target: 0.9, wantedG: 5, powderG: 5 }, 'wantedG'],
  ])('refuses %j by field', (ask, field) => {
    expect(() => waterBack(ask)).toThrow(InputError)
    expect(() => waterBack(ask)).toThrow(field)
  })
})

describe('schools of tomato powder by volume, where they really land', () => {
  it.each([
    [0.5, 2, 0.19],
    [0.5, 4, 0.106],
    [0.5, 1, 0.317],
    [0.8, 2, 0.271],
    [0.8, 4, 0.158],
    [0.8, 1, 0.422],
  ])('at %d g/mL and 5 %% water 1:%d is about %d solids', (density, parts, solids) => {
    expect(solidsOfRatio(parts, 0.05, exactly(density)).p50).toBeCloseTo(solids, 2)
  })
  it('is a range where the density is one, and 1:2 is a purée or a paste by it', () => {
    const { p10, p90 } = solidsOfRatio(2, 0.05, { p10: 0.5, p50: 0.65, p90: 0.8 })
    expect([productOf(p10)!.key, productOf(p90)!.key]).toEqual(['puree', 'paste'])
  })
  it('purée holds 8 to under 24 % solids, paste at least 24 % (21 CFR 155.191)', () => {
    const find = (key: string) => PRODUCTS.find(product => product.key === key)!
    expect(find('puree').solids).toEqual({ low: 0.08, high: 0.24 })
    expect(find('paste').solids.low).toBe(0.24)
    expect([0.2399, 0.24, 0.5].map(solids => productOf(solids)!.key)).toEqual(['puree', 'paste', 'paste'])
  })
})

describe('spoons and cups', () => {
  it.each<[number, 'us' | 'metric', string]>([
    [236.6, 'us', '1 cup'],
    [355, 'us', '1½ cups'],
    [118, 'us', '½ cup'],
    [30, 'us', '2 tablespoons'],
    [7.4, 'us', '1½ teaspoons'],
    [250, 'metric', '1 cup'],
    [83, 'metric', '⅓ cup'],
    [15, 'metric', '1 tablespoon'],
    [2.5, 'metric', '½ teaspoon'],
    [0.2, 'metric', '⅛ teaspoon'],
    // Half a cup would be 18 % too much.
    [100, 'us', '7 tablespoons'],
    [100, 'metric', '6½ tablespoons'],
    [18, 'us', '3½ teaspoons'],
  ])('%d mL is %s %s', (ml, system, words) => {
    expect(inVessels(ml, system).words).toBe(words)
  })
  it('are never off by more than a tenth of the volume above a teaspoon (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 3000, noNaN: true }), fc.constantFrom('us', 'metric'), (ml, system) => {
        expect(Math.abs(inVessels(ml, system).ml / ml - 1)).toBeLessThan(1 / 10)
      }),
    )
  })
})

describe('fresh equivalent', () => {
  it('a level tablespoon of onion powder, 8 g at 5 %, is about 70 g of onion: one small one (89.1 % water, USDA)', () => {
    expect(freshOf(8, 0.05, 0.891)).toBeCloseTo(69.7, 1)
  })
  it('goes both ways without loss (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 900, noNaN: true }),
        fc.double({ min: 0.01, max: 0.15, noNaN: true }),
        fc.double({ min: 0.4, max: 0.97, noNaN: true }),
        (grams, moisture, raw) => {
          expect(powderFor(freshOf(grams, moisture, raw), moisture, raw)).toBeCloseTo(grams, 8)
        },
      ),
    )
    expect(() => freshOf(0, 0.05, 0.9)).toThrow('powderG')
    expect(() => powderFor(-1, 0.05, 0.9)).toThrow('freshG')
  })
})

describe('flour swap', () => {
  it('is by volume, and drinks water besides', () => {
    const { flourG, powderG, powderMl, waterG } = flourSwap(530, 0.2, 0.5)
    expect([flourG, powderMl, powderG]).toEqual([424, expect.closeTo(200, 6), expect.closeTo(100, 6)])
    expect(waterG).toBeGreaterThan(0)
  })
  it('is refused above a third (common practice), by field', () => {
    expect(() => flourSwap(500, 0.4, 0.5)).toThrow('at most a third')
    expect(() => flourSwap(500, 1 / 3, 0.5)).not.toThrow()
    expect(() => flourSwap(0, 0.2, 0.5)).toThrow('flourG')
  })
})
