import { estimateDrying, type DryingRun } from '#core/kinetics'
import { makeTestRuns, weighUpTo, type TestRun } from '../../support/dryingRuns'

/**
 * The bar for `estimateDrying` on the card, measured on runs of the diffusion model, which shares nothing with the bodies that
 * are reckoned with: an 80 % window must hold 75 to 88 of 100 true finishes.
 */
// Three populations, so that one lucky draw of usual hours does not decide.
const RUNS = [4, 5, 6].flatMap(seed => makeTestRuns(6, seed))
/** Share of the true finish up to which the load was weighed, and how often. */
const STAGES = [
  [0, 0],
  [0.15, 1],
  [0.3, 2],
  [0.5, 1],
  [0.5, 3],
  [0.5, 6],
  [0.7, 4],
  [0.85, 6],
  [0.95, 4],
  [0.95, 10],
  [1.1, 6],
] as const

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const ask = (run: TestRun, share: number, count: number): DryingRun => ({
  ...run.known,
  seed: run.seed,
  weighIns: count === 0 ? [] : weighUpTo(run, share, count),
})

interface Score {
  covered: number
  error: number
  width: number
}
function score(share: number, count: number, runs = RUNS, change: (run: DryingRun) => DryingRun = run => run): Score {
  const errors: number[] = []
  const widths: number[] = []
  let hits = 0
  for (const run of runs) {
    const {
      hoursToTarget: { p10, p50, p90 },
    } = estimateDrying(change(ask(run, share, count)))
    if (p10 <= run.trueFinishH && run.trueFinishH <= p90) hits++
    errors.push(Math.abs(p50 / run.trueFinishH - 1))
    widths.push((p90 - p10) / run.trueFinishH)
  }
  return { covered: hits / runs.length, error: median(errors), width: median(widths) }
}

const scores = STAGES.map(([share, count]) => ({ share, count, ...score(share, count) }))

describe('estimateDrying on simulated runs', () => {
  it('has runs on which the usual hours alone miss by about 16 %', () => {
    expect(scores[0]!.error).toBeGreaterThan(0.13)
    expect(scores[0]!.error).toBeLessThan(0.19)
  })
  it('holds 8 of 10 finishes overall', () => {
    const overall = scores.reduce((sum, item) => sum + item.covered, 0) / scores.length
    expect(overall).toBeGreaterThanOrEqual(0.75)
    expect(overall).toBeLessThanOrEqual(0.88)
  })
  // Early, and once weighed, a load may yet be one of those that the card knows nothing of, and here none is: the window is wider than it
  // would need to be.
  it.each(scores.map(item => [`${item.count} weighings up to ${item.share} of the run`, item] as const))(
    'holds 8 of 10 with %s',
    (_, item) => {
      expect(item.covered).toBeGreaterThanOrEqual(0.75)
      expect(item.covered).toBeLessThanOrEqual(item.count === 1 ? 0.985 : item.share < 0.5 ? 0.97 : 0.91)
    },
  )
  it('misses by under 9 % in the median with weighings up to half the run', () => {
    expect(scores.find(item => item.share === 0.5 && item.count === 6)!.error).toBeLessThan(0.09)
  })
  // Near the end the doubt of the solids decides: a gram of them moves the finish of a 100 g plateau by hours.
  it('misses by about 5 % in the median near the end where own lots have narrowed the solids', () => {
    const known = [4, 5].flatMap(seed => makeTestRuns(6, seed, 0.4))
    const { error, covered } = score(1, 12, known)
    expect(error).toBeLessThan(0.055)
    expect(covered).toBeGreaterThanOrEqual(0.72)
  })
  it('misses by little more with nothing but the reference’s spread of solids', () => {
    expect(score(1, 12).error).toBeLessThan(0.056)
    expect(score(1.1, 6).error).toBeLessThan(0.056)
  })
  it('shrinks its windows as weights come in', () => {
    const width = (share: number, count: number) => scores.find(item => item.share === share && item.count === count)!.width
    expect(width(0.5, 3)).toBeLessThan(0.8 * width(0, 0))
    expect(width(0.95, 10)).toBeLessThan(0.8 * width(0.5, 3))
  })
  it('loses little by one wild weight', () => {
    const wild = (run: DryingRun): DryingRun => ({
      ...run,
      weighIns: run.weighIns.map((weighIn, i) => (i === 3 ? { ...weighIn, weightG: Math.round(weighIn.weightG * 1.35) } : weighIn)),
    })
    const clean = score(0.7, 7)
    const dirty = score(0.7, 7, RUNS, wild)
    expect(dirty.error - clean.error).toBeLessThan(0.02)
    expect(dirty.covered).toBeGreaterThan(0.72)
  })
})
