import { uuidv7 } from 'uuidv7'
import { freshnessOf } from '#core/keeping'
import { jarPage, shelfPage } from '#server/services/shelf'
import { logOnJar } from '#server/services/writeLog'
import { testBook, type TestBook } from '../../support/logbook'

const page = (book: TestBook, jarId: string) => jarPage(book.context, jarId)
const fresh = (book: TestBook, jarId: string, hours: number) => freshnessOf(page(book, jarId), book.at(hours))

describe('a look and a smell are evidence', () => {
  it.each([
    ['clumps', 'damp', 0.44, /damp got in, or it stood warm/],
    ['moisture', 'damp', 0.75, /Moisture was seen/],
    ['mould', 'spoiled', 0.7, /discard all of it/],
    ['insects', 'spoiled', 0, /Insects/],
  ] as const)('a jar seen with %s is no longer at its best, and as damp as that says', (saw, status, activity, reason) => {
    const book = testBook()
    const { jarId } = book.whole()
    const before = page(book, jarId)
    expect(fresh(book, jarId, 240)).toBe('good')
    book.onJar(jarId, 260, { kind: 'lookJar', jarId, saw })
    const after = page(book, jarId)
    expect(fresh(book, jarId, 261)).toBe(status)
    expect(after.bestTo).toBeLessThanOrEqual(book.at(260))
    expect(after).toMatchObject({ bestLimit: 'seen', bestBy: { reason: expect.stringMatching(reason) } })
    expect(after.activity).toBeGreaterThanOrEqual(activity)
    if (activity > 0) {
      expect(after.moisture).toBeGreaterThan(before.moisture)
      expect(after.damp!.daysToClump).toBe(0)
      // The shelf says the same.
      expect(shelfPage(book.context).jars.find(jar => jar.jarId === jarId)!.saw).toBe(saw)
    }
    // Dried and looked at again it is as reckoned.
    book.onJar(jarId, 300, { kind: 'lookJar', jarId, saw: 'loose' })
    expect(page(book, jarId)).toMatchObject({ moisture: before.moisture, bestTo: before.bestTo })
  })
  it.each(['rancid', 'musty'] as const)('%s ends it, and says nothing of how strong the food smells here', smell => {
    const book = testBook()
    const { jarId } = book.whole()
    const before = page(book, jarId).strength
    book.onJar(jarId, 300, { kind: 'smell', jarId, smell })
    expect(fresh(book, jarId, 301)).toBe('spoiled')
    expect(page(book, jarId).strength).toEqual(before)
  })
})

describe('what is sold so keeps as it is known to keep', () => {
  const bought = (book: TestBook, foodKey: string) => {
    const jarId = uuidv7()
    logOnJar(book.context, jarId, {
      id: uuidv7(),
      at: book.at(0),
      body: { kind: 'stock', jarId, foodKey, purpose: 'powder', netG: 50, packageKey: 'screw-jar', place: 'Rack', sizeMl: 100 },
    })
    return jarId
  }
  it('no good of the reference is past its best on the day it arrives, nor a month later', () => {
    const book = testBook()
    const keys = book.context.foods.goods.map(food => food.key)
    expect(keys.length).toBeGreaterThan(10)
    const jars = keys.map(key => [key, bought(book, key)] as const)
    for (const [key, jarId] of jars) expect([key, fresh(book, jarId, 30 * 24)]).toEqual([key, 'good'])
  })
})
