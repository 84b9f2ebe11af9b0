import { bestHere, bestOf, judge, meanCost, play, searchBest } from '#core/practice'
import { findFood } from '../../support/foods'
import { LESSONS } from '../../support/lessons'

/** Lessons that are played in no time, so that a whole search fits a test. */
const QUICK = ['machine-says-done', 'water-back', 'powder-too-warm', 'cheap-lid'].map(key => LESSONS.find(lesson => lesson.key === key)!)
const KITCHENS = Array.from({ length: 20 }, (_, i) => 500 + i)

describe.each(QUICK.map(lesson => [lesson.key, lesson] as const))('the best that is searched for %s', (_, lesson) => {
  const food = findFood(lesson.food)!
  const best = bestOf(lesson, food, 16)

  it('is at least as good as taught and warned of, on kitchens on which it was not tried', () => {
    const cost = meanCost(lesson, food, best.rule, KITCHENS)
    // A search over sixteen kitchens may be a hair worse on twenty others.
    expect(cost).toBeLessThan(meanCost(lesson, food, lesson.taught, KITCHENS) + 0.5)
    expect(cost).toBeLessThan(meanCost(lesson, food, lesson.habit, KITCHENS) - 1)
  })

  it('is the same whenever it is asked, and never gets worse on its way', () => {
    const steps = [...searchBest(lesson, food, 16)]
    const costs = steps.slice(0, -1).map(step => step.cost)
    for (let i = 1; i < costs.length; i++) expect(costs[i]!).toBeLessThanOrEqual(costs[i - 1]!)
    expect(steps.at(-1)).toEqual(best)
  })

  it('is in the end no worse than taught on a hundred kitchens on which nothing was searched', () => {
    const others = Array.from({ length: 100 }, (_, i) => 950_001 + i)
    expect(best.cost).toBe(meanCost(lesson, food, best.rule, others))
    expect(best.cost).toBeLessThanOrEqual(meanCost(lesson, food, lesson.taught, others))
  })

  it('is told of the very kitchen that was played', () => {
    expect(bestHere(lesson, food, 77, best)).toEqual(judge(play(lesson, food, 77, best.rule)))
  })
})
