import { uuidv7 } from 'uuidv7'
import { insightPage, reviewsFor, trialPage } from '#server/services/insight'
import { batchPage, nowPage } from '#server/services/pages'
import { rebuildProjections } from '#server/services/projections'
import { idOfNumber, jarPage, recallPage, saveWish, shelfPage, shelfPlaces } from '#server/services/shelf'
import { saveTool } from '#server/services/tools'
import { startBatch } from '#server/services/writeLog'
import { testBook } from '../../support/logbook'

const BEETROOT_AGAIN = { kind: 'intake' as const, foodKey: 'beetroot', source: 'Jar 1', purpose: 'powder' as const, cardKey: 'slices-3' }

describe('a jar in the logbook', () => {
  it('is topped up, split, poured and begun again, and a recall finds every jar both ways', () => {
    const book = testBook()
    const first = book.whole()
    const second = book.whole(400)
    const split = uuidv7()
    book.onJar(first.jarId, 800, { kind: 'pour', jarId: first.jarId, from: { jarId: second.jarId, weightG: 40 } })
    book.onJar(split, 810, { kind: 'fill', jarId: split, from: [{ jarId: first.jarId, weightG: 38 }], packageKey: 'bag', place: 'Door' })
    const jar = jarPage(book.context, split)
    expect(jar).toMatchObject({ number: 5, place: 'Door', leftG: 38, baskets: 2, batchId: undefined })
    expect(jar.pedigree.map(basket => [basket.number, Math.round(basket.leftG)])).toEqual([
      [1, 28],
      [2, 10],
    ])
    const recall = recallPage(book.context, second.batchId)
    expect(recall.jars.map(item => item.number)).toEqual([1, 3, 4, 5])
    // 212 g were packed of it: all stand somewhere.
    expect(recall.jars.reduce((sum, item) => sum + item.partLeftG, 0)).toBeCloseTo(212, 6)
    // Begun again, ground and packed: the recall goes on into the new jar.
    const again = uuidv7()
    startBatch(book.context, {
      id: again,
      entry: {
        id: uuidv7(),
        at: book.at(900),
        body: { ...BEETROOT_AGAIN, weightG: 38, fromJars: [{ jarId: split, weightG: 38 }], fromForm: 'powder' },
      },
    })
    const fresh = uuidv7()
    book.log(again, 901, { kind: 'pack', jarId: fresh, netG: 38, packageKey: 'screw-jar', place: 'Door' })
    expect(recallPage(book.context, second.batchId).jars.map(item => item.number)).toContain(6)
    expect(jarPage(book.context, fresh).pedigree.map(basket => basket.number)).toEqual([1, 2])
    const before = book.context.db.prepare('SELECT * FROM jar_part ORDER BY 1, 2').all()
    rebuildProjections(book.context)
    expect(book.context.db.prepare('SELECT * FROM jar_part ORDER BY 1, 2').all()).toEqual(before)
  })
  it('a correction of what was packed reaches every jar that it was poured into', () => {
    const book = testBook()
    const first = book.whole()
    const second = book.whole(400)
    book.onJar(first.jarId, 800, { kind: 'pour', jarId: first.jarId, from: { jarId: second.jarId, weightG: 40 } })
    const packing = batchPage(book.context, second.batchId).entries.find(entry => entry.body.kind === 'pack')!
    expect(() =>
      book.log(second.batchId, 592, { ...(packing.body as object), kind: 'pack', netG: 20 } as never, { replaces: packing.id }),
    ).toThrow(/More was taken from the jar/)
    expect(() => book.log(second.batchId, 900, { kind: 'void', target: packing.id })).toThrow(/void that first/)
    expect(jarPage(book.context, first.jarId).leftG).toBe(152)
  })
  it('begun again with another food, or by another weight, is refused and nothing is written', () => {
    const book = testBook()
    const { jarId } = book.whole()
    const begin = (body: object) =>
      startBatch(book.context, {
        id: uuidv7(),
        entry: { id: uuidv7(), at: book.at(300), body: { ...BEETROOT_AGAIN, weightG: 30, fromJars: [{ jarId, weightG: 30 }], ...body } },
      })
    expect(() => begin({ foodKey: 'kale', cardKey: 'leaves' })).toThrow(/holds another food/)
    expect(() => begin({ weightG: 50 })).toThrow(/The jars give 30 g, not 50 g/)
    expect(() => begin({ weightG: 500, fromJars: [{ jarId, weightG: 500 }] })).toThrow(/Only 112 g/)
    expect(jarPage(book.context, jarId).leftG).toBe(112)
  })
  it('wants one look in its first days, and is not asked for for good', () => {
    const book = testBook()
    const { batchId, jarId } = book.whole()
    const kinds = () => nowPage(book.context).todos.map(todo => todo.kind)
    expect(kinds()).toEqual(['lookJar'])
    book.onJar(jarId, 220, { kind: 'lookJar', jarId, saw: 'loose' })
    const other = batchPage(book.context, batchId).jars.find(jar => jar.jarId !== jarId)!
    expect(nowPage(book.context).todos[0]!.title).toBe('Look at jar 2 of beetroot')
    book.onJar(other.jarId, 221, { kind: 'lookJar', jarId: other.jarId, saw: 'loose' })
    expect(kinds()).toEqual([])
    book.whole(400)
    book.at(900)
    expect(kinds()).toEqual([])
  })
})

describe('the shelf', () => {
  it('says what there is, what is eaten, and what is low by wish', () => {
    const book = testBook()
    const { jarId } = book.whole()
    book.onJar(jarId, 500, { kind: 'take', jarId, weightG: 60 })
    const stock = () => shelfPage(book.context).stock.find(item => item.foodKey === 'beetroot')!
    expect(stock()).toMatchObject({ leftG: 152, usedYearG: 60, jars: 2, low: false })
    saveWish(book.context, { foodKey: 'beetroot', leastG: 500, shopPerKg: 30 })
    expect(stock()).toMatchObject({ leastG: 500, low: true })
    saveWish(book.context, { foodKey: 'beetroot', leastG: null })
    expect(stock()).toMatchObject({ leastG: undefined, low: false })
    expect(insightPage(book.context, { by: 'food' }).groups[0]!.worth!.shopPerKg).toBe(30)
    expect(() => saveWish(book.context, { foodKey: 'cloud', leastG: 5 })).toThrow(/not a food/)
  })
  it('knows its places with their warmth, and jars and batches by their number', () => {
    const book = testBook()
    const { batchId, jarId } = book.whole()
    book.onJar(jarId, 300, { kind: 'moveJar', jarId, place: 'Cellar', storageC: 11 })
    expect(shelfPlaces(book.context)).toEqual([{ place: 'Cellar', storageC: 11 }])
    expect(idOfNumber(book.context, { kind: 'jar', number: 1 })).toEqual({ id: jarId })
    expect(idOfNumber(book.context, { kind: 'batch', number: 1 })).toEqual({ id: batchId })
    expect(() => idOfNumber(book.context, { kind: 'jar', number: 9 })).toThrow('There is no jar 9.')
  })
})

describe('next time', () => {
  it('words on batches and on jars are told together, those of the same cut first', () => {
    const book = testBook()
    const { batchId, jarId } = book.whole()
    book.log(batchId, 300, { kind: 'review', again: 'changed', text: 'Thinner' })
    const { entry } = book.onJar(jarId, 310, { kind: 'review', jarId, again: 'no', text: 'Too salty' })
    expect(reviewsFor(book.context, 'beetroot').map(review => [review.jar?.number, review.text])).toEqual([
      [1, 'Too salty'],
      [undefined, 'Thinner'],
    ])
    book.onJar(jarId, 320, { kind: 'void', target: entry.id })
    expect(reviewsFor(book.context, 'beetroot').map(review => review.text)).toEqual(['Thinner'])
    expect(batchPage(book.context, book.begin({}, 400)).reviews.map(review => review.text)).toEqual(['Thinner'])
  })
  it('two batches beside each other say how they were done and what they gave', () => {
    const book = testBook()
    const [a, b] = [book.whole(), book.whole(400)]
    const { sides, differences } = trialPage(book.context, [a.batchId, b.batchId])
    expect(sides.map(side => [side.number, side.productG])).toEqual([
      [1, 212],
      [2, 212],
    ])
    expect(differences[0]!.words).toMatch(/done alike/)
    expect(() => trialPage(book.context, [a.batchId, uuidv7()])).toThrow(/not there/)
  })
})

describe('tools', () => {
  const mill = { id: uuidv7(), kind: 'grinder' as const, name: 'Mill', cupMl: 120, watts: 150, cupCm: 7, fineness: 'fine' as const }
  it('are kept with a version; the same again is harmless, a stale change and a change of kind are not', () => {
    const { context } = testBook()
    expect(saveTool(context, mill)).toMatchObject({ version: 1 })
    expect(saveTool(context, mill)).toMatchObject({ version: 1 })
    expect(saveTool(context, { ...mill, watts: 200, version: 1 })).toMatchObject({ version: 2, watts: 200 })
    expect(() => saveTool(context, { ...mill, watts: 250, version: 1 })).toThrow(/changed elsewhere/)
    expect(() => saveTool(context, { id: mill.id, kind: 'sieve', name: 'Mill', openingUm: 300, version: 2 })).toThrow(
      /does not become a sieve/,
    )
    expect(() => saveTool(context, { ...mill, id: uuidv7(), version: 3 })).toThrow(/no such tool/)
  })
})
