import { uuidv7 } from 'uuidv7'
import { InputError } from '#core/errors'
import type { EntryBody } from '#core/log'
import { jarLabel } from '#server/labels/words'
import { jarPage, shelfPage } from '#server/services/shelf'
import { freshnessOf } from '#core/keeping'
import { kitchenPage } from '#server/services/kitchen'
import { rebuildProjections } from '#server/services/projections'
import { saveMachine } from '#server/services/settings'
import { logTogether } from '#server/services/writeLog'
import { testBook, type TestBook } from '../../support/logbook'

/** How a rule is gone around: the same deed by each way in that would do it. */
const refusal = (act: () => unknown): string => {
  try {
    act()
    return 'taken'
  } catch (error) {
    if (error instanceof InputError) return error.problems.map(problem => `${problem.code}: ${problem.message}`).join(' ')
    throw error
  }
}
const jarOf = (jarId: string, more: object = {}): EntryBody =>
  ({ kind: 'pack', jarId, netG: 40, packageKey: 'screw-jar', place: 'Shelf', sizeMl: 250, storageC: 18, ...more }) as EntryBody

/** A batch from basket to powder in the bowl, at hours from its beginning. */
function ground(
  book: TestBook,
  foodKey: string,
  cardKey: string,
  {
    from = 0,
    weightG = 2000,
    prep = [],
    dryG = 220,
    grind = {},
    choose,
  }: {
    from?: number
    weightG?: number
    prep?: object[]
    dryG?: number
    grind?: object
    choose?: [string, string]
  } = {},
) {
  const batchId = book.begin({ foodKey, cardKey, weightG }, from)
  const runId = uuidv7()
  const [usual] = book.context.foods.find(foodKey)!.cards.find(card => card.key === cardKey)!.ways
  const way = usual!.way === 'dehydrator' ? {} : { way: 'dehydrator' as const }
  if (choose) book.log(batchId, from, { kind: 'choose', question: choose[0], school: choose[1] })
  prep.forEach((step, i) => book.log(batchId, from + 0.1 + i * 0.05, { kind: 'prep', effect: 'none', ...step } as never))
  book.log(batchId, from + 0.4, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2], totalG: weightG * 0.9, ...way })
  book.heat(runId, from + 0.4, 68)
  book.log(batchId, from + 12, { kind: 'weigh', totalG: dryG + 2 })
  book.log(batchId, from + 14, { kind: 'weigh', totalG: dryG })
  book.log(batchId, from + 14.1, { kind: 'unload', weightG: dryG })
  book.log(batchId, from + 14.2, { kind: 'grind', dryInG: dryG, powderOutG: dryG - 6, ...grind })
  return { batchId, runId }
}
function packed(book: TestBook, foodKey: string, cardKey: string, more: Parameters<typeof ground>[3] = {}, jar: object = {}) {
  const made = ground(book, foodKey, cardKey, more)
  const jarId = uuidv7()
  book.log(made.batchId, (more.from ?? 0) + 15, jarOf(jarId, jar) as never)
  return { ...made, jarId }
}
const label = (book: TestBook, jarId: string) => jarLabel(book.context, jarId, 'http://dulse.test')

describe('too long in the warm', () => {
  it.each(['load', 'prep', 'split', 'together'] as const)('lets nothing be done by %s, until the log is mended', way => {
    const book = testBook()
    const batchId = book.begin({ foodKey: 'rice-cooked', cardKey: book.context.foods.find('rice-cooked')!.cards[0]!.key }, 0)
    book.log(batchId, 0, { kind: 'hold', place: 'counter' })
    const load = { kind: 'load' as const, runId: uuidv7(), machineId: book.machineId, positions: [1], totalG: 1800 }
    const acts = {
      load: () => book.log(batchId, 8, load),
      prep: () => book.log(batchId, 8, { kind: 'prep', step: 'cook', effect: 'none', coreC: 90 }),
      split: () => book.log(batchId, 8, { kind: 'split', to: uuidv7(), weightG: 300 }),
      together: () => logTogether(book.context, { entries: [{ batchId, entry: { id: uuidv7(), at: book.at(8), body: load } }] }),
    }
    expect(refusal(acts[way])).toMatch(/stop-too-warm: .*toxins.*Discard it/)
    expect(refusal(() => book.log(batchId, 8, { kind: 'note', text: 'Smells fine' }))).toBe('taken')
    const { entry } = book.log(batchId, 8, { kind: 'hold', place: 'counter' })
    book.log(batchId, 8, { kind: 'void', target: entry.id })
    const [first] = book.context.db.prepare(`SELECT id FROM entry WHERE kind = 'hold' AND batch_id = ? ORDER BY seq`).all(batchId) as {
      id: string
    }[]
    book.log(batchId, 0, { kind: 'hold', place: 'refrigerator' }, { replaces: first!.id })
    expect(refusal(acts[way])).toBe('taken')
  })
  it('what was packed before the log was put right is marked on jar, label and kitchen, and nothing is taken of it', () => {
    const book = testBook()
    const { batchId, jarId } = packed(book, 'chickpea-cooked', book.context.foods.find('chickpea-cooked')!.cards[0]!.key, { dryG: 700 })
    expect(label(book, jarId).best).toMatch(/^Best/)
    // Somebody remembers: it had stood since the evening before.
    const intake = book.context.db.prepare(`SELECT id, body FROM entry WHERE kind = 'intake' AND batch_id = ?`).get(batchId) as {
      id: string
      body: string
    }
    book.log(batchId, -10, JSON.parse(intake.body) as never, { replaces: intake.id })
    book.log(batchId, -10, { kind: 'hold', place: 'counter' })
    expect(jarPage(book.context, jarId)).toMatchObject({
      warm: true,
      bestLimit: 'warm',
      bestBy: { reason: expect.stringMatching(/discard it/) },
    })
    expect(label(book, jarId).best).toBe('DISCARD: too long in the warm')
    expect(kitchenPage(book.context).jars.find(jar => jar.jarId === jarId)).toMatchObject({ warm: true })
    // The shelf says the same as the jar.
    expect(
      freshnessOf(
        shelfPage(book.context).jars.find(jar => jar.jarId === jarId)!,
        book.at(20),
      ),
    ).toBe('spoiled')
    const other = uuidv7()
    for (const act of [
      () => book.onJar(jarId, 20, { kind: 'take', jarId, weightG: 5 }),
      () => book.onJar(other, 20, { kind: 'fill', jarId: other, from: [{ jarId, weightG: 5 }], packageKey: 'screw-jar', place: 'Shelf' }),
    ])
      expect(refusal(act)).toMatch(/stop-too-warm.*discard it, untasted/)
    expect(refusal(() => book.onJar(jarId, 21, { kind: 'discard', jarId, cause: 'too long in the warm' }))).toBe('taken')
  })
})

describe('allergens go where the food goes', () => {
  it('what is said of a batch reaches its jar, a blend of it, the kitchen and the label; unknown is answered', () => {
    const book = testBook()
    const sausage = packed(book, 'stew', 'meal-15', { dryG: 600 })
    expect(label(book, sausage.jarId).allergens).toMatch(/unknown: ask the cook/)
    book.log(sausage.batchId, 16, { kind: 'contains', allergens: ['celery', 'mustard'], all: true })
    expect(label(book, sausage.jarId).allergens).toBe('Contains celery, mustard')
    const blend = uuidv7()
    book.onJar(blend, 17, {
      kind: 'fill',
      jarId: blend,
      from: [{ jarId: sausage.jarId, weightG: 10 }],
      packageKey: 'screw-jar',
      place: 'Shelf',
      storageC: 18,
      blend: { name: 'Pot mix' },
    })
    book.onJar(blend, 18, { kind: 'contains', jarId: blend, allergens: ['nuts'] })
    expect(jarPage(book.context, blend).allergens).toEqual(['celery', 'mustard', 'nuts'])
    // What was said of the jar itself is told apart, so that a form can begin with it.
    expect(jarPage(book.context, blend).contains).toEqual({ allergens: ['nuts'], all: false })
    // Taken back it goes.
    book.log(sausage.batchId, 19, { kind: 'contains', allergens: [], all: true })
    expect(jarPage(book.context, blend).allergens).toEqual(['nuts'])
    expect(kitchenPage(book.context).jars.find(jar => jar.jarId === blend)!.allergens).toEqual(['nuts'])
    expect(label(book, sausage.jarId).allergens).toBeUndefined()
  })
  it('dust of the mill comes along until it was washed; a brush does not end it', () => {
    const grinderId = undefined
    const marks = (cleaned?: 'washed' | 'brushed') => {
      const book = testBook()
      packed(book, 'celery', 'slices-6', { dryG: 120 })
      const { jarId } = packed(book, 'beetroot', 'slices-3', { from: 40, grind: { cleaned, grinderId } })
      // On other trays, washed between.
      return jarPage(book.context, jarId).allergens.filter(name => name.includes('celery'))
    }
    expect(marks()).toEqual(['may contain celery'])
    expect(marks('brushed')).toEqual(['may contain celery'])
    // The dryer's trays were never washed: they tell of it too.
    expect(marks('washed')).toEqual(['may contain celery'])
  })
  it('washed mill and washed trays leave nothing, and a wash that is logged later clears it', () => {
    const book = testBook()
    const celery = packed(book, 'celery', 'slices-6', { dryG: 120 })
    const { jarId } = packed(book, 'beetroot', 'slices-3', { from: 40, grind: { cleaned: 'washed' } })
    expect(jarPage(book.context, jarId).allergens).toEqual(['may contain celery'])
    logTogether(book.context, {
      entries: [
        {
          runId: celery.runId,
          entry: { id: uuidv7(), at: book.at(20), body: { kind: 'tick', runId: celery.runId, list: 'end', item: 'wash' } },
        },
      ],
    })
    expect(jarPage(book.context, jarId).allergens).toEqual([])
    // The same by working it all out anew.
    rebuildProjections(book.context)
    expect(jarPage(book.context, jarId).allergens).toEqual([])
  })
  it('what an earlier batch is said to contain later is told of those after it, and survives a rebuild', () => {
    const book = testBook()
    const first = packed(book, 'carrot', 'slices-3', { dryG: 200 })
    const { jarId } = packed(book, 'beetroot', 'slices-3', { from: 40 })
    expect(jarPage(book.context, jarId).allergens).toEqual([])
    book.log(first.batchId, 70, { kind: 'contains', allergens: ['soya'] })
    expect(jarPage(book.context, jarId).allergens).toEqual(['may contain soya'])
    rebuildProjections(book.context)
    expect(jarPage(book.context, jarId).allergens).toEqual(['may contain soya'])
  })
  it('in a freeze dryer the trays beside it leave nothing, in whatever order they went in', () => {
    const book = testBook()
    const machineId = uuidv7()
    saveMachine(book.context, {
      id: machineId,
      name: 'Chamber',
      kind: 'freeze-dryer',
      trays: 4,
      trayAreaM2: 0.1,
      trayTareG: 0,
      trayTares: {},
      watts: 900,
      lowC: 20,
      highC: 60,
      iceG: 4000,
    } as never)
    const runId = uuidv7()
    const begin = (foodKey: string) => book.begin({ foodKey, cardKey: book.context.foods.find(foodKey)!.cards[0]!.key, weightG: 900 }, 0)
    const [milk, berries] = [begin('milk-whole'), begin('strawberry')]
    book.log(milk, 0.4, { kind: 'load', runId, machineId, positions: [1], totalG: 880, frozen: [1] })
    const usual = book.context.foods.find('strawberry')!.cards[0]!.ways[0]!.way
    book.log(berries, 0.5, {
      kind: 'load',
      runId,
      machineId,
      positions: [2],
      totalG: 780,
      frozen: [2],
      ...(usual !== 'freeze-dryer' && { way: 'freeze-dryer' }),
    })
    const row = book.context.db.prepare(`SELECT json_extract(product, '$.allergens') AS a FROM batch_view WHERE batch_id = ?`)
    expect([milk, berries].map(id => JSON.parse((row.get(id) as { a: string }).a) as string[])).toEqual([['milk'], []])
  })
  it('what lies beside it in warm air drips', () => {
    const book = testBook()
    const a = book.begin({ foodKey: 'celery', cardKey: 'slices-6', weightG: 800 }, 0)
    const b = book.begin({ foodKey: 'carrot', cardKey: 'slices-3', weightG: 800 }, 0)
    const runId = uuidv7()
    book.log(b, 0.4, { kind: 'load', runId, machineId: book.machineId, positions: [2], totalG: 700 })
    book.log(a, 0.5, { kind: 'load', runId, machineId: book.machineId, positions: [1], totalG: 700 })
    const allergens = book.context.db
      .prepare(`SELECT json_extract(product, '$.allergens') AS a FROM batch_view WHERE batch_id = ?`)
      .get(b) as { a: string }
    expect(JSON.parse(allergens.a)).toEqual(['may contain celery'])
  })
})

it('a jar in which mould was seen bears no date', () => {
  const book = testBook()
  const { jarId } = book.whole()
  book.onJar(jarId, 200, { kind: 'lookJar', jarId, saw: 'mould' })
  expect(label(book, jarId).best).toBe('DISCARD: see its page')
})

describe('in oil', () => {
  const oiled = (storageC: number) => {
    const book = testBook()
    return { book, ...packed(book, 'garlic', 'slices-3', { dryG: 700 }, { inOil: true, storageC }) }
  }
  it('its label says so with its day, and it keeps its clock when it moves', () => {
    const { book, jarId } = oiled(4)
    expect(label(book, jarId).best).toMatch(/^In oil, keep cold, until 1[01] Oct 2026$/)
    const until = () => (jarPage(book.context, jarId).bestTo - book.at(15)) / 86_400_000
    expect(until()).toBeCloseTo(4, 1)
    book.onJar(jarId, 15 + 48, { kind: 'moveJar', jarId, place: 'Second refrigerator', storageC: 3 })
    expect(until()).toBeCloseTo(4, 1)
    // Frozen after half of it: half of its days are left when it thaws.
    book.onJar(jarId, 15 + 49, { kind: 'moveJar', jarId, place: 'Freezer', storageC: -18 })
    expect(until()).toBeGreaterThan(30)
    book.onJar(jarId, 15 + 49 + 24, { kind: 'moveJar', jarId, place: 'Refrigerator', storageC: 4 })
    expect(until()).toBeLessThan(5.2)
  })
  it('it goes to no shelf, by whatever way in, and is not taken from once its days are over', () => {
    const { book, jarId } = oiled(4)
    expect(refusal(() => book.onJar(jarId, 16, { kind: 'moveJar', jarId, place: 'Pantry', storageC: 18 }))).toMatch(/stop-oil: /)
    expect(refusal(() => book.onJar(jarId, 16, { kind: 'moveJar', jarId, place: 'Pantry' }))).toMatch(/stop-oil: /)
    const other = uuidv7()
    const fill = (storageC?: number): Parameters<TestBook['onJar']>[2] => ({
      kind: 'fill',
      jarId: other,
      from: [{ jarId, weightG: 5 }],
      packageKey: 'screw-jar',
      place: 'Shelf',
      storageC,
    })
    expect(refusal(() => book.onJar(other, 17, fill(18)))).toMatch(/stop-oil: /)
    expect(refusal(() => book.onJar(other, 17, fill(4)))).toBe('taken')
    expect(jarPage(book.context, other).inOil).toBe(true)
    expect(refusal(() => book.onJar(jarId, 20, { kind: 'take', jarId, weightG: 5 }))).toBe('taken')
    for (const [id, act] of [
      [jarId, { kind: 'take', jarId, weightG: 5 }],
      [other, { kind: 'take', jarId: other, weightG: 2 }],
      [jarId, { kind: 'moveJar', jarId, place: 'Cellar', storageC: 4 }],
    ] as const)
      expect(refusal(() => book.onJar(id, 15 + 5 * 24, act as never))).toMatch(/oil-over: .*Discard it, untasted/)
    expect(refusal(() => book.onJar(jarId, 15 + 5 * 24, { kind: 'discard', jarId, cause: 'days over' }))).toBe('taken')
  })
})

describe('without oxygen', () => {
  it('is judged by water activity with its doubt at pack, fill, pour and move, by one rule', () => {
    const book = testBook()
    // Nobody weighed what came out: it may be anything.
    const damp = packed(book, 'beetroot', 'slices-3', { dryG: 650 })
    const how = { packageKey: 'foil-bag' as const, place: 'Shelf', storageC: 18 }
    expect(refusal(() => book.log(damp.batchId, 16, jarOf(uuidv7(), { packageKey: 'foil-bag' }) as never))).toMatch(/stop-no-oxygen/)
    expect(refusal(() => book.log(damp.batchId, 16, jarOf(uuidv7(), { absorberCc: 100 }) as never))).toMatch(/stop-no-oxygen/)
    const other = uuidv7()
    expect(refusal(() => book.onJar(other, 17, { kind: 'fill', jarId: other, from: [{ jarId: damp.jarId, weightG: 5 }], ...how }))).toMatch(
      /stop-no-oxygen/,
    )
    // In the freezer it may be, and then it may not leave it.
    expect(
      refusal(() =>
        book.onJar(other, 17, { kind: 'fill', jarId: other, from: [{ jarId: damp.jarId, weightG: 5 }], ...how, storageC: -18 }),
      ),
    ).toBe('taken')
    expect(refusal(() => book.onJar(other, 18, { kind: 'moveJar', jarId: other, place: 'Pantry', storageC: 18 }))).toMatch(/stop-no-oxygen/)
    const dry = packed(book, 'beetroot', 'slices-3', { from: 100, dryG: 225 }, { packageKey: 'foil-bag' })
    expect(refusal(() => book.onJar(dry.jarId, 140, { kind: 'pour', jarId: dry.jarId, from: { jarId: damp.jarId, weightG: 5 } }))).toMatch(
      /stop-no-oxygen|damper/,
    )
    expect(jarPage(book.context, dry.jarId).packageKey).toBe('foil-bag')
  })
})

describe('what whoever opens the jar must know', () => {
  it.each([
    ['star-fruit', 'slices-6', /Not with kidney disease/, /kidney disease/],
    ['grapefruit', 'slices-6', /changes how medicines act/, /pharmacist/],
    ['broad-bean', 'whole', /Not with favism/, /favism/],
    ['elderberry', 'whole', /Cook before use/, /Cooked before/],
    ['porcini', 'slices-6', /Cook through before use/, /cooked through/],
    ['spinach', 'leaves', /Not for infants/, /does not disinfect/],
    ['kelp', 'leaves', /iodine/, /thyroid/],
  ])('%s: on label, jar and kitchen', (foodKey, cardKey, words, inFull) => {
    const book = testBook()
    const food = book.context.foods.find(foodKey)!
    const card = food.cards.find(item => item.key === cardKey) ?? food.cards[0]!
    const { jarId } = packed(book, foodKey, card.key, { dryG: 260 })
    expect(label(book, jarId).warnings.join()).toMatch(words)
    expect(jarPage(book.context, jarId).told.use.join()).toMatch(inFull)
    expect(
      kitchenPage(book.context)
        .jars.find(jar => jar.jarId === jarId)!
        .told.use.join(),
    ).toMatch(inFull)
    // And of a blend that holds a pinch of it.
    const blend = uuidv7()
    book.onJar(blend, 17, {
      kind: 'fill',
      jarId: blend,
      from: [{ jarId, weightG: 1 }],
      packageKey: 'screw-jar',
      place: 'Shelf',
      storageC: 18,
      blend: { name: 'Pinch' },
    })
    expect(label(book, blend).warnings.join()).toMatch(words)
  })
  it('what is made of raw milk is raw on jar, label and kitchen, unless it was heated', () => {
    const raw = (coreC?: number) => {
      const book = testBook()
      const food = book.context.foods.find('yoghurt')!
      const { jarId } = packed(book, 'yoghurt', food.cards[0]!.key, {
        dryG: 240,
        choose: ['milk', 'raw'],
        prep: coreC === undefined ? [] : [{ step: 'cook', coreC }],
      })
      return { page: jarPage(book.context, jarId), label: label(book, jarId) }
    }
    expect(raw().page).toMatchObject({ raw: true })
    expect(raw().label.warnings).toContain('RAW: cook through')
    expect(raw(73).page).toMatchObject({ raw: false })
    expect(raw(73).label.warnings).not.toContain('RAW: cook through')
  })
})
