import { uuidv7 } from 'uuidv7'
import { foldBatch, partOf } from '#core/batch'
import { ofKind, inForce } from '#core/log'
import { entriesOfBatch } from '#server/db/entries'
import { familyOf, flowPage } from '#server/services/flow'
import { planProblem } from '#server/services/plan/problem'
import { logTogether } from '#server/services/writeLog'
import { testBook } from '../../support/logbook'

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
