import { uuidv7 } from 'uuidv7'
import { damperOf, foldBatch, partOf, togetherOf, toGrindG } from '#core/batch'
import { ofKind, inForce } from '#core/log'
import { entriesOfBatch } from '#server/db/entries'
import { familyOf, flowPage } from '#server/services/flow'
import { planProblem } from '#server/services/plan/problem'
import { logTogether } from '#server/services/writeLog'
import { BEETROOT, testBook, type TestBook } from '../../support/logbook'

/** A basket of 2 kg of which 500 g became a batch of its own. */
function parted() {
  const book = testBook()
  const { context } = book
  const whole = book.begin({}, 0)
  book.log(whole, 0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 })
  const stateOf = (id: string) => foldBatch(entriesOfBatch(context.db, id), context.foods.find)
  const part = uuidv7()
  const at = book.at(1)
  const { intake, history, at: begun } = partOf(stateOf(whole)!, at, { batchId: whole, number: 1, form: 'prepared', grams: 500, sdG: 0 })
  logTogether(context, {
    entries: [
      { batchId: whole, entry: { id: uuidv7(), at, body: { kind: 'split', weightG: 500, to: part } } },
      { begin: { id: part, entry: { id: uuidv7(), at: begun, body: intake } } },
      ...history.map(item => ({ batchId: part, entry: { id: uuidv7(), at: item.at, body: item.body as never } })),
    ],
  })
  const split = () => ofKind(inForce(entriesOfBatch(context.db, whole)), 'split')[0]
  const cameIn = () => ofKind(inForce(entriesOfBatch(context.db, part)), 'intake')[0]!
  return { book, context, whole, part, stateOf, split, cameIn, thereG: (id: string) => stateOf(id)?.balance.weightG.p50 }
}

describe('a part that is a batch of its own', () => {
  it('is there once: in the account of both, of one family, planned as what it is', async () => {
    const { context, whole, part, stateOf, thereG } = parted()
    expect([thereG(whole), thereG(part)]).toEqual([1200, 500])
    const { batches } = flowPage(context, part)
    expect(batches.map(({ batchId, of }) => [batchId, of])).toEqual([
      [whole, undefined],
      [part, whole],
    ])
    expect(familyOf(context, whole, stateOf(whole)!).map(({ batchId }) => batchId)).toEqual([part])
    expect(familyOf(context, part, stateOf(part)!).map(({ batchId, of }) => [batchId, of])).toEqual([[whole, undefined]])
    const baskets = (await planProblem(context)).problem.baskets.filter(({ id }) => [whole, part].includes(id))
    expect(baskets.map(({ weightG }) => Math.round(weightG)).sort((a, b) => a - b)).toEqual([500, 1500])
  })
  it('is put right where it came in, and the word in the first log follows', () => {
    const { book, part, whole, split, cameIn, thereG } = parted()
    expect(() => book.log(whole, 2, { ...split()!.body, weightG: 700 }, { replaces: split()!.id })).toThrow(
      /Batch 2 was begun with this part/,
    )
    const { id, at, body } = cameIn()
    book.log(part, (at - book.at(0)) / 3_600_000, { ...body, weightG: 700 }, { replaces: id })
    expect([split()!.body.weightG, thereG(whole), thereG(part)]).toEqual([700, 1000, 700])
  })
  it('is not taken back from under its batch; taken out with it, its food is there again', () => {
    const { book, context, part, whole, split, cameIn, thereG } = parted()
    expect(() => book.log(whole, 2, { kind: 'void', target: split()!.id })).toThrow(/Batch 2 was begun with this part/)
    // As any basket: what was logged on it since goes first.
    for (const { id, body } of inForce(entriesOfBatch(context.db, part)))
      if (body.kind !== 'intake') book.log(part, 2, { kind: 'void', target: id })
    book.log(part, 2, { kind: 'void', target: cameIn().id })
    expect([split(), thereG(whole), thereG(part)]).toEqual([undefined, 1700, undefined])
  })
})

/** Lemon and orange, dried and rested, of which so much goes into one cup. */
function oneCup(lemonG: number, orangeG: number, beside?: (book: TestBook, lemon: string, runId: string) => void) {
  const book = testBook()
  const { context } = book
  const stateOf = (id: string) => foldBatch(entriesOfBatch(context.db, id), context.foods.find)
  const dried = (foodKey: string, dryG: number, position: number) => {
    const id = book.begin({ foodKey, weightG: 1500, cardKey: context.foods.find(foodKey)!.cards[0]!.key }, 0)
    const runId = uuidv7()
    book.log(id, 1, { kind: 'load', runId, machineId: book.machineId, positions: [position], totalG: 900 })
    book.heat(runId, 1, 57)
    if (foodKey === 'lemon') beside?.(book, id, runId)
    book.log(id, 15, { kind: 'unload', weightG: dryG })
    book.log(id, 16, { kind: 'restEnd' })
    return id
  }
  const [lemon, orange] = [dried('lemon', 130, 1), dried('orange', 140, 2)]
  const at = book.at(20)
  const share = (batchId: string, number: number, grams: number) => ({
    state: stateOf(batchId)!,
    asked: { batchId, number, grams, sdG: 0, form: 'pieces' as const },
  })
  const whole = togetherOf([share(lemon, 1, lemonG), share(orange, 2, orangeG)], at, 'powder')
  const cup = uuidv7()
  const left = (batchId: string, weightG: number) => ({
    batchId,
    entry: { id: uuidv7(), at, body: { kind: 'split' as const, weightG, to: cup, form: 'pieces' as const } },
  })
  const put = () =>
    logTogether(context, {
      entries: [
        left(lemon, lemonG),
        left(orange, orangeG),
        { begin: { id: cup, entry: { id: uuidv7(), at: whole.at, body: whole.intake } } },
        ...whole.history.map(item => ({ batchId: cup, entry: { id: uuidv7(), at: item.at, body: item.body as never } })),
      ],
    })
  return { book, context, lemon, orange, cup, whole, put, stateOf, piecesG: (id: string) => toGrindG(stateOf(id)!, false) }
}

describe('a log that goes in circles', () => {
  it('is taken, and what it touched is followed once round', () => {
    const book = testBook()
    const itself = uuidv7()
    const body = { ...BEETROOT, from: itself, prepared: { at: book.at(0), mean: 0.87, sd: 0.01 } }
    logTogether(book.context, { entries: [{ begin: { id: itself, entry: { id: uuidv7(), at: book.at(0), body } } }] })
    expect(flowPage(book.context, itself).batches.map(({ batchId }) => batchId)).toEqual([itself])
  })
})

describe('several batches in one cup', () => {
  it('are a batch with their shares: each gives what it gave, and is of both families', () => {
    const { book, context, lemon, orange, cup, put, stateOf, piecesG } = oneCup(60, 140)
    put()
    // 130 − 60 of lemon are left; all of the orange is gone; 60 + 140 are in the cup.
    expect([piecesG(lemon), piecesG(orange), piecesG(cup)]).toEqual([70, 0, 200])
    const { food } = stateOf(cup)!
    expect(food.name).toBe('Orange and lemon')
    expect(food.mixOf!.map(({ key, share }) => [key, share])).toEqual([
      ['orange', 0.7],
      ['lemon', 0.3],
    ])
    for (const id of [lemon, orange, cup]) expect(flowPage(context, id).batches.map(({ batchId }) => batchId)).toContain(cup)
    expect(flowPage(context, cup).batches.map(({ batchId }) => batchId)).toEqual([orange, lemon, cup])
    book.log(cup, 21, { kind: 'grind', dryInG: 200, powderOutG: 194 })
    expect(stateOf(cup)!.left.powder).toBe(194)
  })
  it('are put right where they came together: each of the first logs follows', () => {
    const { book, context, lemon, orange, cup, whole, put, piecesG } = oneCup(60, 140)
    put()
    const cameIn = ofKind(inForce(entriesOfBatch(context.db, cup)), 'intake')[0]!
    const other = { ...whole.intake, weightG: 190, with: [{ batchId: lemon, weightG: 50 }], mix: [{ foodKey: 'lemon', weightG: 50 }] }
    book.log(cup, (cameIn.at - book.at(0)) / 3_600_000, other, { replaces: cameIn.id })
    expect([piecesG(lemon), piecesG(orange), piecesG(cup)]).toEqual([80, 0, 190])
    for (const { id, body } of inForce(entriesOfBatch(context.db, cup)))
      if (body.kind !== 'intake') book.log(cup, 22, { kind: 'void', target: id })
    book.log(cup, 22, { kind: 'void', target: ofKind(inForce(entriesOfBatch(context.db, cup)), 'intake')[0]!.id })
    expect([piecesG(lemon), piecesG(orange)]).toEqual([130, 140])
  })
  it('are not put together where one is damper for certain; a guess is no reason', () => {
    const { book, context, lemon, orange, put } = oneCup(60, 140)
    const air = { kind: 'jarAir' as const, closedHours: 8, celsius: 20, calibration: { offset: 0, gain: 1, sd: 0.02 } }
    book.log(lemon, 17, { ...air, shown: 0.72 })
    book.log(orange, 17, { ...air, shown: 0.15 })
    expect(put).toThrow(/Batch 1 holds .* water at the least/)
    expect(inForce(entriesOfBatch(context.db, lemon)).some(({ body }) => body.kind === 'split')).toBe(false)
    // 8 % by estimate (2 to 21) beside 5 % measured, where 6 % is dry enough.
    const sure = { p10: 0.045, p50: 0.05, p90: 0.055 }
    expect(damperOf([sure, { p10: 0.02, p50: 0.08, p90: 0.21 }], 0.06)).toEqual({ at: 1, certain: false })
    expect(damperOf([sure, { p10: 0.07, p50: 0.08, p90: 0.09 }], 0.06)).toEqual({ at: 1, certain: true })
    // Both are dry enough, however far apart.
    expect(damperOf([{ p10: 0.019, p50: 0.02, p90: 0.021 }, sure], 0.06)).toBeUndefined()
  })
  it('bring along what was said of any of them, and what lay beside it', () => {
    const { context, cup, put } = oneCup(60, 140, (book, lemon, runId) => {
      book.log(lemon, 2, { kind: 'contains', allergens: ['sulphites'] })
      const celery = book.begin({ foodKey: 'celery', cardKey: 'slices-6' }, 2)
      book.log(celery, 3, { kind: 'load', runId, machineId: book.machineId, positions: [3], totalG: 500 })
      book.log(celery, 14, { kind: 'unload', weightG: 40 })
    })
    put()
    const { product } = context.db.prepare('SELECT product FROM batch_view WHERE batch_id = ?').get(cup) as { product: string }
    const { allergens, traces } = JSON.parse(product) as { allergens: string[]; traces: string[] }
    expect(allergens).toContain('sulphites')
    expect(traces).toContain('may contain celery')
  })
  it('learn what lay beside one of them where that is said afterwards', () => {
    let beside = ''
    const { book, context, cup, put } = oneCup(60, 140, (inner, _lemon, runId) => {
      beside = inner.begin({ foodKey: 'carrot', cardKey: 'slices-3' }, 2)
      inner.log(beside, 3, { kind: 'load', runId, machineId: inner.machineId, positions: [3], totalG: 500 })
      inner.log(beside, 14, { kind: 'unload', weightG: 40 })
    })
    put()
    book.log(beside, 21, { kind: 'contains', allergens: ['sesame'] })
    const { product } = context.db.prepare('SELECT product FROM batch_view WHERE batch_id = ?').get(cup) as { product: string }
    expect((JSON.parse(product) as { traces: string[] }).traces).toContain('may contain sesame')
  })
})
