import { estimateDrying, estimateTrays } from '#core/kinetics'
import { makeTestRuns, weighTrays, type TestRun } from '../../support/dryingRuns'

/**
 * The bar for single trays, on runs of the diffusion model whose trays each have a rate of their own: an
 * 80 % window of a tray holds 75 to 88 of 100 true finishes of that tray.
 */
// Three populations, so that one lucky draw of usual hours does not decide.
const RUNS = [51, 52, 53].flatMap(seed => makeTestRuns(4, seed))
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
/** Share of the run, rounds, and every how many-th tray was weighed in a round. */
const STAGES = [
  [0, 0, 1],
  [0.3, 2, 1],
  [0.5, 3, 1],
  [0.5, 4, 2],
  [0.7, 6, 3],
  [0.9, 6, 1],
] as const

function score(runs: readonly TestRun[], share: number, count: number, nth: number) {
  let hits = 0
  let loads = 0
  const errors: number[] = []
  const byLoad: number[] = []
  for (const run of runs) {
    const { load, trays } = weighTrays(run, share, count, nth)
    const estimate = estimateTrays({ ...run.known, seed: run.seed, weighIns: load }, trays)
    if (estimate.load.hoursToTarget.p10 <= run.trueFinishH && run.trueFinishH <= estimate.load.hoursToTarget.p90) loads++
    estimate.trays.forEach(({ hoursToTarget: { p10, p50, p90 } }, i) => {
      const finish = run.trayFinishesH[i]!
      if (!Number.isFinite(finish)) return
      if (p10 <= finish && finish <= p90) hits++
      errors.push(Math.abs(p50 / finish - 1))
      byLoad.push(Math.abs(estimate.load.hoursToTarget.p50 / finish - 1))
    })
  }
  return { covered: hits / errors.length, loads: loads / runs.length, error: median(errors), byLoad: median(byLoad) }
}
const scores = STAGES.map(([share, count, nth]) => ({ share, count, nth, ...score(RUNS, share, count, nth) }))

describe('estimateTrays on simulated runs', () => {
  it.each(scores.map(item => [`${item.count} rounds up to ${item.share} of the run, every ${item.nth}. tray`, item] as const))(
    'holds 8 of 10 tray finishes with %s',
    (_, item) => {
      expect(item.covered).toBeGreaterThanOrEqual(0.74)
      expect(item.covered).toBeLessThanOrEqual(item.share <= 0.5 ? 0.96 : 0.92)
    },
  )
  it('holds the load’s finish as well, weighed tray by tray or some trays only', () => {
    for (const item of scores) {
      expect(item.loads).toBeGreaterThanOrEqual(0.72)
      expect(item.loads).toBeLessThanOrEqual(0.97)
    }
  })
  it('knows a tray better than the load’s window does', () => {
    for (const item of scores.filter(({ count }) => count >= 3)) expect(item.error).toBeLessThan(0.85 * item.byLoad)
    expect(scores.at(-1)!.error).toBeLessThan(0.07)
  })
})

describe('a load and its trays', () => {
  const [run] = RUNS
  const width = ({ p10, p90 }: { p10: number; p90: number }) => p90 - p10

  it('weighing two trays sharpens those that were not weighed', () => {
    const { load, trays } = weighTrays(run!, 0.6, 4, 1)
    const two = trays.map((tray, i) => (i < 2 ? tray : { ...tray, weighIns: [] }))
    const none = trays.map(tray => ({ ...tray, weighIns: [] }))
    const before = estimateTrays({ ...run!.known, weighIns: [] }, none).trays.at(-1)!
    const after = estimateTrays(
      { ...run!.known, weighIns: load.map(weighIn => ({ ...weighIn, extraSdG: 0.05 * weighIn.weightG })) },
      two,
    ).trays
    expect(width(after.at(-1)!.hoursToTarget)).toBeLessThan(0.85 * width(before.hoursToTarget))
    expect(width(after[0]!.hoursToTarget)).toBeLessThan(width(after.at(-1)!.hoursToTarget))
  })
  it('finds the slow tray and the fast one', () => {
    const slowest = (list: readonly number[]) => list.indexOf(Math.max(...list))
    const found = RUNS.filter(({ trayFinishesH }) => trayFinishesH.every(Number.isFinite)).map(one => {
      const { load, trays } = weighTrays(one, 0.7, 5, 1)
      const estimates = estimateTrays({ ...one.known, weighIns: load }, trays).trays
      return slowest(estimates.map(tray => tray.hoursToTarget.p50)) === slowest(one.trayFinishesH)
    })
    // By chance it would be about one in five.
    expect(found.filter(Boolean).length / found.length).toBeGreaterThan(0.6)
  })
  it('gives the load what estimateDrying gives', () => {
    const { load, trays } = weighTrays(run!, 0.5, 3, 1)
    const known = { ...run!.known, weighIns: load, seed: 3 }
    expect(estimateTrays(known, trays).load).toEqual(estimateDrying(known))
  })
  it('is not led astray by one mistyped tray', () => {
    const { load, trays } = weighTrays(run!, 0.7, 6, 1)
    const [first, ...others] = trays
    const wild = {
      ...first!,
      weighIns: first!.weighIns.map((weighIn, i) => (i === 2 ? { ...weighIn, weightG: Math.round(weighIn.weightG * 1.6) } : weighIn)),
    }
    const clean = estimateTrays({ ...run!.known, weighIns: load }, trays).trays[0]!
    const dirty = estimateTrays({ ...run!.known, weighIns: load }, [wild, ...others]).trays[0]!
    expect(Math.abs(dirty.hoursToTarget.p50 / clean.hoursToTarget.p50 - 1)).toBeLessThan(0.1)
  })
  it('with nothing weighed has the load’s window, widened by what trays differ', () => {
    const { load, trays } = estimateTrays({ ...run!.known, weighIns: [] }, weighTrays(run!, 0, 0).trays)
    for (const tray of trays) {
      // Fewer curves are drawn for trays: their edges waver by some percent.
      expect(width(tray.hoursToTarget)).toBeGreaterThan(0.95 * width(load.hoursToTarget))
      expect(tray.pace.p50).toBeCloseTo(1, 1)
      expect(width(tray.pace)).toBeGreaterThan(0.2)
    }
  })
})
