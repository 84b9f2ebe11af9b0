import { assess, foldBatch, hotSpellOf } from '#core/batch'
import type { EntryBody } from '#core/log'
import { hotHoursAllowed, hotStartC } from '#core/dryness'
import { agendaOf } from '#core/planning'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = '0199b000-0000-7000-8000-000000000001'
const heat = (setC: number | null): EntryBody => ({ kind: 'heat', runId: RUN, setC })
const loaded = (...more: Parameters<typeof logOf>) =>
  foldBatch(
    logOf(
      [0, BEETROOT],
      [0, { kind: 'prep', step: 'cut', effect: 'none', cutName: '6 mm slices', thicknessMm: 6 }],
      [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
      ...more,
    ),
    findFood,
  )!
const hot = (...more: Parameters<typeof logOf>) => {
  const state = loaded(...more)
  return hotSpellOf(state, assess(state, MORNING + 3 * HOUR)!)
}

describe('a hot start', () => {
  it('is ten degrees above the card, within the machine, and not for scented leaves', () => {
    expect(hotStartC(57, 74)).toBe(67)
    expect(hotStartC(62, 90)).toBe(70)
    expect(hotStartC(57, 60)).toBeUndefined()
    expect(hotStartC(41, 74)).toBeUndefined()
  })
  it('may last an hour and a half, twice that for thin slices, and any time for food that is nearly dry', () => {
    const food = { cardC: 57, nowC: 67, thicknessMm: 8, waterGone: 0.3 }
    expect(hotHoursAllowed(food)).toBe(1.5)
    expect(hotHoursAllowed({ ...food, thicknessMm: 3 })).toBe(3)
    expect(hotHoursAllowed({ ...food, waterGone: 0.95 })).toBeUndefined()
    expect(hotHoursAllowed({ ...food, nowC: 60 })).toBeUndefined()
  })
  it('asks for the heat to be lowered, in time and from when it began', () => {
    expect(hot([1, heat(67)])).toEqual({ since: MORNING + HOUR, lowerBy: MORNING + 2.5 * HOUR, celsius: 67 })
    expect(hot([1, heat(57)], [2, heat(66)], [2.5, heat(68)])).toMatchObject({ since: MORNING + 2 * HOUR, celsius: 68 })
    expect(hot([1, heat(67)], [2, heat(57)])).toBeUndefined()
    expect(hot([1, heat(67)], [2, heat(null)])).toBeUndefined()
  })
  it('stands among what needs hands', () => {
    const state = loaded([1, heat(67)])
    const todos = agendaOf(state, assess(state, MORNING + 2 * HOUR), { timeZone: 'UTC', sleepFrom: 1380, sleepTo: 420 })
    expect(todos.find(todo => todo.kind === 'lower')).toMatchObject({ from: MORNING + 2.5 * HOUR, title: 'Lower the heat of the beetroot' })
  })
})

describe('rotation', () => {
  const swaps = [{ from: 1, to: 5 }]
  const household = { timeZone: 'UTC', sleepFrom: 1380, sleepTo: 420 }
  const todo = (state: ReturnType<typeof loaded>, pairs = swaps) =>
    agendaOf(state, assess(state, MORNING + 2 * HOUR), household, () => pairs).find(item => item.kind === 'rotate')
  it('is asked for halfway, once, where the machine dries unevenly', () => {
    const state = loaded([1, heat(57)])
    const halfway = todo(state)!
    expect(halfway.title).toBe('Swap tray 1 with 5')
    const middle = assess(state, MORNING)!.estimate.hoursToTarget.p50
    expect((halfway.from - MORNING) / HOUR).toBeCloseTo(1 + middle / 2, 1)
    expect(todo(state, [])).toBeUndefined()
    expect(todo(state, [{ from: 3, to: 5 }])).toBeUndefined()
    expect(
      todo(loaded([1, heat(57)], [2, { kind: 'move', runId: RUN, trays: [{ from: 1, to: 5 }] }]), [{ from: 5, to: 1 }]),
    ).toBeUndefined()
    expect(todo(loaded([1, heat(57)], [10, { kind: 'weigh', totalG: 260 }]))).toBeUndefined()
  })
})
