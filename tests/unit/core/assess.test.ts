import { assess, foldBatch } from '#core/batch'
import { dryingRunOf } from '#core/water'
import type { Entry } from '#core/log'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = '0199b000-0000-7000-8000-000000000001'
const MACHINE = '0199b000-0000-7000-8000-000000000002'
const loaded = (...more: Parameters<typeof logOf>) =>
  logOf(
    [0, BEETROOT],
    [0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }],
    [1, { kind: 'load', runId: RUN, machineId: MACHINE, positions: [1, 2, 3], totalG: 1700 }],
    [1, { kind: 'heat', runId: RUN, setC: 57 }],
    ...more,
  )
const assessed = (log: Entry[], hour: number) => assess(foldBatch(log, findFood)!, MORNING + hour * HOUR)!

describe('the assessment of a batch', () => {
  it('is none before loading', () => {
    expect(assess(foldBatch(logOf([0, BEETROOT]), findFood)!, MORNING)).toBeUndefined()
  })
  it('starts as the card’s usual hours from the loading', () => {
    const log = loaded()
    const { usualHours } = foldBatch(log, findFood)!.card
    const { finish } = assessed(log, 1)
    expect((finish.from - MORNING) / HOUR - 1).toBeCloseTo(usualHours.value.low, -0.5)
    expect(Math.abs((finish.to - MORNING) / HOUR - 1 - usualHours.value.high)).toBeLessThan(0.12 * usualHours.value.high)
    expect(finish.from).toBeLessThan(finish.middle)
    expect(finish.middle).toBeLessThan(finish.to)
  })
  it('has no finish while the heat is off, and a later one after a pause of three hours', () => {
    const steady = assessed(loaded([5, { kind: 'weigh', totalG: 800 }]), 5)
    const off = assessed(loaded([5, { kind: 'weigh', totalG: 800 }], [5.1, { kind: 'heat', runId: RUN, setC: null }]), 6)
    const on = assessed(
      loaded(
        [5, { kind: 'weigh', totalG: 800 }],
        [5.1, { kind: 'heat', runId: RUN, setC: null }],
        [8.1, { kind: 'heat', runId: RUN, setC: 57 }],
      ),
      9,
    )
    expect(off.finish.middle).toBe(Infinity)
    // Wet food goes on drying a little in a switched-off machine, so the pause costs less than its length.
    const cost = (on.finish.middle - steady.finish.middle) / HOUR
    expect(cost).toBeGreaterThan(2.5)
    expect(cost).toBeLessThan(3)
  })
  it('comes sooner at a higher heat', () => {
    const warm = assessed(loaded([2, { kind: 'heat', runId: RUN, setC: 65 }]), 3)
    expect(warm.finish.middle).toBeLessThan(assessed(loaded(), 3).finish.middle)
  })
  it('knows how much of the water is gone, more with every gram lost', () => {
    const gone = (totalG: number) => assessed(loaded([6, { kind: 'weigh', totalG }]), 6).waterGone.p50
    expect(gone(1500)).toBeLessThan(gone(900))
    expect(gone(900)).toBeLessThan(gone(400))
    expect(gone(400)).toBeGreaterThan(0.8)
    const { waterGone } = assessed(loaded([6, { kind: 'weigh', totalG: 900 }]), 6)
    expect(waterGone.p10).toBeLessThanOrEqual(waterGone.p50)
    expect(waterGone.p50).toBeLessThanOrEqual(waterGone.p90)
  })
  it('is surer of the whole load on the scale than of one tray in three', () => {
    const width = (body: Parameters<typeof logOf>[0][1]) => {
      const { p10, p90 } = assessed(loaded([6, body]), 6).estimate.waterLeftG
      return p90 - p10
    }
    expect(width({ kind: 'weigh', trays: [{ position: 1, weightG: 300 }] })).toBeGreaterThan(1.3 * width({ kind: 'weigh', totalG: 900 }))
  })
  it('gives the estimator the solids of the first loading when a load goes back', () => {
    const log = loaded(
      [12, { kind: 'weigh', totalG: 260 }],
      [12.1, { kind: 'unload', weightG: 260 }],
      [12.5, { kind: 'rest' }],
      [30, { kind: 'look', saw: 'moisture' }],
      [31, { kind: 'load', runId: MACHINE, machineId: MACHINE, positions: [1], totalG: 262 }],
    )
    const state = foldBatch(log, findFood)!
    const again = dryingRunOf(state, state.run!)
    const first = dryingRunOf(state, state.earlierRuns[0]!)
    expect(again.startWeightG * again.solids.mean).toBeCloseTo(first.startWeightG * first.solids.mean, 6)
    expect(again.usualHours.high).toBeLessThan(first.usualHours.high)
    expect(again.weighIns).toEqual([])
  })
  it('does not change when entries arrive in another order', () => {
    const log = loaded([4, { kind: 'weigh', totalG: 1000 }], [7, { kind: 'weigh', totalG: 500 }])
    expect(assessed([...log].reverse(), 8)).toEqual(assessed(log, 8))
  })
})
