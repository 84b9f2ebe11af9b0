import { assess, foldBatch } from '#core/batch'
import type { Entry } from '#core/log'
import { dryingClock, setBackClock } from '#core/kinetics'
import { dryTray } from '#core/simulation'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = '0199b000-0000-7000-8000-000000000001'
const SOLIDS = 0.124
const TARGET = 0.06
/** A slab that takes about eleven hours at the card's heat; pace stretches it. */
const slab = (pace: number, off?: { fromH: number; toH: number; airHumidity: number }) => {
  const hours = Array.from({ length: 1200 }, (_, i) => i / 20)
  const { meanX } = dryTray(
    {
      startX: 1 / SOLIDS - 1,
      diffusionRate: 0.42 * pace,
      slowing: 0.15,
      evaporationRate: 2.6 * pace,
      airHumidity: 0.1,
      // What Arrhenius at 20 °C and still air leave of the rates of 57 °C.
      ...(off && { spells: [{ ...off, share: 0.1 }] }),
    },
    hours,
  )
  const weightAt = (hour: number) => Math.round(1700 * SOLIDS * (1 + meanX[Math.round(hour * 20)]!))
  const wanted = TARGET / (1 - TARGET)
  const dryH = (from: number) => hours.find((hour, i) => hour >= from && meanX[i]! <= wanted)!
  return { weightAt, dryH }
}
const logWith = (room: { roomC: number; roomHumidity: number }, off: [number, number], ...weights: [number, number][]): Entry[] =>
  logOf(
    [0, BEETROOT],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
    [0, { kind: 'heat', runId: RUN, setC: 57 }],
    [0, { kind: 'air', runId: RUN, ...room }],
    [off[0], { kind: 'heat', runId: RUN, setC: null }],
    [off[1], { kind: 'heat', runId: RUN, setC: 57 }],
    ...weights.map(([hours, totalG]) => [hours, { kind: 'weigh', totalG }] as [number, { kind: 'weigh'; totalG: number }]),
  )

describe('a clock that was set back', () => {
  const clock = dryingClock({
    startAt: MORNING,
    referenceC: 57,
    heats: [
      { at: MORNING, setC: 57 },
      { at: MORNING + 8 * HOUR, setC: null },
      { at: MORNING + 16 * HOUR, setC: 57 },
    ],
  })
  const back = setBackClock(clock, [{ at: MORNING + 16 * HOUR, hours: 2 }])
  it('loses what the spell took, from its end on', () => {
    expect(back.equivalentHoursAt(MORNING + 7 * HOUR)).toBeCloseTo(7, 9)
    expect(back.equivalentHoursAt(MORNING + 16 * HOUR)).toBeCloseTo(6, 9)
    expect(back.equivalentHoursAt(MORNING + 19 * HOUR)).toBeCloseTo(9, 9)
    expect(back.hoursAt(MORNING + 19 * HOUR)).toBeCloseTo(11, 9)
  })
  it('tells when it will read an hour, after the spell where it reads it twice', () => {
    expect(back.instantAt(9)).toBe(MORNING + 19 * HOUR)
    expect(back.instantAt(7)).toBe(MORNING + 17 * HOUR)
    expect(back.instantAt(3)).toBe(MORNING + 3 * HOUR)
    expect(setBackClock(clock, [])).toBe(clock)
  })
})

describe('spells without heat', () => {
  it('leave the clock alone when the door was only open', () => {
    expect(foldBatch(logWith({ roomC: 20, roomHumidity: 0.7 }, [6, 6.1]), findFood)!.run!.setbacks).toEqual([])
  })
  it('cost a nearly dry load more in a damp room than in a dry one', () => {
    const lost = (roomHumidity: number) =>
      foldBatch(logWith({ roomC: 20, roomHumidity }, [10, 18], [4, 560], [7, 300], [10, 228]), findFood)!.run!.setbacks[0]!.hours
    expect(lost(0.8)).toBeGreaterThan(lost(0.6))
    expect(lost(0.6)).toBeGreaterThan(lost(0.35))
    expect(lost(0.35)).toBeLessThan(0.5)
  })
  it('bring wet food on a little, rather than back', () => {
    expect(foldBatch(logWith({ roomC: 22, roomHumidity: 0.5 }, [2, 4], [2, 1150]), findFood)!.run!.setbacks[0]!.hours).toBeLessThan(0)
  })
  it('do not make a weight that rose meanwhile a wild one', () => {
    const night = slab(1, { fromH: 7, toH: 15, airHumidity: 0.75 })
    const weights = [2.8, 4.9, 7, 15.1].map(hour => [hour, night.weightAt(hour)] as [number, number])
    expect(weights[3]![1]).toBeGreaterThan(weights[2]![1] + 10)
    const { estimate } = assess(foldBatch(logWith({ roomC: 20, roomHumidity: 0.75 }, [7, 15], ...weights), findFood)!, MORNING + 16 * HOUR)!
    expect(estimate.flags).toEqual([])
    // The same weights with the heat on throughout are questioned.
    const on = logWith({ roomC: 20, roomHumidity: 0.75 }, [7, 15], ...weights).filter(
      entry => entry.body.kind !== 'heat' || entry.at === MORNING,
    )
    expect(assess(foldBatch(on, findFood)!, MORNING + 16 * HOUR)!.estimate.flags).not.toEqual([])
  })
  it('are told to a third of what they cost, on simulated nights in damp kitchens', () => {
    let missed = 0
    let cost = 0
    for (const pace of [0.85, 1, 1.2]) {
      const dryH = slab(pace).dryH(0)
      for (const roomHumidity of [0.55, 0.65, 0.8]) {
        const offH = Math.round(20 * 0.9 * dryH) / 20
        const night = slab(pace, { fromH: offH, toH: offH + 8, airHumidity: roomHumidity })
        const weights = [0.4, 0.7, 1]
          .map(share => Math.round(20 * share * offH) / 20)
          .map(hour => [hour, night.weightAt(hour)] as [number, number])
        const [setback] = foldBatch(logWith({ roomC: 20, roomHumidity }, [offH, offH + 8], ...weights), findFood)!.run!.setbacks
        const truth = night.dryH(offH + 8) - dryH - 8
        missed += Math.abs(setback!.hours - truth)
        cost += Math.abs(truth)
      }
    }
    expect(cost).toBeGreaterThan(4)
    expect(missed).toBeLessThan(0.35 * cost)
  })
})
