import { estimateDrying, expectedWeight, questionWeight } from '#core/kinetics'
import { worthOfWeighing } from '#core/kinetics/worth'
import { makeTestRuns, weighUpTo } from '../../support/dryingRuns'

const RUNS = makeTestRuns(4, 9)
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

describe('what the next weighing is worth', () => {
  it('is told before, and comes true: windows shrink to what was said, within a fifth in the median', () => {
    const ratios = RUNS.flatMap(run => {
      const weighIns = weighUpTo(run, 0.35, 2)
      const before = estimateDrying({ ...run.known, seed: run.seed, weighIns })
      const width = before.hoursToTarget.p90 - before.hoursToTarget.p10
      return before.nextWeighings.slice(1, 3).map(({ hours, shrinksTo }) => {
        const after = estimateDrying({
          ...run.known,
          seed: run.seed,
          weighIns: [...weighIns, { hours, weightG: Math.round(run.trueWeightAt(hours)) }],
        })
        return (after.hoursToTarget.p90 - after.hoursToTarget.p10) / width / shrinksTo
      })
    })
    expect(median(ratios)).toBeGreaterThan(0.8)
    expect(median(ratios)).toBeLessThan(1.2)
  })
  it('a first weighing buys more at two thirds of the way than in the first quarter', () => {
    const shares = RUNS.map(run => estimateDrying({ ...run.known, seed: run.seed, weighIns: [] }).nextWeighings)
    expect(median(shares.map(list => list[2]!.shrinksTo))).toBeLessThan(median(shares.map(list => list[0]!.shrinksTo)))
    for (const list of shares) for (const { shrinksTo } of list) expect(shrinksTo).toBeGreaterThan(0)
  })
  it('is nothing where there is no finish ahead', () => {
    const [run] = RUNS
    expect(estimateDrying({ ...run!.known, equilibriumX: { mean: 0.4, sd: 0.01 }, weighIns: [] }).nextWeighings).toEqual([])
    const past = weighUpTo(run!, 1.5, 8)
    expect(estimateDrying({ ...run!.known, weighIns: past }).nextWeighings.length).toBeLessThanOrEqual(4)
  })
  it('follows Gauss’s rule: a perfect weight that tells all leaves only the spare doubt, a blind one leaves all', () => {
    const finishes = Float64Array.from([8, 9, 10, 11, 12])
    const weights = Float64Array.from([80, 90, 100, 110, 120])
    const ask = (sdG: number) => worthOfWeighing({ hours: 5, finishes, weights, sdG })!.shrinksTo
    expect(ask(0)).toBeCloseTo(0, 6)
    expect(ask(1e9)).toBeCloseTo(1, 6)
    // Weights of variance 200 with an error of the same size tell half of the variance.
    expect(ask(Math.sqrt(200))).toBeCloseTo(Math.SQRT1_2, 6)
    expect(
      worthOfWeighing({
        hours: 5,
        finishes: Float64Array.from([Infinity, Infinity, 3]),
        weights: new Float64Array(3),
        sdG: 1,
      }),
    ).toBeUndefined()
  })
})

describe('a weight that is questioned before it is written', () => {
  it('is hardly ever a right one, and nearly always a slip of a third', () => {
    let right = 0
    let slips = 0
    let asked = 0
    for (const run of RUNS) {
      const weighIns = weighUpTo(run, 0.4, 3)
      const estimate = estimateDrying({ ...run.known, seed: run.seed, weighIns })
      for (const share of [0.5, 0.65, 0.85]) {
        const hours = share * run.trueFinishH
        asked++
        if (questionWeight(estimate, hours, run.trueWeightAt(hours))) right++
        if (questionWeight(estimate, hours, run.trueWeightAt(hours) * 1.35 + 0.1 * run.known.startWeightG)) slips++
      }
    }
    expect(right / asked).toBeLessThan(0.03)
    expect(slips / asked).toBeGreaterThan(0.9)
  })
  it('says how far off it is, and leaves room for a tray’s own pace', () => {
    const [run] = RUNS
    const estimate = estimateDrying({ ...run!.known, weighIns: weighUpTo(run!, 0.4, 3) })
    const hours = 0.6 * run!.trueFinishH
    const { p50 } = expectedWeight(estimate, hours)
    expect(questionWeight(estimate, hours, p50)).toBeUndefined()
    const wild = questionWeight(estimate, hours, run!.known.startWeightG)!
    expect(wild.offG).toBeCloseTo(run!.known.startWeightG - p50, 6)
    const lagging = (1.5 * p50 + 20) / 4
    expect(questionWeight(estimate, hours, lagging, 0.25, 0)).toBeDefined()
    expect(questionWeight(estimate, hours, (1.1 * p50) / 4, 0.25, 0.15)).toBeUndefined()
  })
  it('holds before the first point and after the last of the curve', () => {
    const estimate = estimateDrying({ ...RUNS[0]!.known, weighIns: [] })
    expect(expectedWeight(estimate, 0)).toEqual(estimate.curve[0]!.weightG)
    expect(expectedWeight(estimate, 1e4)).toEqual(estimate.curve.at(-1)!.weightG)
  })
})
