import { InputError } from '#core/errors'
import { readFoodFile, withLine, writeFoodFile } from '#server/foods/foodFileText'
import { exportFoods, foodList, foodPage, importFoods, removeOwn, saveCard, saveFood } from '#server/services/foods'
import { batchPage } from '#server/services/pages'
import { jarPage } from '#server/services/shelf'
import { Conflict, NotFound } from '#server/services/refusals'
import type { Context } from '#server/services/context'
import { testBook } from '../../support/logbook'

const HEAD = 'dulse: foods 1\n'
const OCA = `foods:
  - key: oca
    name: Oca
    family: root
    water: 83 ± 2
    trim: 10 ± 4
    waits: 20
    colour: '#D2A05A'
    forms:
      slices 3: 7 to 12
`
/** Takes a file in as the route does. */
async function take(context: Context, text: string) {
  const { file, lineOf } = await readFoodFile(text)
  try {
    return importFoods(context, file)
  } catch (error) {
    if (error instanceof InputError) throw new InputError(error.problems.map(problem => withLine(problem, lineOf)))
    throw error
  }
}
async function problems(act: () => unknown): Promise<string[]> {
  try {
    await act()
  } catch (error) {
    if (error instanceof InputError) return error.problems.map(problem => problem.message)
    throw error
  }
  return []
}

describe('foods as a file', () => {
  it('are taken in, listed, and given out as they came', async () => {
    const { context } = testBook()
    expect(await take(context, HEAD + OCA)).toEqual({ foods: 1, cards: 0, replaced: 0 })
    expect(foodList(context).find(food => food.key === 'oca')).toMatchObject({ name: 'Oca', own: true, water: { mean: 0.83, sd: 0.02 } })
    const text = writeFoodFile(exportFoods(context))
    const other = testBook().context
    expect(await take(other, text)).toEqual({ foods: 1, cards: 0, replaced: 0 })
    expect(writeFoodFile(exportFoods(other))).toBe(text)
    expect(await (await take(context, text)).replaced).toBe(1)
  })
  it('JSON is read as well', async () => {
    const { context } = testBook()
    expect(
      await take(context, JSON.stringify({ dulse: 'foods 1', cards: [{ food: 'tomato', form: 'slices 9', hours: '10 to 15' }] })),
    ).toEqual({
      foods: 0,
      cards: 1,
      replaced: 0,
    })
    expect(foodPage(context, 'tomato').food.cards.at(-1)).toMatchObject({ key: 'slices-9', own: true })
  })
  it('a food of the reference is given out to begin with', () => {
    expect(exportFoods(testBook().context, 'tomato').foods![0]).toMatchObject({ key: 'tomato', water: '94.5 ± 1' })
    expect(() => exportFoods(testBook().context, 'moonstone')).toThrow(NotFound)
  })

  it.each([
    ['a moisture of 130 %', OCA.replace('83 ± 2', '130 ± 2'), /^Line 5, foods\.0\.water: .*130 is not possible/],
    ['no spread', OCA.replace('83 ± 2', '83'), /^Line 5, foods\.0\.water: .*with its spread, such as “90 ± 1\.5”/],
    ['a spread of nothing', OCA.replace('83 ± 2', '83 ± 0'), /^Line 5, .*above zero/],
    ['negative hours', OCA.replace('7 to 12', '-7 to 12'), /^Line 10, foods\.0\.forms\.slices 3: .*not negative/],
    ['hours the wrong way round', OCA.replace('7 to 12', '12 to 7'), /^Line 10, .*the second the larger/],
    ['no hours', OCA.replace('slices 3: 7 to 12', 'slices 3: { thick: 3 }'), /^Line 10, .*Hours are missing/],
    ['a form that there is not', OCA.replace('slices 3', 'stacks 3'), /^Line 10, .*There is no form “stacks”: slices, /],
    ['a form without its number', OCA.replace('slices 3', 'slices'), /^Line 10, .*needs a number/],
    ['a family that there is not', OCA.replace('root', 'stone'), /^Line 4, foods\.0\.family: There is no family “stone”: gourd, /],
    ['a name of the reference', OCA.replace('name: Oca', 'name: carrot'), /^Line 3, foods\.0\.name: There is “Carrot” already/],
    ['a key of the reference', OCA.replace('key: oca', 'key: carrot'), /^Line 2, foods\.0\.key: “carrot” is Carrot of the reference/],
    ['a key of odd signs', OCA.replace('key: oca', 'key: O c a'), /^Line 2, foods\.0\.key: A key is of small letters/],
    ['a colour that is none', OCA.replace("'#D2A05A'", 'brown'), /^Line 8, foods\.0\.colour/],
    ['a field that is not one', `${OCA}    price: 3\n`, /foods\.0\.price: “price” is not a field/],
    ['a field that is missing', OCA.replace('    waits: 20\n', ''), /^Line 2, foods\.0\.waits: Give the days/],
    ['a school that there is not', `${OCA}    schools: [luck]\n`, /foods\.0\.schools: There is no question “luck”/],
  ])('%s is refused by field and line, and nothing is taken in', async (_, text, message) => {
    const { context } = testBook()
    // The head stands at the end here, so that the food begins at line 2.
    expect((await problems(() => take(context, `${text}${HEAD}`))).join('\n')).toMatch(message)
    expect(foodList(context).some(food => food.own)).toBe(false)
  })
  it('two of one name in a file are told apart by line', async () => {
    const twice = `${HEAD}${OCA}${OCA.replace('foods:\n', '').replace('key: oca', 'key: oca-2')}`
    expect(await problems(() => take(testBook().context, twice))).toEqual([
      'Line 13, foods.1.name: There is “Oca” already: two foods of one name cannot be told apart.',
    ])
  })
  it.each([
    ['a list', '- a\n- b\n', /begins with “dulse: foods 1”/],
    ['words', 'carrots are nice', /begins with “dulse: foods 1”/],
    ['another file', 'version: 3\nfoods: []\n', /dulse: A file of foods begins with/],
    ['broken YAML', `${HEAD}foods:\n  - name: "Oca\n`, /^Line \d+: this is not YAML/],
    ['nothing', '', /begins with/],
    ['foods that are no list', `${HEAD}foods: many\n`, /^Line 2, foods: Foods are a list/],
  ])('%s is refused as a file of the wrong shape', async (_, text, message) => {
    expect((await problems(() => take(testBook().context, text))).join('\n')).toMatch(message)
  })
  it('a file that unfolds without end is refused', async () => {
    const bomb = [
      'a: &a [x, x, x, x, x, x, x, x, x]',
      ...'bcdefgh'
        .split('')
        .map((letter, i) => `${letter}: &${letter} [${Array.from({ length: 9 }, () => `*${'abcdefg'[i]}`).join(', ')}]`),
    ].join('\n')
    expect((await problems(() => take(testBook().context, bomb))).length).toBeGreaterThan(0)
  })
})

describe('own foods in the log', () => {
  const source = {
    key: 'oca',
    name: 'Oca',
    family: 'root',
    water: '83 ± 2',
    trim: '10 ± 4',
    waits: 20,
    colour: '#D2A05A',
    forms: { 'slices 3': '7 to 12' },
  }
  it('are taken in like any other, to the jar', () => {
    const book = testBook()
    saveFood(book.context, source)
    const batchId = book.begin({ foodKey: 'oca', cardKey: 'slices-3' })
    expect(batchPage(book.context, batchId).food).toMatchObject({ name: 'Oca', own: true })
  })
  it('a change works through to its batches, and names the version it was made on', () => {
    const book = testBook()
    saveFood(book.context, source)
    const batchId = book.begin({ foodKey: 'oca', cardKey: 'slices-3' })
    expect(() => saveFood(book.context, { ...source, water: '80 ± 2' })).toThrow(Conflict)
    const page = saveFood(book.context, { ...source, name: 'Pink oca', water: '80 ± 2' }, 1)
    expect(page.version).toBe(2)
    expect(batchPage(book.context, batchId).food.rawMoisture.value.mean).toBeCloseTo(0.8, 9)
    expect(() => saveFood(book.context, { ...source, water: '70 ± 2' }, 1)).toThrow(Conflict)
  })
  it('a name that is taken is refused at the field', async () => {
    expect(await problems(() => saveFood(testBook().context, { ...source, name: 'Onion' }))).toEqual([
      'There is “Onion” already: two foods of one name cannot be told apart.',
    ])
  })
  it('what batches rest on stays, the rest can be taken away', () => {
    const book = testBook()
    saveFood(book.context, source)
    saveCard(book.context, { food: 'carrot', form: 'slices 9', hours: '14 to 22' })
    expect(() => saveCard(book.context, { food: 'carrot', form: 'slices 3', hours: '7 to 12' })).toThrow(InputError)
    book.begin({ foodKey: 'carrot', cardKey: 'slices-9' })
    expect(() => removeOwn(book.context, 'carrot', 'slices-9')).toThrow(Conflict)
    expect(() => removeOwn(book.context, 'carrot', 'slices-3')).toThrow(NotFound)
    expect(() => removeOwn(book.context, 'beetroot')).toThrow(NotFound)
    removeOwn(book.context, 'oca')
    expect(foodList(book.context).some(food => food.key === 'oca')).toBe(false)
  })
  it('pickings add up by plant and kind, and a part of a basket is not counted twice', () => {
    const book = testBook()
    const first = book.begin({ foodKey: 'hot-chili', cardKey: 'halves', plant: 'South bed', cultivar: 'Sparrow', weightG: 400 })
    book.begin({ foodKey: 'hot-chili', cardKey: 'halves', plant: 'South bed', cultivar: 'Sparrow', weightG: 350 }, 24)
    book.begin({ foodKey: 'hot-chili', cardKey: 'halves', plant: 'Pot', weightG: 90 }, 24)
    book.begin({ foodKey: 'hot-chili', cardKey: 'pieces-25', plant: 'South bed', cultivar: 'Sparrow', weightG: 100, from: first }, 25)
    expect(foodPage(book.context, 'hot-chili').pickings).toMatchObject([
      { plant: 'South bed', cultivar: 'Sparrow', baskets: 2, weightG: 750, year: '2026' },
      { plant: 'Pot', baskets: 1, weightG: 90 },
    ])
  })
  it('a caution accepted once is accepted in every batch after it', () => {
    const book = testBook()
    const first = book.begin({ foodKey: 'hot-chili', cardKey: 'halves' })
    const second = book.begin({ foodKey: 'hot-chili', cardKey: 'halves' }, 5)
    expect(batchPage(book.context, second).accepted).toEqual([])
    const { entry } = book.log(first, 6, { kind: 'caution', rule: 'gloves' })
    expect(batchPage(book.context, second).accepted).toEqual(['gloves'])
    book.log(first, 7, { kind: 'void', target: entry.id })
    expect(batchPage(book.context, second).accepted).toEqual([])
  })
  it('a jar under oil in the cold is best for four days', () => {
    const book = testBook()
    const batchId = book.begin({ foodKey: 'garlic', cardKey: 'slices-3' })
    const runId = '018f0000-0000-7000-8000-00000000000a'
    const jarId = '018f0000-0000-7000-8000-00000000000b'
    book.log(batchId, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1], totalG: 1700 })
    book.log(batchId, 12, { kind: 'unload', weightG: 700 })
    book.log(batchId, 13, { kind: 'grind', dryInG: 700, powderOutG: 680 })
    book.log(batchId, 14, { kind: 'pack', jarId, netG: 100, packageKey: 'screw-jar', place: 'Refrigerator', storageC: 4, inOil: true })
    const jar = jarPage(book.context, jarId)
    expect((jar.bestTo - jar.packedAt) / 86_400_000).toBeGreaterThan(3)
    expect((jar.bestTo - jar.packedAt) / 86_400_000).toBeLessThan(5.5)
  })
})

describe('the page of every food of the reference', () => {
  const book = testBook()
  it.each(foodList(book.context).map(food => [food.key, food] as const))(
    '%s says all there is to say, and nothing unsaid',
    (key, listed) => {
      const page = foodPage(book.context, key)
      expect(listed.water.mean).toBeGreaterThan(0)
      expect(listed.water.mean).toBeLessThan(1)
      expect(Array.isArray(listed.otherNames)).toBe(true)
      expect(page.food.name).toBe(listed.name)
      expect(page.food.cards.length).toBeGreaterThan(0)
      for (const card of page.food.cards) {
        expect(card.ways.length).toBeGreaterThan(0)
        for (const way of card.ways) expect(way.usualHours.value.high).toBeGreaterThanOrEqual(way.usualHours.value.low)
        expect(card.steps.length).toBeGreaterThan(0)
      }
      expect(Object.values(page.food.keepsMonths).every(months => months.high >= months.low && months.low > 0)).toBe(true)
      // Every sentence is whole: no figure that is none, no place that nothing was put in.
      expect(JSON.stringify(page)).not.toMatch(/undefined|NaN|\{n\}|\[object|:null[,}]/)
    },
  )
})
