import { uuidv7 } from 'uuidv7'
import { assess, assessRack, assessRacks, foldBatch, withMates } from '#core/batch'
import { batchList, batchPage, nowPage } from '#server/services/pages'
import { rebuildProjections } from '#server/services/projections'
import { householdOf } from '#server/services/context'
import { changeHousehold, saveMachine } from '#server/services/settings'
import { findFood } from '../../support/foods'
import { HOUR, testBook, type TestBook } from '../../support/logbook'

const stateOf = (book: TestBook, id: string) => foldBatch(batchPage(book.context, id).entries, findFood)!

describe('one figure for the water of a tray, on every page', () => {
  const loaded = () => {
    const book = testBook()
    const id = book.begin({}, 0)
    const runId = uuidv7()
    book.log(id, 0.5, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2], totalG: 1700 })
    book.heat(runId, 0.5, 57)
    return { book, id, runId }
  }
  /** Now, the list, the rack and the batch's own page, at an hour. */
  function told({ book, id }: ReturnType<typeof loaded>, hours: number) {
    const now = book.at(hours)
    const state = stateOf(book, id)
    const onPage = assess(state, now)!
    const onNow = nowPage(book.context).racks.find(rack => rack.machine.id === book.machineId)!.trays[0]!
    const onRack = assessRack(state, now)[0]!
    const inList = batchList(book.context, {}).batches.find(batch => batch.batchId === id)!
    return { onPage, onNow, onRack, inList, state }
  }
  it.each([
    ['never weighed', () => loaded(), 8],
    [
      'weighed',
      () => {
        const all = loaded()
        all.book.log(all.id, 7, { kind: 'weigh', totalG: 420 })
        return all
      },
      8,
    ],
    [
      'weighed and off since',
      () => {
        const all = loaded()
        all.book.log(all.id, 7, { kind: 'weigh', totalG: 300 })
        all.book.heat(all.runId, 7, null)
        return all
      },
      20,
    ],
  ] as const)('%s', (_, make, hours) => {
    const { onPage, onNow, onRack, inList, state } = told(make(), hours)
    const moisture = onPage.estimate.moistureNow.p50
    expect(onNow.moisture).toBeCloseTo(moisture, 6)
    expect(onRack.moisture).toBeCloseTo(moisture, 6)
    expect([onNow.target, onRack.target]).toEqual([state.food.target.powder, state.food.target.powder])
    expect(1 - onNow.waterLeft!).toBeCloseTo(onPage.waterGone.p50, 6)
    expect(inList.waterGone).toBeCloseTo(onPage.waterGone.p50, 6)
    // What is gone and what is in it are of one mass.
    const { solidsG, waterLeftG } = onPage.estimate
    expect(waterLeftG.p50 / (waterLeftG.p50 + solidsG.p50)).toBeCloseTo(moisture, 2)
  })
  it('of a load that nobody weighed the hours take water', () => {
    const all = loaded()
    const at = (hours: number) => told(all, hours).onPage
    expect(at(0.6).waterGone.p50).toBeLessThan(0.1)
    expect(at(9).waterGone.p50).toBeGreaterThan(0.5)
    expect(at(9).estimate.hoursToTarget).toEqual(at(0.6).estimate.hoursToTarget)
  })
})

describe('one freeze dryer, one cycle', () => {
  function coldOne(iceG = 6000) {
    const book = testBook()
    const machineId = uuidv7()
    const dryer = {
      id: machineId,
      name: 'Cold one',
      kind: 'freeze-dryer' as const,
      trays: 5,
      trayAreaM2: 0.09,
      trayTareG: 0,
      trayTares: {},
      watts: 1200,
      lowC: 20,
      highC: 60,
      iceG,
    }
    saveMachine(book.context, dryer)
    return { book, machineId, runId: uuidv7() }
  }
  function chamber() {
    const { book, machineId, runId } = coldOne()
    const ids = (['strawberry', 'apple', 'tomato'] as const).map((foodKey, i) => {
      const food = findFood(foodKey)!
      const card = food.cards.find(item => item.ways.some(way => way.way === 'freeze-dryer'))!
      const id = book.begin({ foodKey, cardKey: card.key, weightG: 1500 }, 0)
      book.log(id, 1, { kind: 'load', runId, machineId, positions: [i + 1], totalG: 900 + 300 * i, frozen: [i + 1], way: 'freeze-dryer' })
      return id
    })
    return { book, ids, runId, machineId }
  }
  it('has one end on Now and on every batch’s page', () => {
    const { book, ids, runId } = chamber()
    book.heat(runId, 1.2, 40)
    const { racks } = nowPage(book.context)
    const rack = racks.find(({ machine }) => machine.name === 'Cold one')!
    expect(new Set(rack.finishes.map(({ from, to }) => `${from} ${to}`)).size).toBe(1)
    const now = book.at(2)
    for (const id of ids) {
      const { mates } = batchPage(book.context, id)
      expect(mates).toHaveLength(2)
      const { finish } = withMates(stateOf(book, id), assess(stateOf(book, id), now)!, mates)
      expect(Math.round(finish.to)).toBe(rack.finishes[0]!.to)
    }
    const states = ids.map(id => stateOf(book, id))
    const ends = assessRacks(states, now)
      .flat()
      .map(tray => tray.finish.to)
    expect(new Set(ends).size).toBe(1)
  })
  it('asks once, for all, and takes out nothing before the last is done', () => {
    const { book, ids, runId } = chamber()
    const asked = () => nowPage(book.context).todos.map(({ kind, title }) => `${kind}: ${title}`)
    expect(asked()).toEqual(['heat: Start the cycle of the freeze dryer'])
    book.heat(runId, 1.2, 40)
    expect(asked()).toEqual(['round: Weigh every tray of the freeze dryer'])
    const weigh = (hours: number) =>
      ids.slice(0, 2).forEach((id, i) => book.log(id, hours, { kind: 'weigh', trays: [{ position: i + 1, weightG: 100 + 20 * i }] }))
    weigh(30)
    weigh(33)
    // Two are done; the third was never weighed.
    expect(asked()).toEqual(['round: Weigh every tray of the freeze dryer'])
    book.log(ids[2]!, 33, { kind: 'weigh', trays: [{ position: 3, weightG: 90 }] })
    book.log(ids[2]!, 36, { kind: 'weigh', trays: [{ position: 3, weightG: 90 }] })
    expect(asked().filter(line => line.startsWith('takeOut'))).toHaveLength(3)
    const before = asked()
    rebuildProjections(book.context)
    expect(asked()).toEqual(before)
  })
  it('waits for what freezes last, whatever went in frozen', () => {
    const endOf = (frozenToo: boolean) => {
      const { book, machineId, runId } = coldOne()
      const load = (foodKey: string, position: number, totalG: number, frozen: boolean) => {
        const food = findFood(foodKey)!
        const card = food.cards.find(item => item.ways.some(way => way.way === 'freeze-dryer'))!
        const id = book.begin({ foodKey, cardKey: card.key, weightG: 1500 }, 0)
        book.log(id, 1, {
          kind: 'load',
          runId,
          machineId,
          positions: [position],
          totalG,
          trayAreaM2: 0.12,
          frozen: frozen ? [position] : [],
          way: 'freeze-dryer',
        })
        return id
      }
      const first = load('apple', 1, 1000, true)
      load('mushroom', 2, 200, frozenToo)
      book.heat(runId, 1, 40)
      const state = stateOf(book, first)
      const { mates } = batchPage(book.context, first)
      return withMates(state, assess(state, book.at(1.5))!, mates).finish.middle
    }
    expect((endOf(false) - endOf(true)) / HOUR).toBeCloseTo(7.5, 0)
  })
  it('refuses more ice than its coil holds, with what stands in it, and says how much still goes in', () => {
    const { book, machineId, runId } = coldOne(1500)
    const load = (position: number, totalG: number) => {
      const id = book.begin({ foodKey: 'apple', cardKey: 'rings-5', weightG: 3000 }, 0)
      return () => book.log(id, 1, { kind: 'load', runId, machineId, positions: [position], totalG, frozen: [], way: 'freeze-dryer' })
    }
    load(1, 1000)()
    expect(load(2, 1200)).toThrow(/of ice with what stands in it is more than the 1500 g that Cold one holds: load \d+ g of it at most/)
    expect(load(2, 600)).not.toThrow()
  })
  it('counts its ice over all that stands in it', () => {
    const { book, ids } = chamber()
    const { mates, others, machines } = batchPage(book.context, ids[0]!)
    const machine = machines.find(({ name }) => name === 'Cold one')!
    const beside = others[machine.id]!.reduce((sum, other) => sum + other.waterG!, 0)
    expect(beside).toBeCloseTo(
      mates.reduce((sum, mate) => sum + mate.waterG, 0),
      6,
    )
    expect(beside).toBeGreaterThan(0.7 * 2700)
  })
})

describe('a load in the sun', () => {
  it('keeps the sun’s hours of its own season, however late it is written down', () => {
    const book = testBook()
    const machineId = uuidv7()
    saveMachine(book.context, {
      id: machineId,
      name: 'Racks',
      kind: 'sun',
      trays: 4,
      trayAreaM2: 0.3,
      trayTareG: 0,
      trayTares: {},
      watts: 1,
      lowC: 10,
      highC: 60,
    })
    const { version } = householdOf(book.context)
    changeHousehold(book.context, { version, timeZone: 'UTC', latitude: 45, longitude: 0 })
    const hoursAt = (days: number) => {
      const id = book.begin({ foodKey: 'apricot', cardKey: 'halves', purpose: 'pieces', weightG: 1500 }, 24 * days)
      const load = { kind: 'load' as const, runId: uuidv7(), machineId, positions: [1], totalG: 1200, way: 'sun' as const }
      const { body } = book.log(id, 24 * days + 1, load).entry as { body: typeof load & { sun?: { from: number; to: number } } }
      book.log(id, 24 * days + 30, { kind: 'unload' })
      return body.sun && (body.sun.to - body.sun.from) / HOUR
    }
    // From October back to July, and on to January.
    expect(hoursAt(-90)).toBeGreaterThan(8.5)
    expect(hoursAt(0)).toBeLessThan(7)
    expect(hoursAt(80)).toBeUndefined()
    const cleared = changeHousehold(book.context, { version: version + 1, latitude: null, longitude: null })
    expect(cleared.latitude).toBeUndefined()
    expect(() => changeHousehold(book.context, { version: version + 2, longitude: 5 })).toThrow(/go together/)
  })
})
