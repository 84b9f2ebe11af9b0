import fc from 'fast-check'
import quantile from '@stdlib/stats-base-dists-normal-quantile'
import {
  intervalFromLogNormal,
  intervalFromNormal,
  interpolate,
  intervalOf,
  mapInterval,
  normalCdf,
  normalDraws,
  randomSource,
} from '#core/stats'

describe('intervals', () => {
  it('of many normal draws are the normal distribution’s own', () => {
    const draws = normalDraws(7, 40_000, 1)
    const { p10, p50, p90 } = intervalOf(draws)
    expect(p10).toBeCloseTo(quantile(0.1, 0, 1), 1)
    expect(p50).toBeCloseTo(0, 2)
    expect(p90).toBeCloseTo(quantile(0.9, 0, 1), 1)
  })
  it('are in order and within the draws, whatever these are', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ noNaN: true }), { minLength: 1, maxLength: 60 }), draws => {
        const { p10, p50, p90 } = intervalOf(draws)
        expect(p10).toBeLessThanOrEqual(p50)
        expect(p50).toBeLessThanOrEqual(p90)
        expect(p10).toBeGreaterThanOrEqual(Math.min(...draws))
        expect(p90).toBeLessThanOrEqual(Math.max(...draws))
      }),
    )
  })
  it('take infinite draws: a run that may never be dry', () => {
    expect(intervalOf([1, 1, 3, Infinity, Infinity, Infinity])).toEqual({ p10: 1, p50: Infinity, p90: Infinity })
    expect(intervalOf([Infinity]).p50).toBe(Infinity)
    expect(Number.isNaN(intervalOf([1, Infinity]).p50)).toBe(false)
  })
  it('leave their draws as they were', () => {
    const draws = [3, 1, 2]
    intervalOf(draws)
    expect(draws).toEqual([3, 1, 2])
  })
  it('of named distributions hold 80 % and mind a floor', () => {
    const { p10, p90 } = intervalFromNormal(10, 2)
    expect(normalCdf((p90 - 10) / 2) - normalCdf((p10 - 10) / 2)).toBeCloseTo(0.8, 5)
    expect(intervalFromNormal(1, 5, 0).p10).toBe(0)
    const log = intervalFromLogNormal(8, 0.3)
    expect(log.p90 / log.p50).toBeCloseTo(log.p50 / log.p10, 12)
  })
  it('turn their ends round under a falling function', () => {
    expect(mapInterval({ p10: 1, p50: 2, p90: 4 }, x => 1 / x)).toEqual({ p10: 0.25, p50: 0.5, p90: 1 })
  })
})

describe('chance', () => {
  it('is the same for the same seed and another for the next', () => {
    const row = (seed: number) => {
      const source = randomSource(seed)
      return Array.from({ length: 5 }, () => source.uniform())
    }
    expect(row(3)).toEqual(row(3))
    expect(row(3)).not.toEqual(row(4))
  })
  it('has no kinship between neighbouring seeds', () => {
    const firsts = Array.from({ length: 400 }, (_, seed) => randomSource(seed + 1).uniform())
    const mean = firsts.reduce((a, b) => a + b) / firsts.length
    const lag = firsts.slice(1).reduce((sum, value, i) => sum + (value - mean) * (firsts[i]! - mean), 0) / firsts.length
    const variance = firsts.reduce((sum, value) => sum + (value - mean) ** 2, 0) / firsts.length
    expect(mean).toBeCloseTo(0.5, 1)
    expect(Math.abs(lag / variance)).toBeLessThan(0.15)
  })
  it('gives whole numbers of the whole range, and only those', () => {
    const source = randomSource(5)
    const seen = new Set(Array.from({ length: 500 }, () => source.integer(2, 6)))
    expect([...seen].sort()).toEqual([2, 3, 4, 5, 6])
  })
  it('mirrors its rows, so that means are exact', () => {
    const draws = normalDraws(1, 100, 3)
    expect(draws.reduce((a, b) => a + b)).toBeCloseTo(0, 10)
    const variance = normalDraws(2, 20_000, 1).reduce((sum, value) => sum + value * value, 0) / 20_000
    expect(variance).toBeCloseTo(1, 1)
  })
})

it('between points of a table goes along straight lines, and beyond them stays', () => {
  const at = (place: number) => interpolate([0, 1, 4], [10, 20, 50], place)
  expect([-1, 0, 0.5, 1, 2, 4, 9].map(at)).toEqual([10, 10, 15, 20, 30, 50, 50])
  expect(interpolate([2], [7], 3)).toBe(7)
})
