import { curveIn, estimateDrying, weighingsIn } from '#core/kinetics'

const WEIGHINGS = [{ hours: 0, weightG: 3000 }, { hours: 2, weightG: 1900 }, { hours: 4, weightG: 1150 }, { hours: 6, weightG: 720 }]
const estimate = estimateDrying({
  startWeightG: 3000, solids: { mean: 0.12, sd: 0.012 }, targetMoisture: 0.06, usualHours: { low: 8, high: 13 }, weighIns: WEIGHINGS.slice(1),
})

describe('views of a run', () => {
  it('as weight are the curve itself and its dry weight', () => {
    expect(curveIn('weight', estimate)).toEqual({ points: estimate.curve.map(({ hours, weightG }) => ({ hours, value: weightG })), target: estimate.targetWeightG })
    expect(weighingsIn('weight', WEIGHINGS, 360)).toEqual(WEIGHINGS.map(({ hours, weightG }) => ({ hours, value: weightG })))
  })
  it('as moisture begin near the raw food’s water and fall to the target', () => {
    const { points, target } = curveIn('moisture', estimate)
    expect(points[0]!.value.p50).toBeGreaterThan(0.85)
    expect(target!.p50).toBeCloseTo(0.06, 3)
    expect(points.at(-1)!.value.p50).toBeLessThan(0.08)
    for (const { value: { p10, p50, p90 } } of points) {
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
    expect(weighingsIn('rate', WEIGHINGS, 360)).toEqual([{ hours: 1, value: 550 }, { hours: 3, value: 375 }, { hours: 5, value: 215 }])
    expect(weighingsIn('rate', [WEIGHINGS[0]!, { hours: 0, weightG: 2990 }], 360)).toEqual([])
  })
})
