import { curveIn, dryingClock, estimateDrying, overHeat, trayCurve, valueAt, weighingsIn } from '#core/kinetics'
import { HOUR, MORNING } from '../../support/logbook'

const WEIGHINGS = [
  { hours: 0, weightG: 3000 },
  { hours: 2, weightG: 1900 },
  { hours: 4, weightG: 1150 },
  { hours: 6, weightG: 720 },
]
const estimate = estimateDrying({
  startWeightG: 3000,
  solids: { mean: 0.12, sd: 0.012 },
  targetMoisture: 0.06,
  usualHours: { low: 8, high: 13 },
  weighIns: WEIGHINGS.slice(1),
})

describe('views of a run', () => {
  it('as weight are the curve itself and its dry weight', () => {
    expect(curveIn('weight', estimate)).toEqual({
      points: estimate.curve.map(({ hours, weightG }) => ({ hours, value: weightG })),
      target: estimate.targetWeightG,
    })
    expect(weighingsIn('weight', WEIGHINGS, 360)).toEqual(WEIGHINGS.map(({ hours, weightG }) => ({ hours, value: weightG })))
  })
  it('as moisture begin near the raw food’s water and fall to the target', () => {
    const { points, target } = curveIn('moisture', estimate)
    expect(points[0]!.value.p50).toBeGreaterThan(0.85)
    expect(target!.p50).toBeCloseTo(0.06, 3)
    expect(points.at(-1)!.value.p50).toBeLessThan(0.08)
    for (const {
      value: { p10, p50, p90 },
    } of points) {
      expect(p10).toBeLessThanOrEqual(p50)
      expect(p50).toBeLessThanOrEqual(p90)
    }
    expect(weighingsIn('moisture', WEIGHINGS, 360)[0]!.value).toBeCloseTo(0.88, 9)
  })
  it('as rate sum up to the water that left', () => {
    const { points, target } = curveIn('rate', estimate)
    expect(target).toBeUndefined()
    const steps = estimate.curve.slice(1).map((point, i) => point.hours - estimate.curve[i]!.hours)
    const gone = points.reduce((sum, point, i) => sum + point.value.p50 * steps[i]!, 0)
    expect(gone).toBeCloseTo(estimate.curve[0]!.weightG.p50 - estimate.curve.at(-1)!.weightG.p50, 6)
    expect(weighingsIn('rate', WEIGHINGS, 360)).toEqual([
      { hours: 1, value: 550 },
      { hours: 3, value: 375 },
      { hours: 5, value: 215 },
    ])
    expect(weighingsIn('rate', [WEIGHINGS[0]!, { hours: 0, weightG: 2990 }], 360)).toEqual([])
  })
})

describe('a curve against the hours of heat', () => {
  const points = [0, 2, 4, 8, 16].map(hours => ({ hours, value: { p10: 90 - 5 * hours, p50: 100 - 5 * hours, p90: 110 - 5 * hours } }))
  const on = { at: MORNING, setC: 57 }
  it('is itself where the heat stayed on', () => {
    const clock = dryingClock({ startAt: MORNING, referenceC: 57, heats: [on] })
    for (const { hours, value } of overHeat(points, clock, MORNING, MORNING + 10 * HOUR)) expect(value.p50).toBeCloseTo(100 - 5 * hours, 6)
  })
  it('runs faster where it was hotter, and stands while the heat is off', () => {
    const hot = overHeat(
      points,
      dryingClock({ startAt: MORNING, referenceC: 57, heats: [{ at: MORNING, setC: 67 }] }),
      MORNING,
      MORNING + 4 * HOUR,
    )
    expect(hot.at(-1)!.hours).toBeCloseTo(4, 6)
    expect(hot.at(-1)!.value.p50).toBeLessThan(80)
    const clock = dryingClock({
      startAt: MORNING,
      referenceC: 57,
      heats: [on, { at: MORNING + 4 * HOUR, setC: null }, { at: MORNING + 9 * HOUR, setC: 57 }],
    })
    const off = overHeat(points, clock, MORNING, MORNING + 12 * HOUR)
    expect(off.at(-1)!.hours).toBeCloseTo(7, 6)
    expect(off.at(-1)!.value.p50).toBeCloseTo(65, 6)
  })
  it('ends in its ends', () => {
    expect(valueAt(points, -1).p50).toBe(100)
    expect(valueAt(points, 99).p50).toBe(20)
    expect(valueAt(points, 3)).toEqual({ p10: 75, p50: 85, p90: 95 })
  })
  it('of a tray begins whole and ends near nothing', () => {
    expect(
      trayCurve(500, 0.1, [
        { hours: 3, weightG: 275 },
        { hours: 9, weightG: 50 },
        { hours: 10, weightG: 40 },
      ]),
    ).toEqual([
      { hours: 0, value: 1 },
      { hours: 3, value: 0.5 },
      { hours: 9, value: 0 },
      { hours: 10, value: 0 },
    ])
  })
})
