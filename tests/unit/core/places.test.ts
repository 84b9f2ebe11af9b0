import fc from 'fast-check'
import { assessRack, followTrays, foldBatch, placesAfter } from '#core/batch'
import type { EntryBody, EntryOf } from '#core/log'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = '0199b000-0000-7000-8000-000000000001'
const move = (...trays: { from: number; to: number }[]): EntryBody => ({ kind: 'move', runId: RUN, trays })
const swap = (a: number, b: number) => move({ from: a, to: b }, { from: b, to: a })
const trays = (...grams: [number, number][]): EntryBody => ({
  kind: 'weigh',
  trays: grams.map(([position, weightG]) => ({ position, weightG })),
})
const loaded = (...more: Parameters<typeof logOf>) =>
  logOf(
    [0, BEETROOT],
    [
      1,
      {
        kind: 'load',
        runId: RUN,
        machineId: RUN,
        positions: [1, 2, 3],
        totalG: 1500,
        trays: [
          { position: 1, weightG: 400 },
          { position: 2, weightG: 500 },
          { position: 3, weightG: 600 },
        ],
      },
    ],
    [1, { kind: 'heat', runId: RUN, setC: 57 }],
    ...more,
  )
const entries = <K extends 'move' | 'unload'>(kind: K, ...items: [number, EntryBody][]) =>
  logOf(...items).filter((entry): entry is EntryOf<K> => entry.body.kind === kind)
const at = (hours: number) => MORNING + hours * HOUR

describe('trays that change places', () => {
  it('are where they were put, and were where they stood before', () => {
    const places = followTrays([1, 2, 3], entries('move', [3, swap(1, 3)], [5, move({ from: 2, to: 6 })]), [])
    expect([1, 2, 3].map(tray => places.placeAt(tray, at(2)))).toEqual([1, 2, 3])
    expect([1, 2, 3].map(tray => places.placeAt(tray, at(4)))).toEqual([3, 2, 1])
    expect([1, 2, 3].map(tray => places.placeAt(tray, at(6)))).toEqual([3, 6, 1])
    expect(places.trayAt(3, at(2))).toBe(3)
    expect(places.trayAt(3, at(4))).toBe(1)
    expect(places.trayAt(2, at(6))).toBeUndefined()
    expect(places.movedAt).toBe(at(5))
  })
  it('come out of the place where they stand, and no later move concerns them', () => {
    const places = followTrays(
      [1, 2],
      entries('move', [2, swap(1, 2)], [4, move({ from: 2, to: 1 })]),
      entries('unload', [3, { kind: 'unload', positions: [1] }]),
    )
    expect(places.outAt.get(2)).toBe(at(3))
    expect(places.outAt.has(1)).toBe(false)
    expect(places.placeAt(1, at(5))).toBe(1)
    expect(places.trayAt(1, at(5))).toBe(1)
  })
  it('that are only turned have not moved', () => {
    expect(
      followTrays([1], entries('move', [2, { kind: 'move', runId: RUN, trays: [{ from: 1, to: 1, turned: true }] }]), []).movedAt,
    ).toBeUndefined()
  })
  it('never stand two in one place, whatever is swapped', () => {
    const pair = fc.tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 }))
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 12 }), swaps => {
        const all = [1, 2, 3, 4, 5, 6]
        const places = followTrays(all, entries('move', ...swaps.map(([a, b], i): [number, EntryBody] => [i, swap(a, b)])), [])
        expect(all.map(tray => places.placeAt(tray, Infinity)).sort()).toEqual(all)
        for (const tray of all) expect(places.trayAt(places.placeAt(tray, Infinity), Infinity)).toBe(tray)
      }),
    )
  })
  it('stand where a move would put them', () => {
    expect(
      placesAfter(
        [1, 2, 5],
        [
          { from: 1, to: 2 },
          { from: 2, to: 1 },
        ],
      ),
    ).toEqual([2, 1, 5])
    expect(placesAfter([1, 2], [{ from: 1, to: 2 }])).toEqual([2, 2])
  })
})

describe('a batch whose trays move', () => {
  it('counts a weight to the tray that stood there', () => {
    const { run } = foldBatch(
      loaded([3, trays([1, 300], [2, 400], [3, 500])], [3.5, swap(1, 3)], [5, trays([1, 350], [2, 250], [3, 180])]),
      findFood,
    )!
    const of = (tray: number) => run!.trayWeights.filter(weight => weight.position === tray).map(weight => weight.weightG)
    expect([of(1), of(2), of(3)]).toEqual([
      [300, 180],
      [400, 250],
      [500, 350],
    ])
    expect(run!.weighings.map(weighing => weighing.weightG)).toEqual([1200, 780])
    expect(run!.weighings[1]!.positions).toEqual([1, 2, 3])
  })
  it('shows its rack by place, each tray with what its own weights say', () => {
    const state = foldBatch(loaded([3, trays([1, 300], [2, 400], [3, 500])], [3.5, swap(1, 3)], [5, trays([3, 150])]), findFood)!
    const rack = assessRack(state, at(5.1))
    expect(rack.map(tray => tray.place)).toEqual([1, 2, 3])
    expect(rack[2]!.lastG).toBe(150)
    expect(rack[2]!.left).toBeLessThan(rack[0]!.left)
  })
  it('gives all trays the load’s window where none was weighed alone', () => {
    const rack = assessRack(foldBatch(loaded([4, { kind: 'weigh', totalG: 800 }]), findFood)!, at(4))
    expect(new Set(rack.map(tray => tray.finish.middle)).size).toBe(1)
    expect(assessRack(foldBatch(logOf([0, BEETROOT]), findFood)!, at(1))).toEqual([])
  })
})
