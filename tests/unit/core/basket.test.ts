import fc from 'fast-check'
import { foldBatch } from '#core/batch'
import { cardOf, expandFood, mixedFood, questionsOf, usualOfFamily } from '#core/foods'
import type { EntryBody } from '#core/log'
import { cautionsAt } from '#core/safety'
import { readAmount } from '#core/using'
import { foodSource } from '#shared/contracts'
import { reference } from '#reference'
import { BOOK, findFood, FOODS } from '../../support/foods'
import { logOf } from '../../support/logbook'

const pumpkin = { each: { mean: 4000, sd: 1800 }, litre: { mean: 600, sd: 110 }, names: ['Pumpkin', 'Kürbis'] }
const read = (text: string, of: Parameters<typeof readAmount>[3] = pumpkin) => readAmount(text, 'g', 'us', of)

describe('how much came in, as people say it', () => {
  it.each([
    ['850', 850, 'weight'],
    ['1½ lb', 680.39, 'weight'],
    ['9 lb 3½ oz', 4181.56, 'weight'],
    ['6 pumpkins', 24_000, 'count'],
    ['6x', 24_000, 'count'],
    ['6 pieces', 24_000, 'count'],
    ['half a dozen', 24_000, 'count'],
    ['a dozen', 48_000, 'count'],
    ['two dozen pumpkins', 96_000, 'count'],
    ['a pumpkin', 4000, 'count'],
    ['1½ pumpkins', 6000, 'count'],
    ['2 qt', 1135.6, 'volume'],
    ['1 gal', 2271.2, 'volume'],
    ['3 L', 1800, 'volume'],
    ['2 cups', 283.9, 'volume'],
  ] as const)('%s is about %d g, by %s', (text, grams, by) => {
    const amount = read(text)
    expect(amount.value! / grams).toBeCloseTo(1, 2)
    expect(amount.by).toBe(by)
    // What was not weighed is not sure.
    expect(amount.sdG === undefined).toBe(by === 'weight')
  })
  it('many differ less, a hundred still as their plants do', () => {
    const share = (text: string) => read(text).sdG! / read(text).value!
    expect(share('1 pumpkin')).toBeCloseTo(0.45, 2)
    expect(share('4 pumpkins')).toBeCloseTo(0.45 * Math.sqrt(0.625), 2)
    expect(share('400 pumpkins')).toBeGreaterThan(0.3)
  })
  it('what is not known is asked, and nothing is guessed', () => {
    expect(read('6 pumpkins', { names: ['Pumpkin'] }).problem).toMatch(/What one of these weighs is not known/)
    expect(read('2 qt', {}).problem).toMatch(/What a litre/)
    for (const text of [
      '',
      'pumpkins',
      '0 pumpkins',
      'minus 3',
      '3 4 pumpkins',
      '5 stone',
      'a bushel',
      '2 baskets',
      '-2 pumpkins',
      '1.200 g',
    ])
      expect([text, read(text).value]).toEqual([text, undefined])
  })
  it.each([
    ['5 pounds of tomatoes', 2267.96],
    ['2 kg tomatoes', 2000],
    ['tomatoes, 2 kg', 2000],
    ['500 Gramm', 500],
    ['24 oz of paste', 680.39],
    ['three pounds', 1360.78],
    ['half a kilo', 500],
    ['a pound and a half', 680.39],
    ['sixty-five pounds', 29483.5],
    ['sixty five pounds', 29483.5],
    ['thirteen pounds', 5896.7],
    ['fünfundzwanzig Kilo', 25000],
    ['soixante-dix g', 70],
    ['vingt et un kg', 21000],
    ['two and a half pounds of plums.', 1133.98],
    ['three quarters of a pound', 340.19],
    ['5 lbs. of beans', 2267.96],
    ['zwei Pfund', 1000],
    ['anderthalb Kilo', 1500],
    ['une livre et demie', 750],
    ['un demi-kilo de poires', 500],
    ['trois kilogrammes', 3000],
    ['3 lb 4 oz of onions', 1474.18],
  ])('%s is %d g, by weight', (text, grams) => {
    const amount = read(text)
    expect([amount.by, amount.sdG]).toEqual(['weight', undefined])
    expect(amount.value! / grams).toBeCloseTo(1, 4)
  })
  it('what is smooth fills its vessel: two cups of purée are not two pumpkins', () => {
    const amount = read('2 cups of purée')
    expect(amount.by).toBe('volume')
    expect(amount.value).toBeCloseTo(2 * 0.236588 * 1030, -1)
    expect(read('zwei Liter').value).toBeCloseTo(1200, 0)
  })
  it('a count is of the food or of pieces; any other word is asked about', () => {
    expect(read('3 large ripe pumpkins').count).toBe(3)
    expect(read('3 Kürbisse', { ...pumpkin, names: ['Kürbis', 'Kürbisse'] }).count).toBe(3)
    for (const text of ['6 tomatoes', '3 slices', '2 cloves', '4 stalks', '2 bunches of pumpkin', '99999 kg', '12 of those things'])
      expect([text, read(text).value, typeof read(text).problem]).toEqual([text, undefined, 'string'])
  })
  it('more than a household dries is asked about once, and less is not', () => {
    expect(read('250 kg').doubt).toMatch(/Is 250/)
    expect(read('60 pumpkins').doubt).toMatch(/right\?/)
    expect(read('40 kg', { litre: { mean: 90, sd: 35 } }).doubt).toBeDefined()
    for (const text of ['100 kg', '6 pumpkins', '5 lb']) expect(read(text).doubt).toBeUndefined()
  })
  it('a text that names a unit of weight never gives a count', () => {
    const units = ['g', 'kg', 'oz', 'lb', 'lbs.', 'Gramm', 'kilos', 'pounds', 'Pfund', 'livres', 'ounces', 'grammes', 'onces']
    const words = ['pumpkins', 'pieces', 'of pumpkin', 'and 3 pumpkins', 'a dozen', 'x', '', '6 pieces', 'each']
    const figure = fc.oneof(fc.integer({ min: 1, max: 1e6 }).map(String), fc.constantFrom('three', 'a', 'half a', '1½', 'two dozen', ''))
    fc.assert(
      fc.property(
        fc.constantFrom(...words),
        figure,
        fc.constantFrom(...units),
        fc.constantFrom(...words),
        (before, amount, unit, after) => {
          const { by, count } = read(`${before} ${amount} ${unit} ${after}`)
          expect([by === 'count', count]).toEqual([false, undefined])
        },
      ),
      { numRuns: 2000 },
    )
  })
  it('every count and litre of the reference is of a food, and of a size that one knows', () => {
    const families = Object.keys(reference.families)
    for (const key of Object.keys(reference.measures.each)) expect(findFood(key)?.each?.value.mean).toBeGreaterThan(0.5)
    for (const key of Object.keys(reference.measures.litre)) expect(families.includes(key) || findFood(key) !== undefined).toBe(true)
    for (const food of FOODS) {
      expect(food.litre!.value.mean).toBeGreaterThan(20)
      expect(food.litre!.value.mean).toBeLessThan(1200)
    }
    // USDA portion weights, from memory: a medium egg in its shell 50 to 65 g, an apple about 180, a cup of blueberries 148 g, of milk 244.
    expect(findFood('apple')!.each!.value.mean).toBeCloseTo(180, -1)
    expect(read('1 cup', { litre: findFood('blueberry')!.litre!.value }).value!).toBeCloseTo(148, -1)
    expect(read('1 cup', { litre: findFood('milk-whole')!.litre!.value }).value!).toBeCloseTo(244, -1)
  })
  it('a count’s doubt is in what is to go on the trays until it is weighed', () => {
    const intake = (more: object): EntryBody => ({
      kind: 'intake',
      foodKey: 'pumpkin',
      source: 'Garden',
      weightG: 4000,
      purpose: 'powder',
      cardKey: 'roasted',
      ...more,
    })
    const width = (more: object) => {
      const { p10, p90 } = foldBatch(logOf([0, intake(more)]), findFood)!.balance.weightG
      return p90 / p10
    }
    expect(width({ weightSdG: 1800 })).toBeGreaterThan(1.8 * width({}))
  })
})

describe('several kinds in one basket', () => {
  const mix = (weightG: number, ...parts: { foodKey: string; weightG: number }[]) =>
    mixedFood(findFood('sweet-pepper')!, weightG, parts, findFood)
  it('are one food: water by weight, and for the rest the strictest of them', () => {
    const half = mix(1000, { foodKey: 'habanero', weightG: 500 })
    expect(half.name).toBe('Sweet red pepper and habanero')
    expect(half.rawMoisture.value.mean).toBeCloseTo(0.5 * 0.922 + 0.5 * 0.89, 6)
    expect(half.heatUnits).toEqual(findFood('habanero')!.heatUnits)
    expect(cautionsAt('prep', half).cares.map(rule => rule.key)).toEqual(['gloves', 'extreme'])
    expect(cautionsAt('prep', findFood('sweet-pepper')!).cares).toEqual([])
    // Half a percent of it still bites.
    expect(cautionsAt('grind', mix(1000, { foodKey: 'habanero', weightG: 5 })).cares.map(rule => rule.key)).toContain('chili-dust')
    expect(mix(1000, { foodKey: 'celery', weightG: 100 }).allergens).toContain('celery')
    expect(
      mix(1000, { foodKey: 'habanero', weightG: 200 }, { foodKey: 'onion', weightG: 200 }, { foodKey: 'tomato', weightG: 200 }).name,
    ).toBe('Sweet red pepper and 3 more kinds')
    expect(mix(1000)).toBe(findFood('sweet-pepper'))
  })
  it('stay one through the log, and once made are not made again', () => {
    const intake: EntryBody = {
      kind: 'intake',
      foodKey: 'sweet-pepper',
      source: 'Garden',
      weightG: 1000,
      purpose: 'powder',
      cardKey: 'pieces-25',
      mix: [{ foodKey: 'habanero', weightG: 300 }],
    }
    const state = foldBatch(logOf([0, intake]), findFood)!
    expect(state.food.traits).toContain('extreme')
    const again = foldBatch(logOf([0, intake]), () => state.food)!
    expect(again.food).toBe(state.food)
    expect(again.balance.solidsG.p50).toBeCloseTo(state.balance.solidsG.p50, 6)
  })
})

describe('a food of one’s own from its kind', () => {
  it.each(Object.keys(reference.families).map(key => [key]))(
    '%s: what the kind fills in is a food that may be saved, and dried',
    family => {
      const usual = usualOfFamily(reference.foods.filter(food => food.family === family))
      const source = { ...usual, key: 'mine', name: 'Mine', family }
      expect(foodSource.safeParse(source).error?.issues).toBeUndefined()
      const food = expandFood(source, reference, { own: true })
      expect(food.cards.length).toBeGreaterThan(0)
      expect(cardOf(food).usualHours.value.high).toBeGreaterThan(cardOf(food).usualHours.value.low)
      // Every food of the kind lies within three of its deviations.
      for (const other of FOODS.filter(item => item.group === family && item.key !== 'date'))
        expect(Math.abs(other.rawMoisture.value.mean - food.rawMoisture.value.mean)).toBeLessThan(4 * food.rawMoisture.value.sd + 0.01)
    },
  )
  it('of meat it asks for the strictest heat inside until it is known which', () => {
    expect(usualOfFamily(reference.foods.filter(food => food.family === 'meat'))).toMatchObject({
      traits: ['poultry', 'perishable', 'oil'],
    })
    expect(usualOfFamily(reference.foods.filter(food => food.family === 'dairy')).allergens).toEqual(['milk'])
    expect(usualOfFamily(reference.foods.filter(food => food.family === 'fish')).allergens![0]).toMatch(/fish|unknown/)
  })
})

describe('questions on which practitioners disagree', () => {
  const keys = (foodKey: string, use: Parameters<typeof questionsOf>[2] = {}) =>
    questionsOf(BOOK.schools, findFood(foodKey)!, use).map(({ key }) => key)
  const schools = (foodKey: string, question: string) =>
    questionsOf(BOOK.schools, findFood(foodKey)!)
      .find(({ key }) => key === question)!
      .schools.map(({ key }) => key)
  it('are asked only of what they concern: the food, its cut, what it is meant for, how it is dried', () => {
    expect(keys('pumpkin', { card: { feelForm: 'sheet' } })).toEqual(expect.arrayContaining(['turning', 'spreadOut', 'thickness']))
    expect(keys('pumpkin', { card: { feelForm: 'shreds' } })).not.toEqual(expect.arrayContaining(['turning']))
    expect(keys('apple', { purpose: 'powder' })).toEqual(expect.arrayContaining(['antiCaking', 'seedCup', 'powderDry', 'cleanMill']))
    expect(keys('apple', { purpose: 'pieces' })).not.toEqual(expect.arrayContaining(['powderDry']))
    expect(keys('apple', { way: 'freeze-dryer' })).toEqual(expect.arrayContaining(['freezerEnd', 'prefreeze']))
    expect(keys('apple', { way: 'oven' })).not.toContain('freezerEnd')
    // Nobody says of meat or milk that it keeps for years.
    for (const food of ['beef-cooked', 'milk-whole', 'rice-cooked', 'salmon-cooked']) expect(keys(food)).not.toContain('keepsHow')
  })
  it('an oven gladly is said of chilies, and not of lemons', () => {
    expect(schools('hot-chili', 'oven')).toContain('gladly')
    expect(schools('lemon', 'oven')).not.toContain('gladly')
  })
  it('beans and potatoes are blanched unless somebody says otherwise; carrots are not', () => {
    expect(schools('green-bean', 'blanch')).toEqual(['blanch', 'skip'])
    expect(schools('potato', 'blanch')[0]).toBe('blanch')
    expect(schools('carrot', 'blanch')[0]).toBe('skip')
  })
  it('every effect that a school has is of a school that is there, and moves a figure', () => {
    for (const question of BOOK.schools)
      for (const { effects } of question.schools)
        if (effects) expect(Object.values(effects).some(value => value !== 1 && value !== undefined)).toBe(true)
    for (const food of FOODS)
      for (const [question, school] of Object.entries(food.prefer))
        expect(BOOK.schools.find(({ key }) => key === question)!.schools.some(({ key }) => key === school)).toBe(true)
  })
})
