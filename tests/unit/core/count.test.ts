import fc from 'fast-check'
import { toldAgainst, yieldAgainst } from '#core/insight'
import { countOfJar } from '#core/jars/count'

describe('a jar that was counted', () => {
  it.each<[string, number, number, ReturnType<typeof countOfJar>]>([
    ['as the log says', 100, 100, { is: 'same' }],
    ['within what a kitchen scale tells', 100.4, 100, { is: 'same' }],
    ['some is missing', 60, 100.25, { is: 'missing', goneG: 40.25 }],
    ['it is empty', 0, 100, { is: 'missing', goneG: 100 }],
    ['an ounce more than there can be', 128.35, 100, { is: 'more' }],
    ['an empty one is empty', 0, 0, { is: 'same' }],
  ])('%s', (_, countedG, leftG, found) => {
    expect(countOfJar(countedG, leftG)).toEqual(found)
  })
  it('never takes more than there is, and leaves what was counted', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 5000, noNaN: true }), fc.double({ min: 0, max: 5000, noNaN: true }), (countedG, leftG) => {
        const counted = countOfJar(countedG, leftG)
        if (counted.is !== 'missing') return
        expect(counted.goneG).toBeGreaterThan(0)
        expect(counted.goneG).toBeLessThanOrEqual(leftG + 0.001)
        expect(leftG - counted.goneG).toBeCloseTo(countedG, 2)
      }),
    )
  })
})

describe('what was said, against what came', () => {
  it('has its middle on a scale of ratios', () => {
    expect(toldAgainst({ low: 4, high: 9, took: 7 })).toEqual({ low: 4, middle: 6, high: 9, actual: 7 })
  })
  it('a yield is a share of the basket, beside the reference where there is one', () => {
    const usual = { prep: 0.8, drying: 0.12, grinding: 0.95 }
    expect(yieldAgainst(2000, 180, usual)).toEqual({ share: 0.09, reference: 0.8 * 0.12 * 0.95 })
    expect(yieldAgainst(2000, 180, undefined)).toEqual({ share: 0.09, reference: undefined })
    expect(yieldAgainst(2000, undefined, usual)).toBeUndefined()
    expect(yieldAgainst(0, 180, usual)).toBeUndefined()
  })
})
