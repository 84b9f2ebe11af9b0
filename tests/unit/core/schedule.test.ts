import { Nights, outBy, scheduleLoads } from '#core/planning/schedule'
import { HOUR, HOUSEHOLD, MORNING } from '../../support/logbook'

const nights = () => new Nights(MORNING, HOUSEHOLD)
const six = { places: 6, free: 6, freeAt: MORNING, clearH: 0.25, attended: false }
const hours = (needH: number) => (at: number) => at + needH * HOUR
/** Starts and ends, hours after eight in the morning, with trays. */
const loads = (trays: number, machine: Partial<typeof six>, needH: number) =>
  scheduleLoads(trays, MORNING, { ...six, ...machine }, hours(needH), nights()).map(({ startAt, endsAt, trays: count }) => [
    (startAt - MORNING) / HOUR,
    (endsAt - MORNING) / HOUR,
    count,
  ])

describe('loads one after another', () => {
  it('go in when the one before is out and cleared, and end with the last', () => {
    expect(loads(4, {}, 5)).toEqual([[0, 5, 4]])
    expect(loads(14, {}, 4)).toEqual([
      [0, 4, 6],
      [4.25, 8.25, 6],
      [8.5, 12.5, 2],
    ])
  })
  it('wait for somebody who is up: what is out at night is loaded again in the morning', () => {
    // Out at 23:00; the household sleeps from half past ten to seven.
    expect(loads(8, {}, 15)).toEqual([
      [0, 15, 6],
      [23, 38, 2],
    ])
  })
  it('of a machine that is watched end before bedtime, or begin in the morning', () => {
    expect(loads(8, { attended: true }, 8)).toEqual([
      [0, 8, 6],
      [23, 31, 2],
    ])
    expect(loads(8, { attended: true }, 5).map(([start]) => start)).toEqual([0, 5.25])
  })
  it('find the places that are free, and the others when they are', () => {
    expect(loads(5, { free: 2, freeAt: MORNING + 3 * HOUR }, 6)).toEqual([
      [0, 6, 2],
      [3.25, 9.25, 3],
    ])
    // More than the others hold: it waits for its own first load too.
    expect(loads(8, { free: 2, freeAt: MORNING + 3 * HOUR }, 6)).toEqual([
      [0, 6, 2],
      [6.25, 12.25, 6],
    ])
    expect(loads(3, { free: 0, freeAt: MORNING + 3 * HOUR, clearH: 2 }, 6)).toEqual([[5, 11, 3]])
  })
  it('never begin asleep, nor overlap in one place, whatever their hours', () => {
    for (let needH = 0.5; needH < 60; needH += 0.7)
      for (const trays of [1, 7, 19]) {
        const made = scheduleLoads(trays, MORNING, six, hours(needH), nights())
        expect(made.reduce((sum, load) => sum + load.trays, 0)).toBe(trays)
        made.slice(1).forEach(({ startAt }, i) => {
          expect(startAt).toBeGreaterThanOrEqual(made[i]!.endsAt + 0.25 * HOUR)
          const minute = new Date(startAt).getUTCHours() * 60 + new Date(startAt).getUTCMinutes()
          expect(minute >= HOUSEHOLD.sleepTo && minute < HOUSEHOLD.sleepFrom).toBe(true)
        })
      }
  })
})

describe('what stands in a machine', () => {
  const window = { loadedAt: MORNING, from: MORNING + 8 * HOUR, to: MORNING + 12 * HOUR }
  it('is out in its window; overdue it holds its places on', () => {
    expect(outBy(window, MORNING)).toEqual({ p50: MORNING + 10 * HOUR, p90: MORNING + 12 * HOUR })
    const late = MORNING + 40 * HOUR
    expect(outBy(window, late)).toEqual({ p50: late + 10 * HOUR, p90: late + 10 * HOUR })
    expect(outBy(window, MORNING + 12 * HOUR)!.p50).toBe(MORNING + 15 * HOUR)
  })
  it('is out nobody knows when, where its window is not known', () => expect(outBy({ ...window, to: null }, MORNING)).toBeUndefined())
})
