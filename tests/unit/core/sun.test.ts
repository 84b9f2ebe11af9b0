import { foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import { usualDuskMinute, afterSun, placeOf, sunAhead, sunDay } from '#core/sun'
import { findFood } from '../../support/foods'
import { HOUR, logOf, MORNING } from '../../support/logbook'

const AT_45 = { latitude: 45, longitude: 0 }
const house = (timeZone: string, more: object = {}) => ({ timeZone, sleepFrom: 1350, sleepTo: 420, ...more })
const hoursOf = ({ dries }: ReturnType<typeof sunDay>) => (dries ? (dries.to - dries.from) / HOUR : 0)

describe('the sun of a day', () => {
  /** From the height of the sun: cos H = (sin a − sin φ sin δ) / (cos φ cos δ), spherical astronomy; δ of the day as almanacs have it, from memory. */
  const byFormula = (latitude: number, declination: number, altitude: number) => {
    const [phi, delta, a] = [latitude, declination, altitude].map(degrees => (degrees * Math.PI) / 180) as [number, number, number]
    return (2 * Math.acos((Math.sin(a) - Math.sin(phi) * Math.sin(delta)) / (Math.cos(phi) * Math.cos(delta))) * 12) / Math.PI
  }
  it.each([
    ['midsummer at 45° north', 45, Date.UTC(2026, 5, 21), 23.44],
    ['late in September at 45° north', 45, Date.UTC(2026, 8, 23), 0],
    ['midsummer at 35° south', -35, Date.UTC(2026, 11, 21), -23.44],
    ['near the equator', 2, Date.UTC(2026, 2, 20), 0],
  ])('%s is as long as spherical astronomy has it', (_, latitude, day, declination) => {
    expect(hoursOf(sunDay(day, { latitude, longitude: 0 }))).toBeCloseTo(byFormula(latitude, declination, 25), 0)
    const found = sunDay(day, { latitude, longitude: 0 })
    // It stands on its middle at noon, give or take the equation of time.
    expect(Math.abs((found.dries!.from + found.dries!.to) / 2 - day - 12 * HOUR)).toBeLessThan(20 * 60_000)
  })
  it('has some eight hours in the season of drying at 45° (common practice), and none in December', () => {
    const months = [4, 5, 6, 7, 8].map(month => hoursOf(sunDay(Date.UTC(2026, month, 15), AT_45)))
    const mean = months.reduce((sum, hours) => sum + hours, 0) / months.length
    expect(mean).toBeGreaterThan(7.5)
    expect(mean).toBeLessThan(9.5)
    expect(sunDay(Date.UTC(2026, 11, 15), AT_45).dries).toBeUndefined()
  })
  it('guesses by the clock where nobody said: the side of the equator by when it is summer, the rest by standard time', () => {
    expect(placeOf(house('Europe/Lisbon'))).toEqual({ latitude: 45, longitude: 0, guessed: true })
    expect(placeOf(house('Australia/Sydney'))).toMatchObject({ latitude: -35, longitude: 150 })
    expect(placeOf(house('Asia/Singapore'))).toMatchObject({ latitude: 15, longitude: 120 })
    expect(placeOf(house('Europe/Lisbon', { latitude: 60, longitude: 5 }))).toEqual({ latitude: 60, longitude: 5, guessed: false })
    expect(placeOf(house('Europe/Lisbon', { latitude: 60, longitude: null })).guessed).toBe(true)
  })
  it('brings food in half an hour before the sun sets, earlier in winter', () => {
    const at = (month: number) => usualDuskMinute(Date.UTC(2026, month, 15, 12), house('UTC', { latitude: 45, longitude: 0 })) / 60
    expect(at(5)).toBeGreaterThan(19)
    expect(at(8)).toBeCloseTo(17.5, 1)
    expect(at(11)).toBeLessThan(16)
  })
  it('hours are over when the sky has given them: in half a sun on twice the days, in winter in spring', () => {
    const from = Date.UTC(2026, 5, 1)
    const days = [...sunAhead(from, house('UTC', { latitude: 45, longitude: 0 }), () => ({ sun: 1, rain: 0 }))].slice(0, 30)
    const first = days[0]!
    expect(afterSun(days, from, 3, share => share.p90)).toBe(first.from + 3 * HOUR)
    const whole = (first.to - first.from) / HOUR
    expect(afterSun(days, from, whole, () => 0.5)! - days[1]!.to).toBeLessThan(0.2 * HOUR)
    expect(afterSun(days, from, 10_000, () => 1)).toBeUndefined()
    const [next] = sunAhead(Date.UTC(2026, 11, 1), house('UTC', { latitude: 45, longitude: 0 }))
    expect(new Date(next!.from).getUTCMonth()).toBe(0)
  })
})

describe('a load in the sun of its season', () => {
  const RUN = '018f0000-0000-7000-8000-000000000001'
  /** Out at nine, on a day of sun from ten to four. */
  const sun = { from: MORNING + 2 * HOUR, to: MORNING + 8 * HOUR }
  const run = (...more: [number, EntryBody][]) =>
    foldBatch(
      logOf(
        [0, { kind: 'intake', foodKey: 'apricot', cardKey: 'halves', purpose: 'pieces', source: 'Market', weightG: 2000 }],
        [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1800, way: 'sun', sun }],
        [1, { kind: 'heat', runId: RUN, setC: 35 }],
        ...more,
      ),
      findFood,
    )!.run!
  const at = (hour: number, ...more: [number, EntryBody][]) => run(...more).clock.hoursAt(MORNING + hour * HOUR)
  it('counts the hours in which it dries, whoever brings it in and however late', () => {
    expect([1.5, 3, 8, 12, 26, 27, 40].map(hour => at(hour))).toEqual([0, 1, 6, 6, 6, 7, 12])
    expect(at(20, [12, { kind: 'heat', runId: RUN, setC: null }])).toBe(6)
    expect(at(20, [5, { kind: 'heat', runId: RUN, setC: null }])).toBe(3)
  })
  it('ends at the dusk that was entered where that is earlier', () => {
    const dusk: [number, EntryBody] = [1, { kind: 'outlook', runId: RUN, duskMinute: 15 * 60, duskAt: MORNING + 7 * HOUR }]
    expect([8, 27].map(hour => at(hour, dusk))).toEqual([5, 6])
  })
  it('tells the instant of an hour as the clock reads it, on the days to come too', () => {
    const { clock } = run()
    for (const hours of [0.5, 3, 5.9, 6.5, 13, 40]) expect(clock.equivalentHoursAt(clock.instantAt(hours))).toBeCloseTo(hours, 6)
    const indoors = run([9, { kind: 'heat', runId: RUN, setC: null }]).clock
    expect((indoors.instantAt(8) - MORNING) / HOUR).toBeCloseTo(24 + 2 + 2, 6)
  })
})
