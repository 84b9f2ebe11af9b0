import { uuidv7 } from 'uuidv7'
import { kitchenPage } from '#server/services/kitchen'
import { rebuildProjections } from '#server/services/projections'
import { recipeList, recipesOnce, removeRecipe, saveRecipe } from '#server/services/recipes'
import { changeHousehold } from '#server/services/settings'
import { jarPage, recallPage, saveWish, shelfPage } from '#server/services/shelf'
import { jarLabel } from '#server/labels/words'
import type { DishRecipe, NewJarEntry } from '#shared/contracts'
import { testBook, type TestBook } from '../../support/logbook'

type Stock = Extract<NewJarEntry['body'], { kind: 'stock' }>
const buy = (book: TestBook, hours: number, foodKey: string, netG: number, more: Partial<Stock> = {}) => {
  const jarId = uuidv7()
  const id = uuidv7()
  book.onJar(
    jarId,
    hours,
    { kind: 'stock', jarId, foodKey, purpose: 'powder', netG, packageKey: 'screw-jar', place: 'Spice shelf', ...more },
    { id },
  )
  return { jarId, id }
}
const blend = (
  book: TestBook,
  hours: number,
  from: [jarId: string, weightG: number, toastedG?: number][],
  name = 'Rub',
  recipeId?: string,
) => {
  const jarId = uuidv7()
  book.onJar(jarId, hours, {
    kind: 'fill',
    jarId,
    packageKey: 'screw-jar',
    place: 'Spice shelf',
    blend: { name, recipeId },
    from: from.map(([source, weightG, toastedG]) => ({ jarId: source, weightG, ...(toastedG !== undefined && { toastedG }) })),
  })
  return jarId
}

describe('what was bought in', () => {
  it('stands on the shelf with its own figures, and its price goes into what is made of it', () => {
    const book = testBook()
    const { jarId } = buy(book, 1, 'other-spice', 40, {
      name: 'Harbour mix',
      saltShare: 0.25,
      heat: { low: 900, high: 1100 },
      price: 3,
      allergens: ['sesame'],
      source: 'Market',
    })
    expect(jarPage(book.context, jarId)).toMatchObject({
      foodName: 'Harbour mix',
      saltShare: 0.25,
      heat: { low: 900, high: 1100 },
      allergens: ['sesame'],
      packets: [{ price: 3, source: 'Market' }],
      pedigree: [],
    })
    expect(kitchenPage(book.context).jars[0]).toMatchObject({ foodName: 'Harbour mix', costPerG: 0.075, saltShare: 0.25 })
    expect(shelfPage(book.context).jars[0]!.name).toBe('Harbour mix')
    expect(saveWish(book.context, { foodKey: 'cumin', leastG: 30 }).find(item => item.foodKey === 'cumin')).toBeUndefined()
  })
  it('is corrected with all that was blended of it, and not voided from under it', () => {
    const book = testBook()
    const salt = buy(book, 1, 'salt', 100)
    const cumin = buy(book, 1, 'cumin', 50)
    const mix = blend(book, 5, [
      [salt.jarId, 10],
      [cumin.jarId, 30],
    ])
    expect(jarPage(book.context, mix).saltShare).toBeCloseTo(0.25, 9)
    book.onJar(
      salt.jarId,
      1,
      {
        kind: 'stock',
        jarId: salt.jarId,
        foodKey: 'salt',
        purpose: 'powder',
        netG: 100,
        packageKey: 'screw-jar',
        place: 'Spice shelf',
        saltShare: 0.5,
      },
      { replaces: salt.id },
    )
    expect(jarPage(book.context, mix).saltShare).toBeCloseTo(0.125, 9)
    const newest = jarPage(book.context, salt.jarId).entries.at(-1)!.id
    expect(() => book.onJar(salt.jarId, 6, { kind: 'void', target: newest })).toThrow(/was taken from this jar/)
    expect(() =>
      book.onJar(
        salt.jarId,
        1,
        { kind: 'stock', jarId: salt.jarId, foodKey: 'salt', purpose: 'powder', netG: 5, packageKey: 'screw-jar', place: 'Spice shelf' },
        { replaces: newest },
      ),
    ).toThrow(/More was taken/)
  })
  it('is no basket: nothing of it can be dried', () => {
    const book = testBook()
    expect(() => book.begin({ foodKey: 'cumin', cardKey: 'seeds' })).toThrow(/not a food in the reference/)
  })
})

describe('a blend in the logbook', () => {
  it('has a pedigree to baskets and packets, their allergens, the mean of their heat and cost, and a recall both ways', () => {
    const book = testBook()
    const { jarId: beetroot, batchId } = book.whole()
    const chili = buy(book, 1, 'hot-chili', 60, { price: 6, heat: { low: 20_000, high: 40_000 } })
    const mustard = buy(book, 1, 'mustard-powder', 60, { price: 3 })
    const mix = blend(book, 300, [
      [beetroot, 60],
      [chili.jarId, 20],
      [mustard.jarId, 20, 19.5],
    ])
    const page = jarPage(book.context, mix)
    expect(page.foodName).toBe('Rub')
    expect(page.leftG).toBeCloseTo(99.5, 9)
    expect(page.heat!.low).toBeCloseTo((20_000 * 20) / 99.5, 3)
    expect(page.allergens).toEqual(['mustard'])
    expect(page.pedigree.map(basket => basket.batchId)).toEqual([batchId])
    expect(page.packets.map(packet => packet.name).sort()).toEqual(['Hot red chili', 'Mustard powder'])
    expect(recallPage(book.context, batchId).jars.map(jar => jar.jarId)).toContain(mix)
    expect(
      recallPage(book.context, chili.jarId)
        .jars.map(jar => jar.jarId)
        .sort(),
    ).toEqual([chili.jarId, mix].sort())
    const inKitchen = kitchenPage(book.context).jars.find(jar => jar.jarId === mix)!
    const own = kitchenPage(book.context).jars.find(jar => jar.jarId === beetroot)!.costPerG!
    expect(inKitchen.costPerG).toBeCloseTo((60 * own + 20 * 0.1 + 19.5 * 0.05) / 99.5, 6)
    const label = jarLabel(book.context, mix, 'http://kitchen.local')
    expect(label.allergens).toMatch(/mustard/)
    expect(label.mixed).toMatch(/SHU/)
    expect(label.lot).toMatch(/^Batch 1 · jar/)
  })
  it('keeps mass over the whole shelf, and its views follow from the log alone', () => {
    const book = testBook()
    const a = buy(book, 1, 'cumin', 80)
    const b = buy(book, 1, 'salt', 200)
    const mix = blend(book, 2, [
      [a.jarId, 30],
      [b.jarId, 20],
    ])
    const twice = blend(
      book,
      3,
      [
        [mix, 25],
        [a.jarId, 10],
      ],
      'Rub of rubs',
    )
    expect(shelfPage(book.context).totalG).toBeCloseTo(280, 9)
    expect(jarPage(book.context, twice).packets).toHaveLength(2)
    const read = () =>
      ['jar_view', 'jar_part', 'jar_use'].map(table => book.context.db.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).all())
    const before = read()
    rebuildProjections(book.context)
    expect(read()).toEqual(before)
  })
  it('made twice by one recipe is one food of the shelf, and tops its own kind up', () => {
    const book = testBook()
    const recipeId = uuidv7()
    const a = buy(book, 1, 'cumin', 80)
    const b = buy(book, 1, 'salt', 200)
    const first = blend(
      book,
      2,
      [
        [a.jarId, 10],
        [b.jarId, 10],
      ],
      'Rub',
      recipeId,
    )
    const second = blend(
      book,
      3,
      [
        [a.jarId, 10],
        [b.jarId, 10],
      ],
      'Rub',
      recipeId,
    )
    book.onJar(first, 4, { kind: 'pour', jarId: first, from: { jarId: second, weightG: 5 } })
    expect(shelfPage(book.context).stock.find(item => item.foodName === 'Rub')).toMatchObject({ jars: 2, leftG: 40 })
    expect(() => book.onJar(first, 5, { kind: 'pour', jarId: first, from: { jarId: a.jarId, weightG: 5 } })).toThrow(
      /only like goes to like/,
    )
  })
  it('without a name is refused, since only like goes to like', () => {
    const book = testBook()
    const a = buy(book, 1, 'cumin', 80)
    const b = buy(book, 1, 'salt', 200)
    const jarId = uuidv7()
    expect(() =>
      book.onJar(jarId, 2, {
        kind: 'fill',
        jarId,
        packageKey: 'bag',
        place: 'x',
        from: [
          { jarId: a.jarId, weightG: 5 },
          { jarId: b.jarId, weightG: 5 },
        ],
      }),
    ).toThrow(/Give the blend a name/)
  })
  it.each<[string, Parameters<typeof blend>[2], RegExp]>([
    [
      'more than a jar holds',
      [
        ['a', 500],
        ['b', 5],
      ],
      /Only 80 g are left/,
    ],
    [
      'toasted heavier',
      [
        ['a', 10, 12],
        ['b', 5],
      ],
      /weighs less, not more/,
    ],
    [
      'toasted to nothing',
      [
        ['a', 10, 5],
        ['b', 5],
      ],
      /there was only/,
    ],
  ])('refuses %s', (_, from, words) => {
    const book = testBook()
    const ids: Record<string, string> = { a: buy(book, 1, 'cumin', 80).jarId, b: buy(book, 1, 'salt', 200).jarId }
    expect(() =>
      blend(
        book,
        2,
        from.map(([key, grams, toastedG]) => [ids[key]!, grams, toastedG]),
      ),
    ).toThrow(words)
    expect(shelfPage(book.context).totalG).toBe(280)
  })
})

describe('the pantry', () => {
  it('made damper ends leaky jars sooner at once, and made dry again gives their time back', () => {
    const book = testBook()
    const jarId = uuidv7()
    book.onJar(jarId, 0, { kind: 'stock', jarId, foodKey: 'onion', purpose: 'powder', netG: 60, packageKey: 'bag', place: 'Shelf' })
    const ends = () => (book.context.db.prepare('SELECT best_to FROM jar_view WHERE jar_id = ?').get(jarId) as { best_to: number }).best_to
    const usual = ends()
    const damp = changeHousehold(book.context, { pantryHumidity: 0.8, version: 1 })
    expect(ends()).toBeLessThan(usual)
    expect(damp.pantryHumidity).toBe(0.8)
    changeHousehold(book.context, { pantryHumidity: 0.55, version: damp.version })
    expect(ends()).toBe(usual)
  })
})

describe('recipes', () => {
  const dish = (): DishRecipe => ({
    id: uuidv7(),
    kind: 'dish',
    name: 'Broth',
    powders: [{ foodKey: 'celery', amount: { by: 'vessel', count: 2, vessel: 'teaspoon' } }],
    others: [],
    steps: ['Stir.'],
  })
  it('are kept, changed by version, sent twice without harm, and removed', () => {
    const { context } = testBook()
    const recipe = dish()
    expect(saveRecipe(context, recipe)).toMatchObject({ name: 'Broth', version: 1 })
    expect(saveRecipe(context, recipe).version).toBe(1)
    expect(saveRecipe(context, { ...recipe, name: 'Quay broth', version: 1 })).toMatchObject({ name: 'Quay broth', version: 2 })
    expect(() => saveRecipe(context, { ...recipe, name: 'Stale', version: 1 })).toThrow(/changed elsewhere/)
    expect(() => saveRecipe(context, { ...dish(), version: 3 })).toThrow(/no such recipe to change/)
    expect(recipeList(context).map(item => item.name)).toEqual(['Quay broth'])
    removeRecipe(context, recipe.id)
    expect(() => removeRecipe(context, recipe.id)).toThrow(/no such recipe/)
    // Both that it was are there, and the one that was removed says so; it comes back under a version of its own.
    expect(
      recipesOnce(context)
        .map(({ recipe: { name, version }, removed }) => [name, version, removed])
        .sort(),
    ).toEqual([
      ['Broth', 1, false],
      ['Quay broth', 2, true],
    ])
    expect(saveRecipe(context, recipe)).toMatchObject({ name: 'Broth', version: 3 })
    expect(recipesOnce(context).every(({ removed }) => !removed)).toBe(true)
  })
  it('may name a blend of the household, and nothing that nobody knows', () => {
    const book = testBook()
    const recipeId = uuidv7()
    blend(
      book,
      2,
      [
        [buy(book, 1, 'cumin', 80).jarId, 10],
        [buy(book, 1, 'salt', 200).jarId, 10],
      ],
      'Rub',
      recipeId,
    )
    expect(
      saveRecipe(book.context, { ...dish(), powders: [{ foodKey: `blend-${recipeId}`, amount: { by: 'weight', grams: 5 } }] }).version,
    ).toBe(1)
    expect(() =>
      saveRecipe(book.context, { ...dish(), powders: [{ foodKey: 'blend-nobody', amount: { by: 'weight', grams: 5 } }] }),
    ).toThrow(/neither a food/)
  })
})
