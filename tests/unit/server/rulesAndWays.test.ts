import { uuidv7 } from 'uuidv7'
import { InputError } from '#core/errors'
import type { EntryBody } from '#core/log'
import { judge, Kitchen } from '#core/practice'
import { WAYS } from '#core/ways'
import { logbookJson } from '#server/export/logbook'
import { importLogbook } from '#server/import/logbook'
import { jarLabel } from '#server/labels/words'
import { openLogbook } from '#server/services/logbook'
import { saveMachine } from '#server/services/settings'
import { planProblem } from '#server/services/plan'
import { logTogether } from '#server/services/writeLog'
import { HELD_AT, WAYS_IN } from '../../../scripts/waysIn'
import { findFood } from '../../support/foods'
import { LESSONS } from '../../support/lessons'
import { MORNING, testBook, type TestBook } from '../../support/logbook'

/** Each stop by each way in: the deed that would go around it, and what comes of it. */
const refusal = (act: () => unknown): string => {
  try {
    act()
    return 'taken'
  } catch (error) {
    if (error instanceof InputError) return error.problems.map(problem => `${problem.code}: ${problem.message}`).join(' ')
    throw error
  }
}
const first = (book: TestBook, foodKey: string) => book.context.foods.find(foodKey)!.cards[0]!
const begin = (book: TestBook, foodKey: string, cardKey = first(book, foodKey).key) => book.begin({ foodKey, cardKey, weightG: 2000 }, 0)
const load = (book: TestBook, foodKey: string, machineId = book.machineId): EntryBody => {
  const way = machineId === book.machineId ? 'dehydrator' : 'sun'
  const usual = first(book, foodKey).ways[0]!.way
  return { kind: 'load', runId: uuidv7(), machineId, positions: [1, 2, 3], totalG: 1500, ...(usual !== way && { way }) } as EntryBody
}
const RACKS = uuidv7()
function withSun(book: TestBook): string {
  saveMachine(book.context, {
    id: RACKS,
    name: 'Racks',
    kind: 'sun',
    trays: 4,
    trayAreaM2: 0.3,
    trayTareG: 0,
    trayTares: {},
    watts: 1,
    lowC: 10,
    highC: 60,
  } as never)
  return RACKS
}
const together = (book: TestBook, batchId: string, hours: number, body: EntryBody) =>
  refusal(() => logTogether(book.context, { entries: [{ batchId, entry: { id: uuidv7(), at: book.at(hours), body } } as never] }))

/** Rice that stood eight hours on the counter. */
function warm() {
  const book = testBook()
  const batchId = begin(book, 'rice-cooked')
  book.log(batchId, 0, { kind: 'hold', place: 'counter' })
  return { book, batchId, does: (body: EntryBody) => refusal(() => book.log(batchId, 8, body as never)) }
}
/** The same found out once it was in its jar. */
function warmJar() {
  const { book, jarId, batchId } = jarOf('chickpea-cooked', 700)
  const intake = book.context.db.prepare(`SELECT id, body FROM entry WHERE kind = 'intake' AND batch_id = ?`).get(batchId) as {
    id: string
    body: string
  }
  book.log(batchId, -10, JSON.parse(intake.body) as never, { replaces: intake.id })
  book.log(batchId, -10, { kind: 'hold', place: 'counter' })
  return { book, jarId, batchId }
}
function jarOf(foodKey: string, dryG: number, pack: object = {}, book = testBook()) {
  const batchId = begin(book, foodKey)
  const runId = uuidv7()
  book.log(batchId, 0.4, { ...(load(book, foodKey) as object), runId } as never)
  book.heat(runId, 0.4, 68)
  book.log(batchId, 14, { kind: 'weigh', totalG: dryG })
  book.log(batchId, 14.1, { kind: 'unload', weightG: dryG })
  book.log(batchId, 14.2, { kind: 'grind', dryInG: dryG, powderOutG: dryG - 5 })
  const jarId = uuidv7()
  const packs = (more: object = {}, id = uuidv7()): EntryBody =>
    ({ kind: 'pack', jarId: id, netG: 30, packageKey: 'screw-jar', place: 'Shelf', storageC: 18, ...more }) as EntryBody
  book.log(batchId, 15, packs(pack, jarId) as never)
  return { book, batchId, jarId, packs }
}
const fillFrom = (jarId: string, into: string, more: object = {}) =>
  ({ kind: 'fill', jarId: into, from: [{ jarId, weightG: 5 }], packageKey: 'screw-jar', place: 'Shelf', storageC: 18, ...more }) as never
/** Pours from a jar onto another of the same food. */
function pourFrom({ book, jarId }: { book: TestBook; jarId: string }, foodKey: string, dryG: number, hours: number, pack: object = {}) {
  const other = jarOf(foodKey, dryG, pack, book)
  return refusal(() => book.onJar(other.jarId, hours, { kind: 'pour', jarId: other.jarId, from: { jarId, weightG: 5 } }))
}
function mouldy() {
  const book = testBook()
  const { batchId, jarId } = book.whole()
  book.onJar(jarId, 200, { kind: 'lookJar', jarId, saw: 'mould' })
  return { book, batchId, jarId }
}
function mouldyRest() {
  const book = testBook()
  const batchId = book.begin({}, 0)
  book.log(batchId, 1, load(book, 'beetroot') as never)
  book.log(batchId, 14, { kind: 'unload', weightG: 224 })
  book.log(batchId, 14.4, { kind: 'rest', container: '1.5 L jar' })
  book.log(batchId, 40, { kind: 'look', saw: 'mould' })
  return { book, batchId }
}
function jerky() {
  const book = testBook()
  const batchId = book.begin({ foodKey: 'beef-cooked', cardKey: 'jerky-6', weightG: 2000, purpose: 'pieces' as never }, 0)
  book.log(batchId, 0, { kind: 'choose', question: 'jerkyHeat', school: 'after' })
  const runId = uuidv7()
  book.log(batchId, 0.3, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2, 3], totalG: 1600 })
  book.heat(runId, 0.3, 68)
  book.log(batchId, 9, { kind: 'weigh', totalG: 760 })
  book.log(batchId, 9.1, { kind: 'unload', weightG: 760 })
  book.log(batchId, 9.2, { kind: 'rest', container: '1.5 L jar' })
  book.log(batchId, 40, { kind: 'look', saw: 'dry' })
  book.log(batchId, 41, { kind: 'restEnd', weightG: 760 })
  const pack: EntryBody = { kind: 'pack', jarId: uuidv7(), netG: 100, packageKey: 'screw-jar', place: 'Shelf', storageC: 18 } as EntryBody
  return { book, batchId, pack }
}
const outdoors = (foodKey: string) => {
  const book = testBook()
  const machineId = withSun(book)
  const batchId = begin(book, foodKey)
  book.log(batchId, 0.1, { kind: 'prep', step: 'cook', effect: 'none', coreC: 90 })
  return { book, batchId, body: load(book, foodKey, machineId) }
}
/** Ways of drying that the plan offers a basket. */
async function planned(foodKey: string): Promise<string[]> {
  const book = testBook()
  withSun(book)
  begin(book, foodKey)
  const { problem } = await planProblem(book.context)
  const kind = (id: string) => (id === RACKS ? 'sun' : 'dehydrator')
  return problem.baskets.flatMap(basket => basket.options.map(option => kind(option.machineId))).filter(way => WAYS[way as 'sun'].unheated)
}
const garlic = { inOil: true, storageC: 4 }

const CELLS: Readonly<Record<string, () => string | Promise<string>>> = {
  'too-warm/log': () => warm().does({ kind: 'prep', step: 'cook', effect: 'none', coreC: 90 }),
  'too-warm/hold': () => {
    const { book, batchId } = warm()
    // Back into the cold it does not become good again.
    book.log(batchId, 8, { kind: 'hold', place: 'refrigerator' })
    return refusal(() => book.log(batchId, 9, load(book, 'rice-cooked') as never))
  },
  'too-warm/load': () => {
    const { book, does } = warm()
    return does(load(book, 'rice-cooked'))
  },
  'too-warm/split': () => warm().does({ kind: 'split', to: uuidv7(), weightG: 200 }),
  'too-warm/API': () => {
    const { book, batchId } = warm()
    return together(book, batchId, 8, load(book, 'rice-cooked'))
  },
  'too-warm/fill': () => {
    const { book, jarId } = warmJar()
    const into = uuidv7()
    return refusal(() => book.onJar(into, 20, fillFrom(jarId, into)))
  },
  'too-warm/pour': () => pourFrom(warmJar(), 'chickpea-cooked', 700, 30),
  'too-warm/take': () => {
    const { book, jarId } = warmJar()
    return refusal(() => book.onJar(jarId, 20, { kind: 'take', jarId, weightG: 5 }))
  },
  'too-warm/import': () => {
    const { book, jarId } = warmJar()
    const other = openLogbook(':memory:', () => MORNING + 1e9)
    const steps = importLogbook(other, JSON.parse([...logbookJson(book.context)].join('')))
    for (let step = steps.next(); !step.done; step = steps.next());
    return jarLabel(other, jarId, 'http://dulse.test').best === 'DISCARD: too long in the warm' ? 'stop-too-warm: marked' : 'taken'
  },
  'too-warm/plan': async () => {
    const { book } = warm()
    book.at(8)
    const { problem, apart } = await planProblem(book.context)
    return problem.baskets.length === 0 && apart.some(({ why }) => why === 'warm') ? 'stop-too-warm: apart' : 'taken'
  },
  'too-warm/practice': () => {
    const lesson = LESSONS.find(({ key }) => key === 'night-off')!
    const lost = (setC: number | null) => {
      const kitchen = new Kitchen(lesson, findFood('chicken-cooked')!, 3)
      kitchen.do({ do: 'heat', setC })
      kitchen.do({ do: 'wait', hours: 4 })
      return judge(kitchen).lost.includes('zone')
    }
    return lost(null) && !lost(68) ? 'stop-too-warm: lost' : 'taken'
  },
  'raw-meat/load': () => {
    const book = testBook()
    return refusal(() => book.log(begin(book, 'chicken-cooked'), 0.5, load(book, 'chicken-cooked') as never))
  },
  'raw-meat/API': () => {
    const book = testBook()
    return together(book, begin(book, 'chicken-cooked'), 0.5, load(book, 'chicken-cooked'))
  },
  'raw-meat/log': () => {
    const book = testBook()
    const batchId = begin(book, 'chicken-cooked')
    const { entry } = book.log(batchId, 0.2, { kind: 'prep', step: 'cook', effect: 'none', coreC: 75 })
    book.log(batchId, 0.5, load(book, 'chicken-cooked') as never)
    return refusal(() => book.log(batchId, 1, { kind: 'void', target: entry.id }))
  },
  'heat-after/pack': () => {
    const { book, batchId, pack } = jerky()
    const before = refusal(() => book.log(batchId, 42, pack as never))
    book.log(batchId, 42, { kind: 'heatThrough', airC: 135, minutes: 10 })
    expect(refusal(() => book.log(batchId, 43, pack as never))).toBe('taken')
    return before
  },
  'heat-after/API': () => {
    const { book, batchId, pack } = jerky()
    return together(book, batchId, 42, pack)
  },
  'animal-outdoors/load': () => {
    const { book, batchId, body } = outdoors('beef-cooked')
    return refusal(() => book.log(batchId, 0.5, body as never))
  },
  'animal-outdoors/API': () => {
    const { book, batchId, body } = outdoors('milk-whole')
    return together(book, batchId, 0.5, body)
  },
  'animal-outdoors/plan': async () => ((await planned('beef-cooked')).length === 0 ? 'stop-animal-outdoors: not offered' : 'taken'),
  'perishable-unheated/load': () => {
    const { book, batchId, body } = outdoors('pumpkin')
    return refusal(() => book.log(batchId, 0.5, body as never))
  },
  'perishable-unheated/API': () => {
    const { book, batchId, body } = outdoors('rice-cooked')
    return together(book, batchId, 0.5, body)
  },
  'perishable-unheated/plan': async () => ((await planned('rice-cooked')).length === 0 ? 'stop-perishable-unheated: not offered' : 'taken'),
  'unblanched/load': () => {
    const book = testBook()
    return refusal(() => book.log(begin(book, 'cassava'), 0.5, load(book, 'cassava') as never))
  },
  'unblanched/API': () => {
    const book = testBook()
    return together(book, begin(book, 'taro'), 0.5, load(book, 'taro'))
  },
  'unblanched/log': () => {
    const book = testBook()
    const batchId = begin(book, 'cassava')
    expect(refusal(() => book.log(batchId, 0.1, { kind: 'choose', question: 'blanch', school: 'skip' }))).toMatch(/unknown-school/)
    const { entry } = book.log(batchId, 0.2, { kind: 'prep', step: 'blanch', effect: 'none' })
    book.log(batchId, 0.5, load(book, 'cassava') as never)
    return refusal(() => book.log(batchId, 1, { kind: 'void', target: entry.id }))
  },
  'mould/log': () => {
    const { book, batchId } = mouldyRest()
    return refusal(() => book.log(batchId, 41, { kind: 'restEnd' }))
  },
  'mould/pack': () => {
    const { book, batchId } = mouldyRest()
    return refusal(() => book.log(batchId, 41, { kind: 'pack', jarId: uuidv7(), netG: 50, packageKey: 'screw-jar', place: 'Shelf' }))
  },
  'mould/API': () => {
    const { book, batchId } = mouldyRest()
    return together(book, batchId, 41, { kind: 'restEnd' })
  },
  'mould/fill': () => {
    const { book, jarId } = mouldy()
    const into = uuidv7()
    return refusal(() => book.onJar(into, 201, fillFrom(jarId, into)))
  },
  'mould/pour': () => {
    const { book, jarId } = mouldy()
    const other = book.whole(300)
    return refusal(() => book.onJar(other.jarId, 600, { kind: 'pour', jarId: other.jarId, from: { jarId, weightG: 5 } }))
  },
  'mould/take': () => {
    const { book, jarId } = mouldy()
    return refusal(() => book.onJar(jarId, 201, { kind: 'take', jarId, weightG: 5 }))
  },
  'oil/pack': () => {
    const { book, batchId, packs } = jarOf('garlic', 700)
    return refusal(() => book.log(batchId, 16, packs({ inOil: true }) as never))
  },
  'oil/API': () => {
    const { book, batchId, packs } = jarOf('garlic', 700)
    return together(book, batchId, 16, packs({ inOil: true }))
  },
  'oil/fill': () => {
    const { book, jarId } = jarOf('garlic', 700, garlic)
    const into = uuidv7()
    return refusal(() => book.onJar(into, 16, fillFrom(jarId, into)))
  },
  'oil/pour': () => {
    const { book, jarId } = jarOf('garlic', 700, garlic)
    // Out of its oil's cold into a dry jar on the shelf.
    return pourFrom({ book, jarId }, 'garlic', 700, 16).replace(/^unlike/, 'stop-oil')
  },
  'oil/move': () => {
    const { book, jarId } = jarOf('garlic', 700, garlic)
    return refusal(() => book.onJar(jarId, 16, { kind: 'moveJar', jarId, place: 'Pantry', storageC: 19 }))
  },
  'oil/take': () => {
    const { book, jarId } = jarOf('garlic', 700, garlic)
    return refusal(() => book.onJar(jarId, 15 + 5 * 24, { kind: 'take', jarId, weightG: 5 })).replace(/^oil-over/, 'stop-oil')
  },
  'no-oxygen/pack': () => {
    const { book, batchId, packs } = jarOf('beetroot', 650)
    return refusal(() => book.log(batchId, 16, packs({ packageKey: 'vacuum-jar' }) as never))
  },
  'no-oxygen/API': () => {
    const { book, batchId, packs } = jarOf('beetroot', 650)
    return together(book, batchId, 16, packs({ absorberCc: 300 }))
  },
  'no-oxygen/fill': () => {
    const { book, jarId } = jarOf('beetroot', 650)
    const into = uuidv7()
    return refusal(() => book.onJar(into, 16, fillFrom(jarId, into, { packageKey: 'foil-bag' })))
  },
  'no-oxygen/pour': () => {
    const damp = jarOf('beetroot', 650)
    // Emptied, a foil bag takes nothing damp either.
    const foil = jarOf('beetroot', 225, { packageKey: 'foil-bag' }, damp.book)
    damp.book.onJar(foil.jarId, 16, { kind: 'take', jarId: foil.jarId, weightG: 30 })
    return refusal(() => damp.book.onJar(foil.jarId, 17, { kind: 'pour', jarId: foil.jarId, from: { jarId: damp.jarId, weightG: 5 } }))
  },
  'no-oxygen/move': () => {
    const { book, jarId } = jarOf('beetroot', 650, { packageKey: 'foil-bag', storageC: -18 })
    return refusal(() => book.onJar(jarId, 16, { kind: 'moveJar', jarId, place: 'Pantry', storageC: 19 }))
  },
}

describe('every stop, by every way in', () => {
  it('has a cell for each cross of the table, and no other', () => {
    const crosses = Object.entries(HELD_AT).flatMap(([key, held]) => held.map(way => `${key}/${way}`))
    expect(Object.keys(CELLS).sort()).toEqual(crosses.sort())
    expect(
      Object.values(HELD_AT)
        .flat()
        .every(way => WAYS_IN.includes(way)),
    ).toBe(true)
  })
  it.each(Object.entries(CELLS))('%s', async (name, act) => {
    const [rule] = name.split('/')
    expect(await act()).toMatch(new RegExp(`^(stop-${rule}|${rule}): `))
  })
})
