import { FEEL_QUESTIONS } from '#core/dryness'
import { cardOf, expandFood, foodBook, parseRange, parseSpread, rangeText, slugOf, spreadText, TRAITS, type FoodSource } from '#core/foods'
import { foodSearch } from '#core/foods/search'
import { ISOTHERMS } from '#core/sorption'
import { foodFile } from '#shared/contracts'
import { reference } from '#reference'
import { BOOK, findFood, FOODS } from '../../support/foods'

describe('amounts as people write them', () => {
  it.each([
    ['94.5 ± 1', { mean: 94.5, sd: 1 }],
    ['94,5 +- 1,5', { mean: 94.5, sd: 1.5 }],
    [' 8±3 ', { mean: 8, sd: 3 }],
    ['12 +/- 2', { mean: 12, sd: 2 }],
    ['94.5', undefined],
    ['± 1', undefined],
    ['-4 ± 1', undefined],
    ['', undefined],
  ])('%j is a spread or none', (text, spread) => {
    expect(parseSpread(text)).toEqual(spread)
  })
  it.each([
    ['8 to 13', { low: 8, high: 13 }],
    ['8-13', { low: 8, high: 13 }],
    ['1.5–4', { low: 1.5, high: 4 }],
    ['13 to 8', undefined],
    ['8 to 8', undefined],
    ['-3 to 8', undefined],
    ['soon', undefined],
  ])('%j is a range or none', (text, range) => {
    expect(parseRange(text)).toEqual(range)
  })
  it('are written back as they are read', () => {
    expect(parseSpread(spreadText({ mean: 91.25, sd: 1.5 }))).toEqual({ mean: 91.25, sd: 1.5 })
    expect(parseRange(rangeText({ low: 0.5, high: 12 }))).toEqual({ low: 0.5, high: 12 })
  })
  it('names become keys', () => {
    expect(slugOf('Jalapeño, thin — for tea')).toBe('jalapeno-thin-for-tea')
  })
})

describe('the reference', () => {
  it('holds at least a hundred foods of every kind that is asked for', () => {
    expect(FOODS.length).toBeGreaterThanOrEqual(100)
    const groups = new Set(FOODS.map(food => food.group))
    for (const group of [
      'gourd',
      'root',
      'allium',
      'leaf',
      'stalk',
      'mushroom',
      'chili',
      'orchard',
      'citrus',
      'berry',
      'herb',
      'spice',
      'wateryFruit',
      'seaweed',
      'flower',
      'meat',
      'fish',
      'egg',
      'dairy',
      'dried',
      'starchy',
    ])
      expect(groups).toContain(group)
    expect(new Set(FOODS.map(food => food.name.toLowerCase())).size).toBe(FOODS.length)
    expect(new Set(FOODS.map(food => food.key)).size).toBe(FOODS.length)
  })
  it('is a file of its own form: what people may import', () => {
    const parsed = foodFile.safeParse({ dulse: 'foods 1', foods: reference.foods })
    expect(parsed.error?.issues.slice(0, 3)).toBeUndefined()
  })
  it.each(FOODS.map(food => [food.key] as const))('%s has nothing missing', key => {
    const food = findFood(key)!
    expect(food.rawMoisture.value.mean).toBeGreaterThan(0.05)
    expect(food.rawMoisture.value.mean).toBeLessThan(0.97)
    expect(food.rawMoisture.value.sd).toBeGreaterThan(0)
    for (const sourced of [food.rawMoisture, food.trimShare, food.freshDays, food.drynessTest, food.powderDensity])
      expect(sourced.source.length).toBeGreaterThan(5)
    expect(food.powderColour).toMatch(/^#[0-9A-F]{6}$/i)
    expect(ISOTHERMS[food.isotherm]).toBeDefined()
    expect(food.target.powder).toBeLessThanOrEqual(food.target.pieces)
    for (const trait of food.traits) expect(TRAITS).toContain(trait)
    for (const school of food.schools) expect(reference.schools[school]).toBeDefined()
    expect(food.cards.length).toBeGreaterThan(0)
    expect(new Set(food.cards.map(card => card.key)).size).toBe(food.cards.length)
    for (const card of food.cards) {
      expect(card.name).not.toMatch(/[{}]/)
      expect(FEEL_QUESTIONS[card.feelForm].length).toBeGreaterThan(0)
      expect(card.thicknessMm).toBeGreaterThan(0)
      expect(card.trayLoadKgM2.mean).toBeGreaterThan(0.2)
      expect(card.steps.length).toBeGreaterThan(0)
      expect(card.steps.every(step => !step.words.includes('{'))).toBe(true)
      expect(card.spread.length).toBeGreaterThan(5)
      expect(card.ways.length).toBeGreaterThan(0)
      for (const way of card.ways) {
        expect(way.usualHours.value.high).toBeGreaterThan(way.usualHours.value.low)
        expect(way.usualHours.source.length).toBeGreaterThan(5)
        expect(way.temperatureReason.length).toBeGreaterThan(5)
        expect(way.temperatureC).toBeGreaterThan(15)
      }
    }
  })
  it('chilies go from sweet to extreme', () => {
    const units = FOODS.filter(food => food.heatUnits).map(food => food.heatUnits!.value)
    expect(Math.min(...units.map(range => range.high))).toBeLessThan(200)
    expect(Math.max(...units.map(range => range.high))).toBeGreaterThan(1_000_000)
  })
  it('citrus is sliced with its pith or zested without', () => {
    const lemon = findFood('lemon')!
    expect(lemon.cards.map(card => card.key)).toEqual(['slices-6', 'zest'])
    expect(cardOf(lemon, 'zest').trimShare!.value.mean).toBeGreaterThan(0.8)
  })
  it('allergens are carried: celery, mustard, egg, milk, fish, crustacean, mollusc', () => {
    expect(new Set(FOODS.flatMap(food => food.allergens))).toEqual(
      new Set(['celery', 'mustard', 'egg', 'milk', 'fish', 'crustacean', 'mollusc']),
    )
  })
  it('every question on which practitioners disagree has two schools or more, the default first', () => {
    for (const question of BOOK.schools) {
      expect(question.schools.length).toBeGreaterThanOrEqual(2)
      for (const school of question.schools) expect(school.reason.length).toBeGreaterThan(20)
      expect(question.schools[0]!.reason).toMatch(/^The default/)
    }
  })
  it('the cards that older logs name are there still', () => {
    for (const [food, card] of [
      ['beetroot', 'slices-3'],
      ['hot-chili', 'pieces-25'],
      ['apple', 'rings-5'],
      ['tomato', 'skins'],
      ['pumpkin', 'sheet'],
      ['parsley', 'leaves'],
      ['zucchini', 'shreds'],
    ] as const)
      expect(cardOf(findFood(food)!, card).key).toBe(card)
  })
})

describe('the search', () => {
  const search = foodSearch(FOODS)
  it.each([
    ['courgette', 'zucchini'],
    ['zuchini', 'zucchini'],
    ['Aubergin', 'eggplant'],
    ['chipotle', 'jalapeno'],
    ['JALAPENO', 'jalapeno'],
    ['birds eye', 'thai-chili'],
    ['cilantro', 'coriander-leaf'],
    ['rutabaga', 'rutabaga'],
    ['neep', 'rutabaga'],
    ['cep', 'porcini'],
    ['prawn', 'shrimp-cooked'],
    ['tomatoe', 'tomato'],
    ['onoin', 'onion'],
    ['brocoli', 'broccoli'],
    ['kombu', 'kelp'],
    ['passata', 'tomato-sauce'],
    ['ramsons', 'wild-garlic'],
    // As people say it in their kitchens; written before the names were.
    ['yellow squash', 'zucchini'],
    ['crookneck', 'zucchini'],
    ['neck pumpkin', 'butternut'],
    ['pie pumpkin', 'pumpkin'],
    ['aji', 'hot-chili'],
    ['Anaheim', 'green-chili'],
    ['Hatch', 'green-chili'],
    ['New Mexico chile', 'green-chili'],
    ['green chile', 'green-chili'],
    ['green chilies', 'green-chili'],
    ['roma', 'tomato'],
    ['Roma tomatoes', 'tomato'],
    ['celery leaf', 'celery'],
    ['portobello', 'mushroom'],
    ['dill pickle', 'cucumber'],
    ['2 % milk', 'milk-skim'],
    ['2% milk', 'milk-skim'],
    ['chilies', 'hot-chili'],
    ['chili', 'hot-chili'],
    ['chillies', 'hot-chili'],
    ['tomatoes', 'tomato'],
    ['cherries', 'cherry'],
    ['peaches', 'peach'],
    ['strawberries', 'strawberry'],
    ['chives', 'chive'],
    ['scallions', 'spring-onion'],
    ['bell peppers', 'sweet-pepper'],
    ['yellow pepper', 'sweet-pepper'],
    ['orange zest', 'orange'],
    ['lemon peel', 'lemon'],
    ['snow peas', 'pea'],
    ['string beans', 'green-bean'],
    ['carolina reaper', 'super-hot-chili'],
    ['scotch bonnets', 'habanero'],
    ['kidney beans', 'black-beans-cooked'],
    ['leftover rice', 'rice-cooked'],
    ['hamburger', 'beef-cooked'],
    ['pulled pork', 'pork-cooked'],
    ['swede', 'rutabaga'],
    ['yam', 'sweet-potato'],
    ['mange tout', 'pea'],
    ['sultanas', 'grape'],
    ['hibiscus', 'roselle'],
    ['yogurt', 'yoghurt'],
    ['portabella mushrooms', 'mushroom'],
    ['courgettes', 'zucchini'],
    ['beets', 'beetroot'],
    ['potatos', 'potato'],
    ['zuchinni', 'zucchini'],
    ['portobelo', 'mushroom'],
    ['leaf celery', 'celery'],
    ['hash browns', 'potato'],
    ['ancho chile', 'dried-mild-chili'],
    ['prawns', 'shrimp-cooked'],
    ['daikon', 'radish'],
    ['kabocha', 'winter-squash'],
    ['mixed pepper', 'sweet-pepper'],
  ])('%s finds %s first', (words, key) => {
    expect(search(words)[0]?.key).toBe(key)
  })
  it('every name of every food finds it, and no name means two foods first', () => {
    const lost = FOODS.flatMap(food =>
      [food.name, ...food.otherNames, ...food.foundBy].flatMap(name =>
        search(name).slice(0, 2).includes(food) ? [] : [`${name}: ${food.key}`],
      ),
    )
    expect(lost).toEqual([])
    expect(FOODS.reduce((sum, food) => sum + food.foundBy.length, 0)).toBeGreaterThan(600)
    // A key in the file of names that is no food would be lost without a word.
    expect(Object.keys(reference.names).filter(key => !findFood(key))).toEqual([])
  })
  it('gives all for nothing, and nothing for what is not there', () => {
    expect(search('  ')).toHaveLength(FOODS.length)
    expect(search('xylophone')).toEqual([])
  })
})

describe('foods of one’s own', () => {
  const own: FoodSource = {
    key: 'oca',
    name: 'Oca',
    family: 'root',
    water: '83 ± 2',
    trim: '10 ± 4',
    waits: 20,
    colour: '#D2A05A',
    forms: { 'slices 3': '7 to 12', 'sticks 8': { hours: '10 to 18', oven: '5 to 9' } },
  }
  it('are filled in from their family, and say that they are', () => {
    const food = foodBook(reference, { foods: [own] }).find('oca')!
    expect(food).toMatchObject({ own: true, group: 'root', isotherm: 'wateryVegetable', rawMoisture: { value: { mean: 0.83, sd: 0.02 } } })
    expect(food.cards.map(card => [card.key, card.name])).toEqual([
      ['slices-3', '3 mm slices'],
      ['sticks-8', '8 mm sticks'],
    ])
    expect(food.cards[1]!.ways.find(way => way.way === 'oven')!.usualHours.value).toEqual({ low: 5, high: 9 })
    expect(food.cards[0]!.ways.find(way => way.way === 'oven')!.usualHours).toEqual({
      value: { low: 4, high: 7 },
      source: 'common practice, reckoned from those in a dehydrator',
    })
  })
  it('an own card stands beside those of the reference', () => {
    const book = foodBook(reference, { cards: [{ food: 'tomato', form: 'slices 9', hours: '10 to 15', name: 'Nine' }] })
    const cards = book.find('tomato')!.cards
    expect(cards.at(-1)).toMatchObject({ key: 'slices-9-nine', name: 'Nine', own: true, thicknessMm: 9 })
    expect(cards).toHaveLength(findFood('tomato')!.cards.length + 1)
    expect(book.find('carrot')).toEqual(findFood('carrot'))
  })
  it('a slip in a file is told with the food', () => {
    expect(() => expandFood({ ...own, family: 'stone' }, reference)).toThrow('oca: no family “stone”')
    expect(() => expandFood({ ...own, water: 'much' }, reference)).toThrow('oca: “much”')
    expect(() => expandFood({ ...own, forms: { 'stacks 3': '3 to 4' } }, reference)).toThrow('no form “stacks 3”')
  })
})
