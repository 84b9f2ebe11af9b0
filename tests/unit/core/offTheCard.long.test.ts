import { estimateDrying, questionWeight } from '#core/kinetics'
import { APART, CHOSEN_BY, makeWideRuns, SET_ON } from '../../support/wideRuns'

/**
 * The bar off the card: loads from half to three times the usual hours, of bodies that the estimator's constants were set on and
 * of others that they were not, weighed once to twelve times, now and then wrongly, some with a start weight that is off.
 */
const OPTIONS = {
  paces: [0.5, 0.7, 1, 1.4, 2, 3],
  perCell: 5,
  stages: [0.2, 0.35, 0.5, 0.7, 0.85, 1, 1.15],
  counts: [1, 2, 3, 4, 6, 8, 12],
}
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const within = ({ p10, p90 }: { p10: number; p90: number }, truth: number) => p10 <= truth + 1e-9 && truth <= p90 + 1e-9

const measured = [SET_ON, CHOSEN_BY, APART]
  .flatMap((makers, i) => makeWideRuns(makers, { ...OPTIONS, seed: 21 + i }))
  .map(item => {
    const { hoursToTarget, moistureNow, probabilityDry } = estimateDrying(item.run)
    return {
      ...item,
      apart: item.body in APART,
      held: within(hoursToTarget, item.trueFinishH),
      moistureHeld: within(moistureNow, item.trueMoisture),
      error: Math.abs(hoursToTarget.p50 / item.trueFinishH - 1),
      isWet: item.trueMoisture > 1.1 * item.run.targetMoisture,
      saidDry: probabilityDry > 0.9,
      count: item.run.weighIns.length,
    }
  })
type Measured = (typeof measured)[number]
const share = (list: Measured[], is: (item: Measured) => boolean) => list.filter(is).length / list.length

describe('estimateDrying off the card', () => {
  it('holds 75 to 88 of 100 finishes, and the moisture now alike', () => {
    for (const figure of [share(measured, item => item.held), share(measured, item => item.moistureHeld)]) {
      expect(figure).toBeGreaterThanOrEqual(0.75)
      expect(figure).toBeLessThanOrEqual(0.88)
    }
  })
  it('does so on bodies that no constant was set on', () => {
    const others = measured.filter(item => item.apart)
    for (const figure of [share(others, item => item.held), share(others, item => item.moistureHeld)]) {
      expect(figure).toBeGreaterThanOrEqual(0.75)
      expect(figure).toBeLessThanOrEqual(0.9)
    }
  })
  // Half the usual hours are told too late where a body stops short: the card speaks for a longer tail.
  it.each([
    [0.5, 0.72],
    [0.7, 0.72],
    [1, 0.8],
    [1.4, 0.75],
    [2, 0.75],
    [3, 0.75],
  ])('at %d times the usual hours it holds more than %d', (pace, least) => {
    expect(
      share(
        measured.filter(item => item.pace === pace),
        item => item.held,
      ),
    ).toBeGreaterThan(least)
  })
  it.each([1, 2, 3, 4, 6, 8, 12])('weighed %d times it holds 7 of 10 and more', count => {
    expect(
      share(
        measured.filter(item => item.count === count),
        item => item.held,
      ),
    ).toBeGreaterThan(0.68)
  })
  it('errs by a tenth in the median', () => {
    expect(median(measured.map(item => item.error))).toBeLessThan(0.105)
  })
  it('hardly ever calls a wet load dry', () => {
    const wet = measured.filter(item => item.isWet)
    expect(wet.length).toBeGreaterThan(200)
    expect(share(wet, item => item.saidDry)).toBeLessThan(0.015)
  })
})

describe('laws of the estimate', () => {
  const run = measured.find(item => item.pace === 1 && item.count === 6)!.run
  it('a heavier last weight never reads as drier', () => {
    const last = run.weighIns.at(-1)!
    const moistures = [0.9, 0.96, 1, 1.04, 1.1, 1.2].map(
      factor =>
        estimateDrying({ ...run, weighIns: [...run.weighIns.slice(0, -1), { ...last, weightG: last.weightG * factor }] }).moistureNow.p50,
    )
    moistures.slice(1).forEach((moisture, i) => expect(moisture).toBeGreaterThanOrEqual(moistures[i]! - 0.015))
  })
  it('the same weight after more heat never reads as wetter', () => {
    const last = run.weighIns.at(-1)!
    const moistures = [1, 1.3, 1.8, 2.5].map(
      factor =>
        estimateDrying({ ...run, weighIns: [...run.weighIns.slice(0, -1), { ...last, hours: last.hours * factor }] }).moistureNow.p50,
    )
    moistures.slice(1).forEach((moisture, i) => expect(moisture).toBeLessThanOrEqual(moistures[i]! + 0.004))
  })
  it('a run whose every weight is nonsense is told by its card, not by an error', () => {
    const nonsense = { ...run, weighIns: [5000, 12, 3000, 9, 4000].map((weightG, i) => ({ hours: i + 1, weightG: weightG * 10 })) }
    expect(Number.isFinite(estimateDrying(nonsense).hoursToTarget.p50)).toBe(true)
  })
})

describe('hung in a room that never lets it come to its target', () => {
  it('the curve goes on past the usual hours, and a weight of three days later that fits is not asked about', () => {
    const estimate = estimateDrying({
      startWeightG: 272,
      solids: { mean: 0.0785, sd: 0.01 },
      targetMoisture: 0.06,
      usualHours: { low: 150, high: 300 },
      equilibriumX: { mean: 0.092, sd: 0.018 },
      weighIns: [],
    })
    expect(estimate.hoursToTarget.p50).toBe(Infinity)
    expect(estimate.curve.at(-1)!.hours).toBeGreaterThan(300)
    expect(questionWeight(estimate, 72, 50)).toBeUndefined()
    expect(questionWeight(estimate, 72, 220)).toBeDefined()
  })
})
