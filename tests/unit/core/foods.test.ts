import { FEEL_QUESTIONS } from '#core/dryness'
import { freezeCycle } from '#core/freezing'
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
    expect(lemon.cards.map(card => card.key)).toEqual(['slices-6', 'zest', 'peel-3', 'liquid'])
    expect(cardOf(lemon, 'zest').trimShare!.value.mean).toBeGreaterThan(0.8)
  })
  it('allergens are of the published lists (Regulation EU 1169/2011, annex II; US FASTER Act), or said to be unknown', () => {
    const LISTED = 'celery gluten crustacean egg fish lupin milk mollusc mustard nuts peanut sesame soya sulphites'.split(' ')
    const told = [...FOODS, ...BOOK.goods].flatMap(food => food.allergens)
    for (const allergen of told)
      expect(allergen.startsWith('unknown: ') || LISTED.includes(allergen.replace(/^may contain /, ''))).toBe(true)
    for (const carried of ['celery', 'mustard', 'egg', 'milk', 'fish', 'crustacean', 'mollusc', 'gluten', 'soya', 'sesame'])
      expect(told).toContain(carried)
    // Nobody knows what is in them: not the same as none.
    for (const key of ['stew', 'soup-thick', 'sausage-cooked', 'dried-slices', 'raisin'])
      expect(findFood(key)!.allergens[0]).toMatch(/^unknown/)
    expect(BOOK.product('other-spice')!.allergens[0]).toMatch(/^unknown/)
  })
  it('what is cooked first has water as bought and as cooked; dry pulses swell, meat shrinks', () => {
    for (const food of FOODS.filter(({ group, traits }) => group === 'meat' && !traits.includes('dairy'))) {
      if (['ham-cured', 'sausage-cooked'].includes(food.key)) continue
      expect(food.uncooked!.value.mean).toBeGreaterThan(food.rawMoisture.value.mean)
    }
    for (const key of ['black-beans-cooked', 'rice-cooked', 'pasta-cooked', 'lentil-cooked'])
      expect(findFood(key)!.uncooked!.value.mean).toBeLessThan(0.15)
  })
  it('perishable food dries at 60 °C and above, or under vacuum; none of it hangs in the air or lies in the sun', () => {
    for (const food of FOODS.filter(({ traits }) => traits.includes('perishable') || traits.includes('meat')))
      for (const { way, temperatureC } of food.cards.flatMap(card => card.ways)) {
        expect(['dehydrator', 'oven', 'smoker', 'freeze-dryer']).toContain(way)
        if (way !== 'freeze-dryer') expect([food.key, temperatureC >= 60]).toEqual([food.key, true])
      }
  })
  it('a card’s hours in a freeze dryer are those of its cycle with trays so full', () => {
    for (const food of FOODS)
      for (const card of food.cards) {
        const way = card.ways.find(item => item.way === 'freeze-dryer')
        if (!way) continue
        const moisture = (card.raw ? food.uncooked?.value : undefined) ?? card.moisture?.value ?? food.rawMoisture.value
        const load = {
          loadG: 1000 * card.trayLoadKgM2.mean,
          moisture: moisture.mean,
          areaM2: 1,
          thicknessMm: card.thicknessMm ?? 5,
          liquid: card.liquid,
          sugary: food.isotherm === 'sugaryFruit',
        }
        for (const frozen of card.liquid || card.raw ? [true] : [true, false]) {
          const { p50 } = freezeCycle({ ...load, frozen }).hours
          expect(p50).toBeGreaterThan(way.usualHours.value.low)
          expect(p50).toBeLessThan(way.usualHours.value.high)
        }
      }
    // Milk, 1.4 L a tray, about 40 h (common practice); sugary fruit 30 to 45 h with trays 10 mm deep.
    const { low, high } = cardOf(findFood('milk-whole')!, 'liquid').ways[0]!.usualHours.value
    expect(Math.sqrt(low * high)).toBeGreaterThan(30)
    expect(Math.sqrt(low * high)).toBeLessThan(45)
  })
  it('an oven gains leaves and scent more hours than meat, which is hot already (Arrhenius, 30 kJ/mol)', () => {
    const share = (key: string, cardKey: string, way: 'oven' | 'sun') => {
      const { ways } = cardOf(findFood(key)!, cardKey)
      const of = (kind: string) => ways.find(item => item.way === kind)!.usualHours.value
      return Math.sqrt((of(way).low * of(way).high) / (of('dehydrator').low * of('dehydrator').high))
    }
    expect(share('ginger', 'slices-3', 'oven')).toBeCloseTo(0.37, 1)
    expect(share('carrot', 'slices-3', 'oven')).toBeCloseTo(0.6, 1)
    expect(share('beef-cooked', 'mince', 'oven')).toBeCloseTo(0.83, 1)
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
    ['dried lemon', 'lemon'],
    ['fresh sliced apples', 'apple'],
    ['garlik, dry', 'garlic'],
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
    ['Greek yogurt', 'greek-yoghurt'],
    ['mashed potatoes', 'made-dish'],
    ['mac and cheese', 'macaroni-cheese'],
    ['leftover pasta', 'pasta-cooked'],
    ['chili con carne', 'stew'],
    ['chicken stock', 'bone-broth'],
    ['edamame', 'soya-bean'],
    ['fava beans', 'broad-bean'],
    ['lion’s mane', 'lions-mane'],
    ['bok choy', 'pak-choi'],
    ['raisins', 'raisin'],
    ['prunes', 'raisin'],
    ['plantains', 'plantain'],
    ['pepitas', 'pumpkin-seed'],
    ['applesauce', 'apple-sauce'],
    ['tart cherries', 'sour-cherry'],
    ['canned tuna', 'tuna-tinned'],
    ['yucca', 'cassava'],
    ['refried beans', 'refried-beans'],
    ['ham', 'ham-cured'],
    ['tomato puree', 'tomato-paste'],
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
    ['celery leaf', 'celery-leaf'],
    ['portobello', 'mushroom'],
    ['dill pickle', 'pickled-cucumber'],
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
    ['scotch bonnets', 'habanero'],
    ['kidney beans', 'kidney-beans-cooked'],
    ['leftover rice', 'rice-cooked'],
    ['hamburger', 'beef-cooked'],
    ['pulled pork', 'pork-cooked'],
    ['swede', 'rutabaga'],
    ['yam', 'true-yam'],
    ['mange tout', 'pea'],
    ['sultanas', 'raisin'],
    ['hibiscus', 'roselle'],
    ['yogurt', 'yoghurt'],
    ['portabella mushrooms', 'mushroom'],
    ['courgettes', 'zucchini'],
    ['beets', 'beetroot'],
    ['potatos', 'potato'],
    ['zuchinni', 'zucchini'],
    ['portobelo', 'mushroom'],
    ['leaf celery', 'celery-leaf'],
    ['hash browns', 'potato'],
    ['ancho chile', 'dried-mild-chili'],
    ['prawns', 'shrimp-cooked'],
    ['daikon', 'radish'],
    ['kabocha', 'kabocha'],
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

describe('words that every object knows', () => {
  it('are words to the search like any other', () => {
    const search = foodSearch(FOODS)
    for (const word of ['constructor', '__proto__', 'toString', 'hasOwnProperty', '{"constructor":1}'])
      expect(() => search(word)).not.toThrow()
  })
})
