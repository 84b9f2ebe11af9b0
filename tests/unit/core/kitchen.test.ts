import { InputError } from '#core/errors'
import { strengthAfter, useMore } from '#core/keeping'
import {
  COMMON_AMOUNTS,
  freshBothWays,
  gramsOf,
  howTo,
  parseVolume,
  planWater,
  scaledLine,
  schoolsFor,
  solidsFor,
  usualAmounts,
  volumeOf,
  type Powder,
} from '#core/using'
import { BOOK } from '../../support/foods'

const exactly = (value: number) => ({ p10: value, p50: value, p90: value })
const TOMATO: Powder = {
  foodKey: 'tomato',
  group: 'wateryFruit',
  purpose: 'powder',
  leftG: 200,
  moisture: 0.05,
  rawMoisture: 0.945,
  densityGMl: exactly(0.5),
}
const MILK: Powder = {
  foodKey: 'milk-whole',
  group: 'dairy',
  purpose: 'powder',
  leftG: 500,
  moisture: 0.03,
  rawMoisture: 0.881,
  densityGMl: exactly(0.4),
}

describe('a plan for water back', () => {
  it('milk is milk again: 244 g of 30 g powder and 214 g water (USDA 88.1 % water), cold and little by little', () => {
    const plan = planWater(MILK, { product: 'whole', wantedG: 244 }, 'us')
    expect([Math.round(plan.powderG), Math.round(plan.waterG)]).toEqual([30, 214])
    expect(plan.how.water).toMatch(/little by little/)
    expect(plan.powder.words).toBe('⅓ cup')
  })
  it('says where each school lands: 1:2 is a purée and not a paste at 0.5 g/mL, 21 CFR 155.191', () => {
    const schools = Object.fromEntries(schoolsFor(TOMATO).map(item => [item.school.key, item]))
    expect(schools['tomato-paste']!.makes!.key).toBe('puree')
    expect(schools['tomato-paste']!.solids.p50).toBeCloseTo(0.19, 2)
    expect(schools['tomato-sauce']!.solids.p50).toBeCloseTo(0.106, 2)
    expect(schools['tomato-simmer']!.solids.p50).toBeCloseTo(0.317, 2)
    expect(Object.keys(schools)).not.toContain('milk')
    expect(schoolsFor(MILK).map(item => item.school.key)).toContain('milk')
  })
  it('tells what is missing in the jar, and nothing of spoons for pieces', () => {
    expect(planWater(TOMATO, { product: 'paste', wantedG: 1000 }, 'metric').shortG).toBeCloseTo(
      (1000 * Math.sqrt(0.24 * 0.4)) / 0.95 - 200,
      6,
    )
    expect(planWater({ ...TOMATO, purpose: 'pieces' }, { wantedG: 100 }, 'metric').schools).toEqual([])
  })
  it.each<[Parameters<typeof planWater>[1], string]>([
    [{ product: 'mist', wantedG: 5 }, 'product'],
    [{ solids: 0, wantedG: 5 }, 'solids'],
    [{ solids: 0.97, wantedG: 5 }, 'must hold more'],
    [{ product: 'paste' }, 'wantedG'],
    [{ product: 'paste', wantedG: -1 }, 'wantedG'],
  ])('refuses %j', (wish, words) => {
    expect(() => planWater(TOMATO, wish, 'us')).toThrow(InputError)
    expect(() => planWater(TOMATO, wish, 'us')).toThrow(words)
  })
  it('knows how every family is treated, and waits longer for pieces', () => {
    for (const food of BOOK.foods) {
      const how = howTo('puree', 'powder', food.group)
      expect(how.minutes.high).toBeGreaterThanOrEqual(how.minutes.low)
      expect(howTo('whole', 'pieces', food.group).minutes.high).toBeGreaterThan(how.minutes.low)
    }
    expect(howTo('broth', 'powder', 'root').water).toMatch(/Whisk/)
  })
})

describe('amounts of a recipe', () => {
  it('follow the jar’s own density and water', () => {
    const amount = { by: 'vessel', count: 2, ml: volumeOf(1, 'tablespoon', 'metric') } as const
    expect(gramsOf(amount, TOMATO)).toBeCloseTo(15, 9)
    expect(gramsOf(amount, { ...TOMATO, densityGMl: exactly(0.8) })).toBeCloseTo(24, 9)
    expect(gramsOf({ by: 'fresh', grams: 100 }, TOMATO)).toBeCloseTo(5.5 / 0.95, 9)
    expect(gramsOf({ by: 'product', grams: 100, product: 'paste' }, TOMATO)).toBeCloseTo((100 * solidsFor('paste', 0.945)) / 0.95, 9)
    expect(gramsOf({ by: 'product', grams: 244, product: 'whole' }, MILK)).toBeCloseTo(29.9, 1)
    expect(gramsOf({ by: 'weight', grams: 7 }, MILK)).toBe(7)
  })
  it('US and metric spoons differ by their law (15 CFR 13; a US tablespoon is 14.787 mL)', () => {
    expect([volumeOf(1, 'tablespoon', 'us'), volumeOf(1, 'cup', 'us'), volumeOf(1, 'cup', 'metric')]).toEqual([14.787, 236.588, 250])
  })
})

describe('fresh and powder', () => {
  it('a 170 g tin of paste is 44 g of solids or more, whatever the jar holds (21 CFR 155.191: at least 24 %)', () => {
    const paste = usualAmounts(TOMATO, 'us').find(item => item.words.includes('paste'))!
    expect(paste.powderG * 0.95).toBeGreaterThanOrEqual(0.24 * 170)
    expect(paste.powderG * 0.95).toBeCloseTo(0.26 * 170, 6)
  })
  it('names only foods of the reference, with weights that a hand can hold', () => {
    for (const { foodKey, grams } of COMMON_AMOUNTS) {
      expect(BOOK.find(foodKey)).toBeDefined()
      expect(grams).toBeLessThan(500)
    }
  })
  it('goes both ways', () => {
    const there = freshBothWays(TOMATO, { freshG: 345 }, 'us')
    expect(freshBothWays(TOMATO, { powderG: there.powderG }, 'us').freshG).toBeCloseTo(345, 9)
  })
})

describe('strength with age', () => {
  it('halves in a half-life, and a faded spoon is dosed up by as much', () => {
    const strength = strengthAfter(8, { p10: 4, p50: 8, p90: 16 })
    expect(strength).toEqual({ p10: 0.25, p50: 0.5, p90: expect.closeTo(Math.SQRT1_2, 12) })
    expect(useMore(strength.p50)).toBe(2)
    expect(strengthAfter(-3, exactly(8)).p50).toBe(1)
  })
})

describe('goods that are bought in', () => {
  it('are kept apart from foods to dry, and have what a shelf needs', () => {
    expect(BOOK.goods.length).toBeGreaterThan(20)
    for (const good of BOOK.goods) {
      expect(BOOK.find(good.key)).toBeUndefined()
      expect(BOOK.product(good.key)).toBe(good)
      expect(good.cards).toEqual([])
      expect(good.powderDensity.value.mean).toBeGreaterThan(0.1)
      expect(good.keepsMonths.powder.high).toBeGreaterThan(good.keepsMonths.powder.low - 1e-9)
    }
    expect(BOOK.product('salt')!.saltShare).toBe(1)
    expect(BOOK.product('celery-salt')!.allergens).toEqual(['celery'])
  })
})

describe('volumes as a cook says them', () => {
  it.each<[string, 'us' | 'metric', number]>([
    ['2 cups', 'metric', 500],
    ['1½ tbsp', 'metric', 22.5],
    ['1/2 tsp', 'us', 2.4645],
    ['½ cup', 'us', 118.294],
    ['1 1/2 C', 'metric', 375],
    ['250 mL', 'us', 250],
    ['0,5 l', 'us', 500],
    ['3 dl', 'metric', 300],
    ['1 Tablespoon', 'us', 14.787],
  ])('%s in %s spoons', (text, system, ml) => {
    expect(parseVolume(text, system)!.value).toBeCloseTo(ml, 3)
  })
  it('leaves weights to the scale, and refuses nothing and too much', () => {
    expect(parseVolume('two cups', 'us')!.value).toBeCloseTo(2 * 236.588, 2)
    for (const text of ['850', '3 lb 4 oz', '12 g', '']) expect(parseVolume(text, 'us')).toBeUndefined()
    expect(parseVolume('0 cups', 'us')!.problem).toMatch(/above zero/)
    expect(parseVolume('9000 l', 'us')!.problem).toMatch(/check the unit/)
  })
})

describe('a line of a recipe for so many times', () => {
  it.each<[string, number, string | undefined]>([
    ['300 g flour', 2, '600 g flour'],
    ['1 teaspoon baking powder', 0.5, '½ teaspoon baking powder'],
    ['1 1/2 cups of water', 2, '3 cups of water'],
    ['1½ cups', 3, '4½ cups'],
    ['1 teaspoon salt', 3, '3 teaspoons salt'],
    ['2 cups water', 0.5, '1 cup water'],
    ['2 cupcakes', 0.5, '1 cupcakes'],
    ['1.1 L water', 2, '2.2 L water'],
    ['0,5 kg carrots', 3, '1.5 kg carrots'],
    ['1,200 g lentils', 0.5, '600 g lentils'],
    ['2–3 onions', 2, '4–6 onions'],
    ['2 to 3 tins of 400 g', 2, '4 to 6 tins of 400 g'],
    ['250g lentils', 2, '500g lentils'],
    ['100 g', 1 / 3, '33 g'],
    ['oil for the pan', 2, undefined],
    ['00 flour, 200 g', 2, undefined],
    ['', 2, undefined],
  ])('%j times %d is %j', (line, times, words) => {
    expect(scaledLine(line, times)).toBe(words)
  })
})
