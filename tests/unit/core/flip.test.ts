import type { EntryBody } from '#core/log'
import { agendaOf } from '#core/planning'
import { assess, assessRack, foldBatch } from '#core/batch'
import { dryingRunOf, flipHour } from '#core/water'
import { findFood } from '../../support/foods'
import { HOUR, HOUSEHOLD, logOf, MORNING } from '../../support/logbook'

const RUN = '018f0000-0000-7000-8000-000000000001'
type Item = [hours: number, body: EntryBody]
const sheet = (way: object = {}, ...more: Item[]): Item[] => [
  [0, { kind: 'intake', foodKey: 'pumpkin', source: 'Garden', weightG: 3000, purpose: 'powder', cardKey: 'sheet' }],
  [1, { kind: 'load', runId: RUN, machineId: 'cabinet', positions: [1, 3], totalG: 1500, ...way }],
  [1, { kind: 'heat', runId: RUN, setC: 57 }],
  ...more,
]
const flip = (...places: number[]): EntryBody => ({
  kind: 'move',
  runId: RUN,
  trays: places.map(place => ({ from: place, to: place, flipped: true })),
})
const stateOf = (...items: Item[]) => foldBatch(logOf(...items), findFood)!
const flipTodo = (...items: Item[]) => {
  const state = stateOf(...items)
  return agendaOf(state, assess(state, MORNING + 7 * HOUR), HOUSEHOLD).find(todo => todo.kind === 'flip')
}

describe('sheets are turned over once (common practice: after five to six hours, when the top holds)', () => {
  it('is told with its hour, on Now and at each tray of the rack, until all of them were', () => {
    const todo = flipTodo(...sheet())!
    expect((todo.from - MORNING) / HOUR).toBeGreaterThan(6)
    expect((todo.from - MORNING) / HOUR).toBeLessThan(7)
    expect(flipTodo(...sheet({}, [6.5, flip(1)]))).toBeDefined()
    expect(flipTodo(...sheet({}, [6.5, flip(1)], [6.6, flip(3)]))).toBeUndefined()
    expect(flipTodo(...sheet({}, [6.5, flip(1, 3)]))).toBeUndefined()
    const rack = (...items: Item[]) => assessRack(stateOf(...items), MORNING + 7 * HOUR).map(tray => tray.flipAt)
    expect(rack(...sheet())).toEqual([todo.from, todo.from])
    expect(rack(...sheet({}, [6.5, flip(1, 3)]))).toEqual([undefined, undefined])
  })
  it('a sheet that moved before it was turned is known by where it stood then', () => {
    const move: EntryBody = { kind: 'move', runId: RUN, trays: [{ from: 1, to: 5 }] }
    expect(stateOf(...sheet({}, [3, move], [6.5, flip(5, 3)])).run!.places.flippedAt).toBe(MORNING + 6.5 * HOUR)
    expect(stateOf(...sheet({}, [3, move], [6.5, flip(1, 3)])).run!.places.flippedAt).toBeUndefined()
  })
  it('is asked of sheets in warm air only, and not by the school that leaves them', () => {
    const asked = (...items: Item[]) => {
      const state = stateOf(...items)
      return flipHour(state, state.run!)
    }
    expect(asked(...sheet())).toBeCloseTo(5.5, 6)
    expect(asked(...sheet({ way: 'freeze-dryer' }))).toBeUndefined()
    expect(asked(...sheet({}, [0.5, { kind: 'choose', question: 'turning', school: 'never' }]))).toBeUndefined()
    const slices = sheet().map(([at, body]): Item => [at, body.kind === 'intake' ? { ...body, cardKey: 'slices-6' } : body])
    expect(asked(...slices)).toBeUndefined()
  })
  it('forgotten, the underside takes a quarter longer; done, or not yet due, it does not', () => {
    const hours = (at: number, ...items: Item[]) => {
      const state = stateOf(...items)
      const { low, high } = dryingRunOf(state, state.run!, MORNING + at * HOUR).usualHours
      return Math.sqrt(low * high)
    }
    const due = hours(5, ...sheet())
    expect(hours(12, ...sheet()) / due).toBeCloseTo(1.25, 6)
    expect(hours(12, ...sheet({}, [6.5, flip(1, 3)])) / due).toBeCloseTo(1, 6)
    expect(hours(5, ...sheet({}, [0.5, { kind: 'choose', question: 'turning', school: 'never' }])) / due).toBeCloseTo(1.25, 6)
  })
})
