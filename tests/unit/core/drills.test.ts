import { judgeFeel } from '#core/dryness'
import { fill } from '#core/errors'
import { drill, DRILL_KINDS, isRight } from '#core/practice'
import { FOODS } from '../../support/foods'

const SEEDS = Array.from({ length: 60 }, (_, i) => i + 1)

describe.each(DRILL_KINDS)('drill %s', kind => {
  const drills = SEEDS.map(seed => drill(kind, FOODS, seed))

  it('has a question without holes, and an answer that is right', () => {
    for (const one of drills) {
      for (const words of [fill(one.ask, one.figures), fill(one.why, one.figures)]) expect(words).not.toMatch(/[{}]|undefined|NaN|Infinity/)
      expect(one.answer).toBeGreaterThanOrEqual(0)
      expect(Number.isFinite(one.answer)).toBe(true)
      expect(isRight(one, one.answer)).toBe(true)
      expect(one.source).not.toBe('')
    }
  })
  it('takes no answer that is far off', () => {
    for (const one of drills) {
      if (one.unit === 'choice') expect(isRight(one, (one.answer + 1) % one.choices!.length)).toBe(false)
      else expect(isRight(one, 3 * one.answer)).toBe(false)
    }
  })
  it('is the same for a seed, and not one for all', () => {
    expect(drill(kind, FOODS, 5)).toEqual(drill(kind, FOODS, 5))
    expect(new Set(drills.map(one => one.answer)).size).toBeGreaterThan(2)
  })
})

it('1 kg of a food with 90 % water, a tenth trimmed, is 96 g at 6 % (worked by hand)', () => {
  const plain = {
    ...FOODS.find(food => food.key === 'carrot')!,
    trimShare: { value: { mean: 0.1, sd: 0 }, source: '' },
    rawMoisture: { value: { mean: 0.9, sd: 0 }, source: 'by hand' },
  }
  const one = drill('dryFromBasket', [{ ...plain, target: { ...plain.target, powder: 0.06 } }], 1)
  expect(one.answer / (one.figures.basketG as number)).toBeCloseTo(0.0957, 3)
})

it('of four pieces the dry one alone feels dry', () => {
  for (const seed of SEEDS) {
    const one = drill('whichIsDry', FOODS, seed)
    const votes = one.feels!.map(({ form, answers }) => judgeFeel({ form, answers, cooled: true, places: 3 }, 'powder').vote)
    expect([seed, votes[one.answer]]).toEqual([seed, 'dry'])
    expect([seed, votes.filter(vote => vote === 'dry').length]).toEqual([seed, 1])
  }
})
