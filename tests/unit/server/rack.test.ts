import { uuidv7 } from 'uuidv7'
import { assess, foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import type { NewBatch, NewRunEntry } from '#shared/contracts'
import { comparedRuns } from '#server/services/compare'
import { machineList, machinePage, noteUpkeep } from '#server/services/machines'
import { batchList, batchPage, clearLate, nowPage } from '#server/services/pages'
import { planProblem } from '#server/services/plan'
import { rebuildProjections } from '#server/services/projections'
import { saveMachine } from '#server/services/settings'
import { forecast, forecastAlternatives } from '#server/services/forecast'
import { logOnRun, startBatch } from '#server/services/writeLog'
import { testBook } from '../../support/logbook'
import { findFood } from '../../support/foods'

function rack() {
  const book = testBook()
  const runId = uuidv7()
  const load = (positions: number[], hours: number, weightG = 600) => {
    const batchId = book.begin({ weightG: 2000 }, hours - 0.5)
    book.log(batchId, hours, {
      kind: 'load',
      runId,
      machineId: book.machineId,
      positions,
      totalG: weightG,
      trays: positions.map(position => ({ position, weightG: weightG / positions.length })),
    })
    return batchId
  }
  const first = load([1, 2], 1)
  const second = load([3, 4], 1)
  book.heat(runId, 1, 57)
  const write = (hours: number, body: EntryBody, replaces?: string) =>
    logOnRun(book.context, runId, { id: uuidv7(), at: book.at(hours), replaces, body } as NewRunEntry)
  const move = (hours: number, ...pairs: [number, number][]) =>
    write(hours, { kind: 'move', runId, trays: pairs.map(([from, to]) => ({ from, to })) })
  const places = (batchId: string) => {
    const { run } = foldBatch(batchPage(book.context, batchId).entries, findFood)!
    return run!.positions.map(tray => run!.places.placeAt(tray, Infinity))
  }
  return { book, runId, first, second, write, move, places, load }
}

describe('moving trays on a run', () => {
  it('swaps trays of two batches, and the rack and later weights follow', () => {
    const { book, first, second, move, places } = rack()
    move(3, [1, 4], [4, 1])
    expect(places(first)).toEqual([4, 2])
    expect(places(second)).toEqual([3, 1])
    const [shown] = nowPage(book.context).racks
    expect(shown!.trays.map(tray => (tray.batchId === first ? 'first' : tray.batchId === second ? 'second' : 'free'))).toEqual([
      'second',
      'first',
      'second',
      'first',
      'free',
      'free',
    ])
    book.log(first, 4, { kind: 'weigh', trays: [{ position: 4, weightG: 200 }] })
    expect(() => book.log(first, 4, { kind: 'weigh', trays: [{ position: 1, weightG: 200 }] })).toThrow('lies on 2, 4')
    book.log(first, 5, { kind: 'unload', positions: [4] })
    expect(() => book.log(first, 6, { kind: 'unload', positions: [4] })).toThrow('it has 2')
    expect(() => book.log(first, 6, { kind: 'weigh', trays: [{ position: 4, weightG: 100 }] })).toThrow('has been taken out')
  })
  it.each<[string, [number, number][], string]>([
    ['from an empty place', [[5, 6]], 'No tray stands at 5: taken are 1, 2, 3, 4.'],
    ['beyond the machine', [[1, 9]], 'there is no 9'],
    ['onto another tray', [[1, 2]], 'Two trays would stand at 2'],
  ])('is refused %s, with the mend', (_, pairs, message) => {
    const { move, places, first } = rack()
    expect(() => move(3, ...pairs)).toThrow(message)
    expect(places(first)).toEqual([1, 2])
  })
  it('is taken back by voiding, unless a weight hangs on it', () => {
    const { book, first, runId, move, places } = rack()
    const { entry } = move(3, [1, 6])
    expect(places(first)).toEqual([6, 2])
    book.log(first, 4, { kind: 'weigh', trays: [{ position: 6, weightG: 200 }] })
    const voiding = { id: uuidv7(), at: book.at(5), body: { kind: 'void' as const, target: entry.id } }
    expect(() => logOnRun(book.context, runId, voiding)).toThrow('names a tray that this would have put elsewhere')
    const { entry: later } = move(6, [6, 5])
    logOnRun(book.context, runId, { id: uuidv7(), at: book.at(6.1), body: { kind: 'void', target: later.id } })
    expect(places(first)).toEqual([6, 2])
  })
  it('is the run’s: one batch alone cannot void it', () => {
    const { book, first, move, places } = rack()
    const { entry } = move(3, [1, 6])
    expect(() => book.log(first, 4, { kind: 'void', target: entry.id })).toThrow('belongs to the run and all its batches')
    expect(places(first)).toEqual([6, 2])
  })
  it('frees the place for a late tray', () => {
    const { book, move, load } = rack()
    move(3, [1, 6])
    const late = load([1], 4, 300)
    expect(foldBatch(batchPage(book.context, late).entries, findFood)!.run!.present).toEqual([1])
    expect(() => load([6], 5, 300)).toThrow('Taken by another batch: 6')
  })
  it('which is weighed as it is cut, and so teaches nothing of trimming', () => {
    const { book, runId } = rack()
    const late = book.begin({ weightG: 420 }, 4)
    book.log(late, 4, { kind: 'prep', step: 'cut', effect: 'none', cutName: '3 mm slices', thicknessMm: 3, by: 'Wren' })
    book.log(late, 4, { kind: 'load', runId, machineId: book.machineId, positions: [5], totalG: 420 })
    expect(book.context.db.prepare('SELECT prep_yield, cut_by FROM batch_view WHERE batch_id = ?').get(late)).toEqual({
      prep_yield: null,
      cut_by: 'Wren',
    })
  })
  it('and what was measured before it came in still goes into the log', () => {
    const { runId, write, load } = rack()
    load([6], 5, 300)
    expect(() => write(3, { kind: 'air', runId, chamberC: 52 })).not.toThrow()
    expect(() => write(0.2, { kind: 'air', runId, chamberC: 52 })).toThrow('before the food came in')
  })
  it('stands in the log of every batch of the run, turned or flipped trays too', () => {
    const { book, first, second, write, runId } = rack()
    write(3, { kind: 'move', runId, trays: [{ from: 2, to: 2, turned: true }] })
    for (const batchId of [first, second])
      expect(batchPage(book.context, batchId).entries.some(entry => entry.body.kind === 'move')).toBe(true)
  })
})

describe('a machine', () => {
  it('has its list ticked on the run, and unticked', () => {
    const { book, runId, write } = rack()
    const { entry } = write(1.1, { kind: 'tick', runId, list: 'start', item: 'clear' })
    expect(machinePage(book.context, book.machineId).run!.entries.some(item => item.id === entry.id)).toBe(true)
    expect(() => write(1.2, { kind: 'tick', runId, list: 'start', item: 'drain' })).toThrow('not on this machine’s list')
    expect(() => write(1.3, { kind: 'void', target: entry.id })).not.toThrow()
  })
  it('counts its hours with the heat on, over all runs, and its upkeep by them', () => {
    const book = testBook()
    book.whole(0)
    book.whole(300)
    // Each had its heat from loading to taking out, 13.2 hours.
    expect(machineList(book.context)[0]!.hoursRun).toBeCloseTo(26.4, 6)
    const id = uuidv7()
    const done = noteUpkeep(book.context, book.machineId, { id, task: 'filter', at: book.at(600) })
    expect(done.upkeep!.find(task => task.key === 'filter')).toMatchObject({ sinceHours: 0, due: false })
    expect(noteUpkeep(book.context, book.machineId, { id, task: 'filter', at: book.at(600) })).toEqual(done)
    expect(() => noteUpkeep(book.context, book.machineId, { id: uuidv7(), task: 'oil', at: book.at(600) })).toThrow('is not a task')
    expect(() => noteUpkeep(book.context, book.machineId, { id: uuidv7(), task: 'filter', at: book.at(600) + 1e9 })).toThrow('future')
    rebuildProjections(book.context)
    expect(machineList(book.context)[0]!.upkeep!.find(task => task.key === 'filter')!.doneAt).toBe(book.at(600))
  })
  it('learns how far its dial is off, once it had time to get there', () => {
    const { book, runId, write } = rack()
    write(1.1, { kind: 'air', runId, chamberC: 30 })
    expect(machineList(book.context)[0]!.thermostat).toBeUndefined()
    for (const hours of [3, 4, 5, 6]) write(hours, { kind: 'air', runId, chamberC: 51 })
    expect(machineList(book.context)[0]!.thermostat).toMatchObject({ count: 4 })
    expect(machineList(book.context)[0]!.thermostat!.offC).toBeLessThan(-4)
  })
  it('learns its evenness from finished batches whose trays were weighed one by one', () => {
    const book = testBook()
    for (let i = 0; i < 3; i++) {
      const from = i * 300
      const batchId = book.begin({}, from)
      const runId = uuidv7()
      book.log(batchId, from + 1, {
        kind: 'load',
        runId,
        machineId: book.machineId,
        positions: [1, 2],
        totalG: 1700,
        trays: [
          { position: 1, weightG: 850 },
          { position: 2, weightG: 850 },
        ],
      })
      book.heat(runId, from + 1, 57)
      for (const [hours, slow, fast] of [
        [4, 540, 420],
        [7, 300, 190],
        [10, 170, 118],
        [14, 114, 112],
      ] as const) {
        book.log(batchId, from + hours, {
          kind: 'weigh',
          trays: [
            { position: 1, weightG: slow },
            { position: 2, weightG: fast },
          ],
        })
      }
      book.log(batchId, from + 14.2, { kind: 'unload', weightG: 226 })
      book.log(batchId, from + 14.4, { kind: 'rest' })
      book.log(batchId, from + 190, { kind: 'restEnd', weightG: 226 })
      book.log(batchId, from + 191, { kind: 'grind', dryInG: 226, powderOutG: 215 })
      book.log(batchId, from + 192, { kind: 'pack', jarId: uuidv7(), netG: 215, packageKey: 'screw-jar', place: 'Board' })
    }
    const [machine] = machineList(book.context)
    expect(machine!.evenness!.map(place => [place.place, place.trays])).toEqual([
      [1, 3],
      [2, 3],
    ])
    expect(machine!.evenness![0]!.pace).toBeLessThan(0.97)
    expect(machine!.evenness![1]!.pace).toBeGreaterThan(1.03)
    const runs = comparedRuns(book.context, { food: 'beetroot' })
    expect(runs).toHaveLength(3)
    expect(runs[0]!.weighed.map(point => Math.round(point.hours))).toEqual([3, 6, 9, 13])
    expect(runs[0]!.curve[0]!.left).toBeGreaterThan(0.97)
    expect(runs[0]!.curve.at(-1)!.left).toBeLessThan(0.05)
    expect(comparedRuns(book.context, { food: 'beetroot', card: 'shreds' })).toEqual([])
  })
  it('may be of any kind, with trays that weigh differently', () => {
    const book = testBook()
    const id = uuidv7()
    saveMachine(book.context, {
      id,
      name: 'Cold box',
      kind: 'freeze-dryer',
      trays: 4,
      trayAreaM2: 0.1,
      trayTareG: 500,
      trayTares: { 2: 560 },
      watts: 1200,
      lowC: 0,
      highC: 60,
    })
    const saved = machineList(book.context).find(machine => machine.id === id)!
    expect(saved).toMatchObject({ kind: 'freeze-dryer', trayTares: { 2: 560 } })
    expect(() => saveMachine(book.context, { ...saved, version: 7, trayTares: {} })).toThrow('changed elsewhere')
  })
})

describe('a rack that was switched off', () => {
  it('shows on Now and in the list what the page of the batch says at that hour, and keeps only what follows from the log', () => {
    const book = testBook()
    const batchId = book.begin()
    const runId = uuidv7()
    book.log(batchId, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2], totalG: 1700 })
    book.heat(runId, 1, 57)
    logOnRun(book.context, runId, { id: uuidv7(), at: book.at(1), body: { kind: 'air', runId, roomC: 22, roomHumidity: 0.75 } })
    for (const [hours, totalG] of [
      [4, 620],
      [7, 285],
      [10, 226],
    ] as const)
      book.log(batchId, hours, { kind: 'weigh', totalG })
    book.heat(runId, 10, null)
    const onNow = () => 1 - nowPage(book.context).racks.find(rack => rack.runId === runId)!.trays[0]!.waterLeft!
    const inList = () => batchList(book.context, { stage: 'drying' }).batches[0]!.waterGone!
    const kept = () => book.context.db.prepare('SELECT water_gone FROM batch_view').get()
    const [evening, asKept] = [onNow(), kept()]
    book.at(20)
    const { entries, food } = batchPage(book.context, batchId)
    const onPage = assess(
      foldBatch(entries, () => food)!,
      book.context.now(),
    )!.waterGone.p50
    expect(onNow()).toBe(onPage)
    expect(inList()).toBe(onPage)
    expect(evening).toBeGreaterThan(onPage + 0.003)
    rebuildProjections(book.context)
    expect(kept()).toEqual(asKept)
  })
})

describe('what stands in machines counts', () => {
  const question = (machineId: string) => ({ foodKey: 'tomato', cardKey: 'slices-6', purpose: 'powder' as const, weightG: 3000, machineId })
  it('in a forecast: free places, and when the others are free, the same beside other ways', () => {
    const empty = testBook()
    expect(forecast(empty.context, question(empty.machineId))).toMatchObject({ free: 6, places: 6 })
    const { book } = rack()
    const here = forecast(book.context, question(book.machineId))
    expect(here).toMatchObject({ free: 2, places: 6 })
    const beside = forecastAlternatives(book.context, question(book.machineId)).find(row => row.asked)!
    expect(here.freeAt).toBeGreaterThan(book.at(2))
    expect(beside).toMatchObject({ free: 2, places: 6, loads: here.loads, endsAt: here.endsAt })
  })
  it('and the machine that was meant stands in the log of the basket; one that is not there is refused', () => {
    const { book } = rack()
    const basket = (machineId: string): NewBatch => ({
      id: uuidv7(),
      entry: {
        id: uuidv7(),
        at: book.at(1),
        body: { kind: 'intake', foodKey: 'tomato', source: 'Garden', weightG: 900, purpose: 'powder', cardKey: 'slices-6', machineId },
      },
    })
    const meant = basket(book.machineId)
    startBatch(book.context, meant)
    expect(batchPage(book.context, meant.id).entries[0]!.body).toMatchObject({ machineId: book.machineId })
    expect(() => startBatch(book.context, basket(uuidv7()))).toThrow(/There is no such machine/)
  })
})

describe('what there is to plan', () => {
  it('is what can wait: what is over its time, too long in the warm or from jars is said apart', async () => {
    const { book } = rack()
    const fresh = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 2000 }, 5)
    const old = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 2000 }, -24 * 40)
    const cut = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 2000 }, 2)
    book.log(cut, 2.5, { kind: 'prep', step: 'cut', effect: 'none' })
    const { problem, apart } = await planProblem(book.context)
    expect(problem.baskets.map(basket => basket.id)).toContain(fresh)
    expect(problem.baskets.map(basket => basket.id)).not.toContain(old)
    expect(apart.find(item => item.batchId === old)).toMatchObject({ why: 'late' })
    const [taken] = problem.machines
    expect(taken!.busy.reduce((sum, item) => sum + item.places, 0)).toBe(4)
    // By the half hour it stays as it is, whoever asks again.
    expect((await planProblem(book.context)).problem).toEqual(problem)
  })
  it('splits what no machine takes at once, and counts what went its own way no more', async () => {
    const book = testBook()
    const large = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 9000 }, 5)
    const parts = (await planProblem(book.context)).problem.baskets
    expect(parts.length).toBeGreaterThan(1)
    expect(parts.every(part => part.id.startsWith(`${large}#`) && part.options.length > 0)).toBe(true)
    // Tomatoes have a card for their skins alone: nobody plans to throw the rest away.
    expect(parts.flatMap(part => part.options.map(option => option.cardKey))).not.toContain('skins')
    expect(parts.reduce((sum, part) => sum + part.weightG, 0)).toBeGreaterThan(8000)
  })
})

describe('what is late', () => {
  it('is cleared with a reason, comes back when it is asked for anew, and is not cleared twice', () => {
    const book = testBook()
    const id = book.begin({}, 0)
    const [todo] = nowPage(book.context).todos
    const what = { batchId: id, kind: todo!.kind, from: todo!.from, reason: 'given away' }
    expect(clearLate(book.context, what).todos).toEqual([])
    expect(nowPage(book.context).todoCount).toBe(0)
    expect(() => clearLate(book.context, { ...what, kind: 'pack' })).toThrow(/not asked for any more/)
    // Cut after all, it is to be loaded.
    book.log(id, 1, { kind: 'prep', step: 'cut', effect: 'none' })
    expect(nowPage(book.context).todos.map(item => item.kind)).toEqual(['load'])
  })
  it('what was never weighed is told as a forecast, and goes on', () => {
    const book = testBook()
    const id = book.begin({}, 0)
    const runId = uuidv7()
    book.log(id, 0.5, { kind: 'load', runId, machineId: book.machineId, positions: [1], totalG: 1700 })
    book.heat(runId, 0.5, 57)
    const tray = (hours: number) => {
      book.at(hours)
      return nowPage(book.context).racks.find(item => item.machine.id === book.machineId)!.trays[0]!
    }
    const soon = tray(1)
    const later = tray(6)
    expect(soon.guessed).toBe(true)
    expect(later.waterLeft!).toBeLessThan(soon.waterLeft! - 0.2)
    book.log(id, 6, { kind: 'weigh', totalG: 700 })
    expect(tray(6.1).guessed).toBeUndefined()
  })
})
