import { dryingClock, estimateDrying, estimateTrays, type DryingRun } from '#core/kinetics'
import { BODIES, dryness } from '#core/kinetics/bodies'
import { InputError } from '#core/errors'
import { makeTestRuns, weighTrays, weighUpTo } from '../../support/dryingRuns'

/**
 * Figures of some runs, to four digits: populations tell whether the estimator is good, this tells that it is the same. Whoever
 * changes a constant sees here what moves with it.
 */
const [first, second] = makeTestRuns(2, 31)
/** To four digits; figures that belong together on one line. */
function rounded(value: unknown): unknown {
  if (typeof value === 'number') return Number.isFinite(value) ? Number(value.toPrecision(4)) : String(value)
  if (value === null || typeof value !== 'object') return value
  if (Array.isArray(value)) {
    const items = value.map(rounded)
    return items.every(item => typeof item === 'number') ? items.join(' ') : items
  }
  const inner = Object.entries(value).map(([key, item]) => [key, rounded(item)] as const)
  return inner.every(([, item]) => item === null || typeof item !== 'object')
    ? inner.map(([key, item]) => (/^p\d+$/.test(key) ? `${item}` : `${key} ${item}`)).join(', ')
    : Object.fromEntries(inner)
}
function figures(run: DryingRun) {
  const { curve, nextWeighings, ...estimate } = estimateDrying(run)
  return rounded({ ...estimate, curve: curve.filter((_, i) => i % 8 === 0), nextWeighings: nextWeighings.slice(0, 4) })
}
const asked = (share: number, count: number, more: Partial<DryingRun> = {}, of = first!): DryingRun => ({
  ...of.known,
  seed: of.seed,
  weighIns: count === 0 ? [] : weighUpTo(of, share, count),
  ...more,
})

describe('the figures of a run', () => {
  it.each<[string, DryingRun]>([
    ['not weighed', asked(0, 0)],
    ['weighed once', asked(0.4, 1)],
    ['weighed five times', asked(0.7, 5)],
    ['to the end, the air known', asked(1, 9, { equilibriumX: { mean: 0.02, sd: 0.004 } })],
    ['another kind of food', asked(0.6, 4, {}, second!)],
    ['a scale that writes all the time', asked(0.9, 150)],
    ['a coarse scale', asked(0.8, 5, { scale: { resolutionG: 10 } })],
  ])('%s', (_, run) => expect(figures(run)).toMatchSnapshot())
  it('with a night off, weighed after it', () => {
    const run = asked(0.8, 5)
    const hours = run.weighIns[3]!.hours
    const spell = { hours, lastsH: 9, balanceX: { mean: 0.12, sd: 0.03 }, share: 0.1, before: 4 }
    expect(figures({ ...run, spells: [spell] })).toMatchSnapshot()
    expect(
      figures({
        ...run,
        spells: [
          { ...spell, covered: true },
          { ...spell, lastsH: 3 },
        ],
      }),
    ).toMatchSnapshot()
  })
  it('with a weight at loading that is off, and with one that is wild', () => {
    const run = asked(0.9, 6)
    expect(figures({ ...run, startWeightG: 1.06 * run.startWeightG })).toMatchSnapshot()
    expect(
      figures({ ...run, weighIns: run.weighIns.map((item, i) => (i === 2 ? { ...item, weightG: 1.3 * item.weightG } : item)) }),
    ).toMatchSnapshot()
  })
  it('and of its trays, weighed all or some', () => {
    for (const nth of [1, 3]) {
      const { load, trays } = weighTrays(first!, 0.7, 5, nth)
      const told = estimateTrays({ ...first!.known, seed: first!.seed, weighIns: load }, trays)
      expect(rounded(told.trays)).toMatchSnapshot()
    }
  })
  it('bodies, each at three times of its own', () => {
    expect(
      Object.fromEntries(BODIES.map(body => [body.name, rounded([body.weight, ...[-2, 0, 1].map(time => dryness(body, time))])])),
    ).toMatchSnapshot()
  })
  it('refuses an equilibrium that is none, by its field', () => {
    const wrong = (equilibriumX: { mean: number; sd: number }) => {
      try {
        estimateDrying(asked(0.5, 2, { equilibriumX }))
      } catch (error) {
        if (error instanceof InputError) return error.problems.map(problem => problem.field).join()
      }
      return 'taken'
    }
    expect(wrong({ mean: -0.1, sd: 0.01 })).toContain('equilibriumX')
    expect(wrong({ mean: 0.02, sd: -1 })).toContain('equilibriumX')
    expect(wrong({ mean: 0.02, sd: 0.01 })).toBe('taken')
  })
  it('a clock ends with the run, and only what is open then', () => {
    const HOUR = 3_600_000
    const clock = dryingClock({
      startAt: 0,
      endAt: 5 * HOUR,
      referenceC: 57,
      heats: [
        { at: 0, setC: 57 },
        { at: 2 * HOUR, setC: null },
        { at: 3 * HOUR, setC: 57 },
      ],
    })
    expect(clock.spells).toEqual([
      { from: 0, to: 2 * HOUR, setC: 57 },
      { from: 3 * HOUR, to: 5 * HOUR, setC: 57 },
    ])
    expect(dryingClock({ startAt: 0, referenceC: 57, heats: [{ at: 0, setC: 57 }] }).spells).toEqual([{ from: 0, setC: 57 }])
    expect(dryingClock({ startAt: 0, endAt: HOUR, referenceC: 57, heats: [] }).spells).toEqual([])
  })
})
