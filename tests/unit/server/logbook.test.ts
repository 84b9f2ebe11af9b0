import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import Papa from 'papaparse'
import { assess, foldBatch } from '#core/batch'
import { InputError } from '#core/errors'
import { migrate } from '#server/db/migrate'
import { inForce } from '#core/log'
import { allEntries } from '#server/db/entries'
import { openDatabase } from '#server/db/open'
import { exportCsv } from '#server/services/exportLog'
import { openLogbook } from '#server/services/logbook'
import { batchList, batchPage, findAnything, nowPage, stageBand } from '#server/services/pages'
import { jarPage, shelfPlaces, shelfPage } from '#server/services/shelf'
import { rebuildProjections } from '#server/services/projections'
import { Conflict, NotFound } from '#server/services/refusals'
import { machineList } from '#server/services/machines'
import { changeHousehold, saveMachine } from '#server/services/settings'
import { householdOf } from '#server/services/context'
import { forecast } from '#server/services/forecast'
import { hoursLearned } from '#server/services/learning'
import { hygrometerList, saveHygrometer } from '#server/services/hygrometers'
import { logOnRun, logEntry, startBatch } from '#server/services/writeLog'
import { BEETROOT, HOUR, MORNING, testBook, type TestBook } from '../../support/logbook'
import { findFood } from '../../support/foods'

const rows = (book: ReturnType<typeof testBook>, table: string) => book.context.db.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).all()

describe('a jar on the shelf', () => {
  it('moves, and what is thrown away is gone from the shelf with its cause', () => {
    const book = testBook()
    const { batchId, jarId } = book.whole()
    const jar = () => shelfPage(book.context).jars.find(item => item.jarId === jarId)
    expect(jar()).toMatchObject({ place: 'Top board', leftG: 112 })
    book.onJar(jarId, 200, { kind: 'moveJar', jarId, place: 'Cellar' })
    expect(jar()!.place).toBe('Cellar')
    const { entry } = book.onJar(jarId, 210, { kind: 'discard', jarId, cause: 'Mould' })
    expect(jar()).toBeUndefined()
    expect(() => book.onJar(jarId, 211, { kind: 'take', jarId, weightG: 5 })).toThrow(/has been discarded/)
    expect(() => book.onJar(jarId, 209, { kind: 'take', jarId, weightG: 113 })).toThrow(/Only 112 g are left/)
    expect(() => book.onJar(jarId, 211, { kind: 'moveJar', jarId, place: 'Attic' })).toThrow(/has been discarded/)
    expect(() => book.log(batchId, 212, { kind: 'void', target: entry.id })).toThrow(/jar’s own log/)
    book.onJar(jarId, 212, { kind: 'void', target: entry.id })
    expect(jar()).toMatchObject({ place: 'Cellar', leftG: 112 })
  })
  it('that there is not is refused', () => {
    const book = testBook()
    book.whole()
    const jarId = uuidv7()
    expect(() => book.onJar(jarId, 200, { kind: 'discard', jarId, cause: 'Lost' })).toThrow(/no such jar/)
  })
})

describe('writing', () => {
  it('takes a batch from basket to jar, and every page shows it', () => {
    const book = testBook()
    const { batchId, jarId } = book.whole()
    const { context } = book
    expect(foldBatch(batchPage(context, batchId).entries, findFood)!.stage).toBe('shelf')
    expect(batchList(context, {}).batches[0]).toMatchObject({
      number: 1,
      stage: 'shelf',
      dryG: 224,
      powderG: 212,
      title: 'Beetroot, 3 mm slices',
    })
    expect(shelfPage(context)).toMatchObject({ count: 2, totalG: 212, places: ['Cellar', 'Top board'] })
    const jar = jarPage(context, jarId)
    expect(jar.pedigree).toHaveLength(1)
    expect(jar.pedigree[0]).toMatchObject({ rawG: 2000, loadedG: 1700, dryG: 224, powderG: 212, jars: 2, restDays: 7 })
    expect(jar.pedigree[0]!.dryHours).toBeCloseTo(13.2, 1)
    expect(nowPage(context).todos.map(todo => todo.title)).toEqual(['Look at 2 jars of beetroot'])
    expect(stageBand(context).find(stage => stage.stage === 'shelf')).toMatchObject({ count: 2, weightG: 212 })
    const found = findAnything(context, 'beet')
    expect(found.slice(0, 3).map(item => item.kind)).toEqual(['batch', 'jar', 'jar'])
    expect(found.slice(3).map(item => item.title)).toEqual(expect.arrayContaining(['Beetroot', 'Beet greens']))
    expect(findAnything(context, '#2')[0]).toMatchObject({ kind: 'jar', detail: 'Jar 2, Cellar' })
    expect(findAnything(context, '100%')).toEqual([])
  })

  it('is idempotent: the same again answers the same, other content is refused', () => {
    const book = testBook()
    const batchId = uuidv7()
    const begin = { id: batchId, entry: { id: uuidv7(), at: MORNING, body: BEETROOT } }
    expect(startBatch(book.context, begin).repeated).toBe(false)
    expect(startBatch(book.context, begin)).toMatchObject({ repeated: true, number: 1 })
    const entry = { id: uuidv7(), at: MORNING, body: { kind: 'note' as const, text: 'Muddy' } }
    logEntry(book.context, batchId, entry)
    expect(logEntry(book.context, batchId, entry).repeated).toBe(true)
    expect(() => logEntry(book.context, batchId, { ...entry, body: { kind: 'note', text: 'Clean' } })).toThrow(Conflict)
    expect(() => startBatch(book.context, { id: batchId, entry: { ...begin.entry, id: uuidv7() } })).toThrow(Conflict)
    expect(rows(book, 'entry')).toHaveLength(2)
  })

  it('writes nothing at all when it refuses', () => {
    const book = testBook()
    const batchId = book.begin()
    const before = ['entry', 'run', 'jar', 'batch', 'todo', 'batch_view'].map(table => rows(book, table))
    expect(() => book.log(batchId, 1, { kind: 'load', runId: uuidv7(), machineId: book.machineId, positions: [1], totalG: 9000 })).toThrow(
      InputError,
    )
    expect(() => book.log(batchId, 1, { kind: 'load', runId: uuidv7(), machineId: uuidv7(), positions: [1], totalG: 900 })).toThrow(
      /no such machine/,
    )
    expect(() => book.log(uuidv7(), 1, { kind: 'note', text: 'x' })).toThrow(NotFound)
    expect(() =>
      startBatch(book.context, { id: uuidv7(), entry: { id: uuidv7(), at: MORNING, body: { ...BEETROOT, foodKey: 'cloud' } } }),
    ).toThrow(InputError)
    expect(['entry', 'run', 'jar', 'batch', 'todo', 'batch_view'].map(table => rows(book, table))).toEqual(before)
  })

  it('lets no one change or remove a row of the log', () => {
    const book = testBook()
    book.begin()
    expect(() => book.context.db.exec('UPDATE entry SET at = 0')).toThrow(/append-only/)
    expect(() => book.context.db.exec('DELETE FROM entry')).toThrow(/append-only/)
  })

  it('keeps nothing in its views that the log does not say', () => {
    const book = testBook()
    book.whole()
    const drying = book.begin({ foodKey: 'carrot' }, 300)
    const runId = uuidv7()
    book.log(drying, 301, { kind: 'load', runId, machineId: book.machineId, positions: [1], totalG: 1500 })
    book.heat(runId, 301, 57)
    book.log(drying, 304, { kind: 'weigh', totalG: 800 })
    const before = ['batch_view', 'todo', 'jar_view'].map(table => rows(book, table))
    book.context.db.exec('DELETE FROM batch_view; DELETE FROM todo; DELETE FROM jar_view')
    rebuildProjections(book.context)
    expect(['batch_view', 'todo', 'jar_view'].map(table => rows(book, table))).toEqual(before)
  })
})

describe('a machine', () => {
  it('has one run for all its batches, and its heat is felt by each', () => {
    const book = testBook()
    const first = book.begin()
    const second = book.begin({ foodKey: 'carrot' }, 0.2)
    const runId = uuidv7()
    book.log(first, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2], totalG: 1700 })
    book.heat(runId, 1, 57)
    const load = (positions: number[], run: string) =>
      book.log(second, 2, { kind: 'load', runId: run, machineId: book.machineId, positions, totalG: 1500 })
    expect(() => load([2, 3], runId)).toThrow(/Taken by another batch: 2/)
    expect(() => load([3, 4], uuidv7())).toThrow(/load into its run/)
    load([3, 4], runId)
    expect(batchPage(book.context, second).taken[book.machineId]).toEqual({ runId, positions: [1, 2], setC: 57 })
    book.heat(runId, 3, null)
    for (const id of [first, second]) expect(foldBatch(batchPage(book.context, id).entries, findFood)!.run!.setC).toBeNull()
    const [rack] = nowPage(book.context).racks
    expect(rack).toMatchObject({ runId, setC: null })
    expect(rack!.trays.map(tray => tray.batchNumber)).toEqual([1, 1, 2, 2, undefined, undefined])
    expect(nowPage(book.context).todos.filter(todo => todo.kind === 'heat')).toHaveLength(2)
  })
  it('refuses a heat that it cannot set, and a run that is not there', () => {
    const book = testBook()
    const { runId } = book.whole()
    expect(() => book.heat(runId, 200, 180)).toThrow(/goes from 35 °C to 75 °C/)
    expect(() => book.heat(uuidv7(), 200, 57)).toThrow(NotFound)
    expect(() => logOnRun(book.context, runId, { id: uuidv7(), at: MORNING, body: { kind: 'heat', runId: uuidv7(), setC: 57 } })).toThrow(
      /another run/,
    )
  })
  it('keeps its trays while food lies on them, and tells of a change elsewhere', () => {
    const book = testBook()
    const batchId = book.begin()
    book.log(batchId, 1, { kind: 'load', runId: uuidv7(), machineId: book.machineId, positions: [5], totalG: 900 })
    const machine = machineList(book.context)[0]!
    expect(() => saveMachine(book.context, { ...machine, trays: 4 })).toThrow(/Tray 5 is in use/)
    expect(saveMachine(book.context, { ...machine, name: 'Old faithful' })).toMatchObject({
      name: 'Old faithful',
      version: machine.version + 1,
    })
    expect(() => saveMachine(book.context, { ...machine, watts: 900 })).toThrow(Conflict)
    expect(() => saveMachine(book.context, { ...machine, id: uuidv7() })).toThrow(Conflict)
  })
})

describe('a batch as its page has it', () => {
  it('brings its food with the targets that are the food’s own: another cut may be tried', () => {
    const book = testBook()
    const { food } = batchPage(book.context, book.begin({ foodKey: 'beef-cooked', cardKey: 'jerky-6', purpose: 'pieces' }))
    expect(food.cards.find(card => card.key === 'jerky-6')!.target!.pieces).toBeGreaterThan(food.target.pieces)
  })
})

describe('the household', () => {
  it('moves its nights and everything that hangs on them, and minds versions', () => {
    const book = testBook()
    const batchId = book.begin({}, 12)
    const runId = uuidv7()
    book.log(batchId, 13, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2, 3, 4, 5], totalG: 1700 })
    book.heat(runId, 13, 57)
    const settings = householdOf(book.context)
    changeHousehold(book.context, { ...settings, timeZone: 'UTC', sleepFrom: 60, sleepTo: 120 })
    const early = nowPage(book.context).todos.find(todo => todo.kind === 'weigh')!.from
    changeHousehold(book.context, { ...settings, timeZone: 'UTC', sleepFrom: 21 * 60, sleepTo: 9 * 60, version: settings.version + 1 })
    expect(nowPage(book.context).todos.find(todo => todo.kind === 'weigh')!.from).toBeGreaterThan(early)
    expect(() => changeHousehold(book.context, settings)).toThrow(Conflict)
    // What a change leaves out stays, also what it must go with.
    const priced = changeHousehold(book.context, { kwhPrice: 0.41, money: 'kr', version: settings.version + 2 })
    expect(changeHousehold(book.context, { pantryC: 17, version: priced.version })).toEqual({
      ...priced,
      pantryC: 17,
      version: priced.version + 1,
    })
    expect(() => changeHousehold(book.context, { sleepFrom: 9 * 60, version: priced.version + 1 })).toThrow('A night needs some length')
  })
})

describe('the forecast of a household', () => {
  it('uses its own finished batches', () => {
    const book = testBook()
    const ask = () =>
      forecast(book.context, { foodKey: 'beetroot', cardKey: 'slices-3', purpose: 'powder', weightG: 2000, machineId: book.machineId })
    expect(ask().ownBatches).toBe(0)
    book.whole()
    expect(ask().ownBatches).toBe(1)
    expect(() =>
      forecast(book.context, { foodKey: 'beetroot', cardKey: 'slices-3', purpose: 'powder', weightG: 2000, machineId: uuidv7() }),
    ).toThrow(NotFound)
    expect(() =>
      forecast(book.context, { foodKey: 'x', cardKey: 'x', purpose: 'powder', weightG: 2000, machineId: book.machineId }),
    ).toThrow(InputError)
  })
})

describe('the file', () => {
  const folder = () => mkdtempSync(join(tmpdir(), 'dulse-'))

  it('is made with its folder, keeps its content, and opens again', () => {
    const path = join(folder(), 'deep', 'logbook.sqlite')
    const first = openLogbook(path, () => MORNING)
    const id = uuidv7()
    startBatch(first, { id, entry: { id: uuidv7(), at: MORNING, body: BEETROOT } })
    expect(first.db.pragma('journal_mode', { simple: true })).toBe('wal')
    expect(first.db.pragma('synchronous', { simple: true })).toBe(2)
    expect(first.db.pragma('foreign_keys', { simple: true })).toBe(1)
    first.db.close()
    const second = openLogbook(path, () => MORNING + HOUR)
    expect(batchPage(second, id).number).toBe(1)
    expect(machineList(second)).toHaveLength(1)
    second.db.close()
    rmSync(path)
  })
  it('is left as it was by a migration that fails, and refuses one from a newer Dulse', () => {
    const db = openDatabase(':memory:')
    const version = db.pragma('user_version', { simple: true })
    const bad = [
      ...Array.from({ length: version as number }, () => ({ name: 'done', sql: '' })),
      { name: '999-bad.sql', sql: 'CREATE TABLE half (x TEXT) STRICT; CREATE TABLE half (x TEXT) STRICT;' },
    ]
    expect(() => migrate(db, bad)).toThrow(/999-bad.sql failed/)
    expect(db.prepare("SELECT name FROM sqlite_master WHERE name = 'half'").get()).toBeUndefined()
    expect(db.pragma('user_version', { simple: true })).toBe(version)
    expect(() => migrate(db, [])).toThrow(/newer Dulse/)
  })
})

describe('the export', () => {
  it('holds every entry, and defuses what a spreadsheet would run', () => {
    const book = testBook()
    const batchId = book.begin({ source: '=HYPERLINK("x")' })
    book.log(batchId, 1, { kind: 'note', text: 'a "quoted", broken\nline' })
    const { data } = Papa.parse<Record<string, string>>(exportCsv(book.context), { header: true })
    expect(data).toHaveLength(2)
    expect(JSON.parse(data[1]!.body!)).toEqual({ kind: 'note', text: 'a "quoted", broken\nline' })
    expect(data[0]!.happened).toBe('2026-10-06T08:00:00.000Z')
    expect(Object.values(data[0]!).some(value => /^[=+@]/.test(value))).toBe(false)
  })
})

describe('air and hygrometers', () => {
  it('are logged on a run, remembered for the next loading, and can be voided', () => {
    const book = testBook()
    const { batchId, runId } = book.whole()
    const air = { id: uuidv7(), at: book.at(2), body: { kind: 'air' as const, runId, roomC: 21, roomHumidity: 0.58 } }
    logOnRun(book.context, runId, air)
    expect(batchPage(book.context, batchId).lastAir).toEqual({ at: air.at, roomC: 21, roomHumidity: 0.58 })
    logOnRun(book.context, runId, { id: uuidv7(), at: book.at(3), body: { kind: 'void', target: air.id } })
    expect(batchPage(book.context, batchId).lastAir).toBeUndefined()
    expect(() =>
      logOnRun(book.context, runId, { id: uuidv7(), at: book.at(3), body: { kind: 'air', runId: uuidv7(), roomC: 21, roomHumidity: 0.5 } }),
    ).toThrow(/another run/)
  })
  it('are kept with their salt test, by version', () => {
    const book = testBook()
    const id = uuidv7()
    const first = saveHygrometer(book.context, { id, name: 'White one', readings: [] })
    expect(first).toMatchObject({ version: 1, calibration: { offset: 0, gain: 1 } })
    expect(first.testedAt).toBeUndefined()
    const tested = saveHygrometer(book.context, { id, name: 'White one', version: 1, readings: [{ salt: 'sodium-chloride', shown: 0.72 }] })
    expect(tested.version).toBe(2)
    expect(tested.testedAt).toBeDefined()
    expect(tested.calibration.offset).toBeCloseTo(0.033, 6)
    expect(
      saveHygrometer(book.context, { id, name: 'White one', version: 1, readings: [{ salt: 'sodium-chloride', shown: 0.72 }] }).version,
    ).toBe(2)
    expect(() => saveHygrometer(book.context, { id, name: 'Other', version: 1, readings: [] })).toThrow(Conflict)
    expect(() => saveHygrometer(book.context, { id: uuidv7(), name: 'New', version: 3, readings: [] })).toThrow(Conflict)
    expect(() =>
      saveHygrometer(book.context, { id, name: 'White one', version: 2, readings: [{ salt: 'sodium-chloride', shown: 0.3 }] }),
    ).toThrow(InputError)
    expect(hygrometerList(book.context)).toHaveLength(1)
  })
  it('read in a jar, make the third witness', () => {
    const book = testBook()
    const batchId = book.begin()
    const runId = uuidv7()
    book.log(batchId, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1], totalG: 1700 })
    book.heat(runId, 1, 57)
    book.log(batchId, 15, { kind: 'unload', weightG: 224 })
    const reading = { kind: 'jarAir' as const, shown: 0.55, closedHours: 12, celsius: 20, calibration: { offset: 0, gain: 1, sd: 0.02 } }
    book.log(batchId, 30, reading)
    const state = foldBatch(batchPage(book.context, batchId).entries, findFood)!
    expect(state.jarAir!.body).toEqual(reading)
    const { verdict } = assess(state, book.at(30))!
    expect(verdict.witnesses.find(witness => witness.name === 'jarAir')!.says).toBe('wet')
    expect(() => book.log(batchId, 31, { ...reading, shown: 0.99, calibration: { offset: 0.3, gain: 1, sd: 0.02 } })).toThrow(
      /new salt test/,
    )
    expect(() => book.log(book.begin({}, 31), 31, reading)).toThrow(/Nothing has been dried yet/)
  })
})

describe('learning', () => {
  it('knows how a machine runs from its finished batches, and writes into a load what was believed', () => {
    const book = testBook()
    const first = book.begin()
    expect(batchPage(book.context, first).learned[book.machineId]).toMatchObject({ runs: 0 })
    expect(machineList(book.context)[0]!.pace).toBeUndefined()
    book.whole(10)
    const second = book.begin({}, 300)
    const learned = batchPage(book.context, second).learned[book.machineId]!
    expect(learned).toMatchObject({ runs: 1, machine: { runs: 1 }, food: { runs: 1 } })
    // Intake asks the same, and is told the same.
    const ahead = forecast(book.context, {
      foodKey: 'beetroot',
      cardKey: 'slices-3',
      purpose: 'powder',
      weightG: 2000,
      machineId: book.machineId,
    })
    expect(Math.abs(ahead.hoursPerLoad.p10 / learned.low - 1)).toBeLessThan(0.03)
    expect(Math.abs(ahead.hoursPerLoad.p90 / learned.high - 1)).toBeLessThan(0.03)
    expect(ahead.ownRuns).toBe(1)
    // It is kept until something is written on a run that teaches: who cut it may be put right later.
    const before = hoursLearned(book.context)
    expect(hoursLearned(book.context)).toBe(before)
    const [taught] = batchList(book.context, { stage: 'shelf' }).batches
    book.log(taught!.batchId, 330, { kind: 'note', text: 'Wren cut it' })
    expect(hoursLearned(book.context)).not.toBe(before)
    expect(machineList(book.context)[0]!.pace).toMatchObject({ runs: 1 })
    const runId = uuidv7()
    book.log(second, 301, {
      kind: 'load',
      runId,
      machineId: book.machineId,
      positions: [1],
      totalG: 1700,
      usualHours: { low: 20, high: 30, runs: 1 },
    })
    book.heat(runId, 301, 57)
    const state = foldBatch(batchPage(book.context, second).entries, findFood)!
    expect(state.run!.usualHours).toEqual({ low: 20, high: 30, runs: 1 })
    expect(assess(state, book.at(301))!.estimate.hoursToTarget.p50).toBeGreaterThan(20)
  })
})

describe('trays taken out one by one', () => {
  it('are free for another batch while the rest dries on', () => {
    const book = testBook()
    const first = book.begin()
    const second = book.begin({ foodKey: 'carrot' }, 0.2)
    const runId = uuidv7()
    book.log(first, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2], totalG: 1700 })
    book.heat(runId, 1, 57)
    const join = (hours: number) => book.log(second, hours, { kind: 'load', runId, machineId: book.machineId, positions: [2], totalG: 800 })
    expect(() => join(5)).toThrow(/Taken by another batch: 2/)
    book.log(first, 8, { kind: 'unload', weightG: 120, positions: [2] })
    join(8.1)
    expect(
      nowPage(book.context)
        .racks[0]!.trays.slice(0, 3)
        .map(tray => tray.batchNumber),
    ).toEqual([1, 2, undefined])
  })
})

describe('what is in force', () => {
  const places = (book: TestBook) => shelfPlaces(book.context)
  it('is asked of one view: a place’s warmth forgets what was voided or corrected', () => {
    const book = testBook()
    const { jarId } = book.whole()
    const cool = uuidv7()
    const hot = uuidv7()
    const celsius = () => places(book).find(place => place.place === 'Cellar')?.storageC
    book.onJar(jarId, 400, { kind: 'moveJar', jarId, place: 'Cellar', storageC: 12 }, { id: cool })
    expect(celsius()).toBe(12)
    book.onJar(jarId, 401, { kind: 'moveJar', jarId, place: 'Cellar', storageC: 40 }, { id: hot })
    expect(celsius()).toBe(40)
    book.onJar(jarId, 402, { kind: 'void', target: hot })
    expect(celsius()).toBe(12)
    book.onJar(jarId, 400, { kind: 'moveJar', jarId, place: 'Cellar', storageC: 14 }, { replaces: cool })
    expect(celsius()).toBe(14)
  })
  it('is the same by SQL and by core, over any log', () => {
    const book = testBook()
    const { batchId } = book.whole()
    const [first, second, third] = [uuidv7(), uuidv7(), uuidv7()]
    book.log(batchId, 500, { kind: 'note', text: 'a' }, { id: first })
    book.log(batchId, 501, { kind: 'note', text: 'b' }, { id: second, replaces: first })
    book.log(batchId, 502, { kind: 'note', text: 'c' }, { id: third })
    book.log(batchId, 503, { kind: 'void', target: second })
    const bySql = book.context.db.prepare('SELECT id FROM entry_in_force ORDER BY id').pluck().all()
    const all = [...allEntries(book.context.db)].map(({ entry }) => entry)
    expect(bySql).toEqual(
      inForce(all)
        .map(entry => entry.id)
        .sort(),
    )
    expect(bySql).toContain(third)
    expect(bySql).not.toContain(first)
    expect(bySql).not.toContain(second)
  })
})
