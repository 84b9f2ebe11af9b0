import { assess, foldBatch } from '#core/batch'
import { driftedMoisture, type Drift } from '#core/kinetics'
import { hoursUntilMorning, nightChoices } from '#core/planning'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = '0199b000-0000-7000-8000-000000000001'
const WET_ROOM = { celsius: 22, humidity: 0.75 }
const DRY_ROOM = { celsius: 20, humidity: 0.35 }
const log = (...more: Parameters<typeof logOf>) =>
  logOf(
    [0, BEETROOT],
    [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
    [1, { kind: 'heat', runId: RUN, setC: 57 }],
    ...more,
  )
const nearlyDry = log([6, { kind: 'weigh', totalG: 480 }], [9, { kind: 'weigh', totalG: 270 }], [11, { kind: 'weigh', totalG: 236 }])
const choose = (entries: ReturnType<typeof logOf>, room = WET_ROOM, hour = 12) => {
  const state = foldBatch(entries, findFood)!
  return nightChoices(
    state,
    assess(state, MORNING + hour * HOUR)!,
    room,
    { from: MORNING + hour * HOUR, to: MORNING + (hour + 8) * HOUR },
    800,
  )
}

describe('drift without the run’s heat', () => {
  const drift: Drift = { fromX: 0.06, balanceX: 0.15, ratePerHour: 0.5, setC: 57, nowC: 20, fan: false, hours: 8 }
  it('goes toward the balance and never past it', () => {
    const x = driftedMoisture(drift)
    expect(x).toBeGreaterThan(0.06)
    expect(x).toBeLessThan(0.15)
    expect(driftedMoisture({ ...drift, hours: 1e4 })).toBeCloseTo(0.15, 6)
    expect(driftedMoisture({ ...drift, fromX: 0.5 })).toBeLessThan(0.5)
    expect(driftedMoisture({ ...drift, hours: 0 })).toBe(0.06)
  })
  it('is faster with the fan on and in the warm', () => {
    expect(driftedMoisture({ ...drift, fan: true })).toBeGreaterThan(driftedMoisture(drift))
    expect(driftedMoisture({ ...drift, nowC: 30 })).toBeGreaterThan(driftedMoisture(drift))
  })
  it('refuses hours that run back', () => {
    expect(() => driftedMoisture({ ...drift, hours: -1 })).toThrow('hours')
    expect(() => driftedMoisture({ ...drift, fromX: NaN })).toThrow('fromX')
  })
})

describe('a night', () => {
  it('on the heat ends driest and costs most; switched off in a damp room it takes water back', () => {
    const [leave, hold, off] = choose(nearlyDry)!
    expect([leave!.key, hold!.key, off!.key]).toEqual(['leave', 'hold', 'off'])
    expect(leave!.moisture.p50).toBeLessThan(hold!.moisture.p50)
    expect(hold!.moisture.p50).toBeLessThan(off!.moisture.p50)
    expect(leave!.kWh).toBeGreaterThan(hold!.kWh)
    expect(hold!.kWh).toBeGreaterThan(0)
    expect(off!.kWh).toBe(0)
    expect(off!.hoursLeft.p50).toBeGreaterThan(0)
    expect(leave!.hoursLeft.p50).toBe(0)
    for (const choice of [leave!, hold!, off!]) {
      expect(choice.moisture.p10).toBeLessThanOrEqual(choice.moisture.p50)
      expect(choice.moisture.p50).toBeLessThanOrEqual(choice.moisture.p90)
    }
  })
  it('on the heat is never wetter than held warm, however long past the finish', () => {
    for (const hour of [12, 20, 40]) {
      const [leave, hold] = choose(nearlyDry, WET_ROOM, hour)!
      expect(leave!.moisture.p50).toBeLessThanOrEqual(hold!.moisture.p50)
    }
  })
  it('switched off costs less in a dry room', () => {
    expect(choose(nearlyDry, DRY_ROOM)![2]!.moisture.p50).toBeLessThan(choose(nearlyDry)![2]!.moisture.p50)
  })
  it('is not sure of what nobody knows: with hardly a weight the morning is an interval, and its chance agrees with the window', () => {
    const early = log([6, { kind: 'weigh', totalG: 620 }])
    const state = foldBatch(early, findFood)!
    const assessed = assess(state, MORNING + 8 * HOUR)!
    const [leave] = choose(early, WET_ROOM, 8)!
    expect(leave!.moisture.p90).toBeGreaterThan(1.25 * leave!.moisture.p10)
    // The window ends before morning in as many cases as it is said to be dry then.
    const morning = MORNING + 16 * HOUR
    const { from, middle, to } = assessed.finish
    if (morning > to) expect(leave!.dry).toBeGreaterThan(0.85)
    if (morning < from) expect(leave!.dry).toBeLessThan(0.15)
    if (morning < middle) expect(leave!.dry).toBeLessThanOrEqual(0.55)
    expect(leave!.dry > 0.5).toBe(leave!.hoursLeft.p50 === 0)
    // Half an hour into a window of hours nobody says that it is dry.
    const soon = nightChoices(state, assessed, WET_ROOM, { from: MORNING + 8 * HOUR, to: from + 0.1 * (to - from) }, 800)![0]!
    expect(soon.dry).toBeLessThan(0.5)
    expect(soon.hoursLeft.p90).toBeGreaterThan(0.5)
  })
  it('asks nothing where the heat is off, or the batch is out', () => {
    expect(choose([...nearlyDry, ...log([11.5, { kind: 'heat', runId: RUN, setC: null }]).slice(3)])).toBeUndefined()
    expect(choose([...nearlyDry, ...log([11.5, { kind: 'unload' }]).slice(3)])).toBeUndefined()
  })
})

describe('the air of a run', () => {
  it('moves the end that the run can reach', () => {
    const dryAt = (roomHumidity: number) => {
      const entries = log([1.1, { kind: 'air', runId: RUN, roomC: 28, roomHumidity }], [6, { kind: 'weigh', totalG: 480 }])
      return assess(foldBatch(entries, findFood)!, MORNING + 7 * HOUR)!.finish
    }
    expect(dryAt(0.85).middle).toBeGreaterThan(dryAt(0.3).middle)
    const state = foldBatch(log([1.1, { kind: 'air', runId: RUN, roomC: 36, roomHumidity: 0.98 }]), findFood)!
    expect(assess(state, MORNING + 2 * HOUR)!.estimate.hoursToTarget.p90).toBe(Infinity)
  })
  it('counts the hours at what was measured in the machine, not at what was set', () => {
    const cold = foldBatch(log([2, { kind: 'air', runId: RUN, chamberC: 47 }]), findFood)!.run!
    const asSet = foldBatch(log(), findFood)!.run!
    const at = MORNING + 10 * HOUR
    expect(cold.clock.hoursAt(at)).toBe(asSet.clock.hoursAt(at))
    expect(cold.clock.equivalentHoursAt(at)).toBeLessThan(0.85 * asSet.clock.equivalentHoursAt(at))
    expect(cold.setC).toBe(57)
    expect(cold.chamberC).toBe(47)
  })
  it('is of its own run, and the newest counts', () => {
    const state = foldBatch(
      log(
        [2, { kind: 'air', runId: RUN, roomC: 20, roomHumidity: 0.5 }],
        [3, { kind: 'air', runId: RUN, roomC: 21, roomHumidity: 0.6 }],
        [4, { kind: 'air', runId: 'other', roomC: 30, roomHumidity: 0.9 }],
      ),
      findFood,
    )!
    expect(state.run!.room).toEqual({ celsius: 21, humidity: 0.6 })
  })
})

describe('a freeze dryer that ends in the night', () => {
  const house = { timeZone: 'UTC', sleepFrom: 22 * 60 + 30, sleepTo: 7 * 60 }
  const at = (day: number, hour: number) => Date.UTC(2026, 10, day, hour)
  const window = (day: number, hour: number) => ({ from: at(day, hour - 3), middle: at(day, hour), to: at(day, hour + 3) })
  it('is given hours until somebody is up, with what they cost; by day none', () => {
    const night = hoursUntilMorning(window(3, 3), 600, house)!
    expect(night).toMatchObject({ hours: 4, at: at(3, 7), kWh: 2.4, asleep: 1 })
    expect(hoursUntilMorning(window(3, 14), 600, house)).toBeUndefined()
    // Added already, it holds.
    expect(hoursUntilMorning(window(3, 7), 600, house)).toBeUndefined()
    expect(hoursUntilMorning({ from: at(3, 1), middle: Infinity, to: Infinity }, 600, house)).toBeUndefined()
  })
})
