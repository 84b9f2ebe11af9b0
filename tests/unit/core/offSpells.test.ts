import { assess, foldBatch } from '#core/batch'
import type { Entry } from '#core/log'
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
  const moistureAt = (hour: number) => 1 - 1 / (1 + meanX[Math.round(hour * 20)]!)
  return { weightAt, dryH, moistureAt }
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

describe('spells without heat', () => {
  const after = (log: Entry[], hours: number) => assess(foldBatch(log, findFood)!, MORNING + hours * HOUR)!.estimate
  it('are none when the door was only open', () => {
    expect(foldBatch(logWith({ roomC: 20, roomHumidity: 0.7 }, [6, 6.1]), findFood)!.run!.spells).toEqual([])
  })
  it('cost a nearly dry load more in a damp room than in a dry one', () => {
    const gained = (roomHumidity: number) => {
      const weights: [number, number][] = [
        [4, 560],
        [7, 300],
        [10, 228],
      ]
      const room = { roomC: 20, roomHumidity }
      return (
        after(logWith(room, [10, 18], ...weights), 18).moistureNow.p50 - after(logWith(room, [10, 10.05], ...weights), 10.1).moistureNow.p50
      )
    }
    expect(gained(0.8)).toBeGreaterThan(gained(0.6))
    expect(gained(0.6)).toBeGreaterThan(gained(0.35))
    expect(gained(0.8)).toBeGreaterThan(0.01)
  })
  it('bring wet food on a little, rather than back', () => {
    const room = { roomC: 22, roomHumidity: 0.5 }
    const wet = after(logWith(room, [2, 4], [2, 1150]), 4)
    expect(wet.waterLeftG.p50).toBeLessThan(1150 - wet.solidsG.p50)
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
  it('are told within their window, on simulated nights in damp kitchens', () => {
    let held = 0
    let off = 0
    let nights = 0
    for (const pace of [0.85, 1, 1.2])
      for (const share of [0.75, 0.9, 1])
        for (const roomHumidity of [0.55, 0.65, 0.8]) {
          const offH = Math.round(20 * share * slab(pace).dryH(0)) / 20
          const night = slab(pace, { fromH: offH, toH: offH + 8, airHumidity: roomHumidity })
          const weights = [0.4, 0.7, 1]
            .map(part => Math.round(20 * part * offH) / 20)
            .map(hour => [hour, night.weightAt(hour)] as [number, number])
          const { moistureNow } = after(logWith({ roomC: 20, roomHumidity }, [offH, offH + 8], ...weights), offH + 8)
          const truth = night.moistureAt(offH + 8)
          nights++
          if (moistureNow.p10 <= truth && truth <= moistureNow.p90) held++
          off += Math.abs(moistureNow.p50 - truth)
        }
    expect(held / nights).toBeGreaterThan(0.65)
    expect(off / nights).toBeLessThan(0.02)
  })
})

/** What happened in kitchens, with what the page must say of it. */
describe('a night switched off', () => {
  const COURGETTE: Entry['body'] = { ...(BEETROOT as Extract<Entry['body'], { kind: 'intake' }>), foodKey: 'zucchini', weightG: 2600 }
  const load: [number, Entry['body']][] = [
    [0, COURGETTE],
    [0, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2, 3, 4], totalG: 2495 }],
    [0, { kind: 'heat', runId: RUN, setC: 52 }],
    [0, { kind: 'air', runId: RUN, roomC: 23, roomHumidity: 0.55 }],
    ...([
      [2, 1120],
      [4, 470],
      [7, 236],
      [9, 168],
      [11, 147],
      [13, 143],
    ].map(([hours, totalG]) => [hours, { kind: 'weigh', totalG }]) as [number, Entry['body']][]),
  ]
  const night: [number, Entry['body']][] = [
    [13, { kind: 'heat', runId: RUN, setC: null }],
    [23, { kind: 'heat', runId: RUN, setC: 52 }],
  ]
  const at = (hours: number, ...more: [number, Entry['body']][]) =>
    assess(foldBatch(logOf(...load, ...more), findFood)!, MORNING + hours * HOUR)!
  it('has put water back that no weight shows yet', () => {
    const evening = at(13.1).estimate
    const morning = at(23.1, ...night).estimate
    expect(morning.moistureNow.p50).toBeGreaterThan(evening.moistureNow.p50 + 0.015)
    expect(morning.probabilityDry).toBeLessThan(0.5)
  })
  it('is weighed cold: the scale is believed, and the rise is no mistake', () => {
    const cold = at(22.6, night[0]!, [22.5, { kind: 'weigh', totalG: 153 }]).estimate
    expect(cold.flags).toEqual([])
    expect(Math.abs(153 - cold.solidsG.p50 - cold.waterLeftG.p50)).toBeLessThan(1.5)
    expect(cold.moistureNow.p50).toBeGreaterThan(0.085)
    expect(cold.probabilityDry).toBeLessThan(0.1)
  })
  it('an hour of heat later is drier again, not yet dry, and the verdict does not say so', () => {
    const { estimate, verdict } = at(24.1, night[0]!, [22.5, { kind: 'weigh', totalG: 153 }], night[1]!, [
      24,
      { kind: 'weigh', totalG: 148 },
    ])
    expect(estimate.flags).toEqual([])
    expect(estimate.moistureNow.p50).toBeGreaterThan(0.055)
    expect(estimate.probabilityDry).toBeLessThan(0.5)
    expect(['keep-drying', 'cool-and-check']).toContain(verdict.level)
    expect(verdict.witnesses[0]!.says).not.toBe('dry')
    // Fourteen hours at 52 °C are twelve of the card's.
    expect(estimate.hoursToTarget.p50).toBeGreaterThan(12.3)
  })
})
