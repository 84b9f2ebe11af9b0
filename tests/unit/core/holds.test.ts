import { foldBatch, holdLimit } from '#core/batch'
import type { HoldPlace } from '#core/log'
import { FOODS, findFood } from '../../support/foods'
import { HOUR, logOf, MORNING } from '../../support/logbook'

const PERISHABLE = FOODS.filter(food => food.traits.includes('perishable'))
const hours = (...asked: Parameters<typeof holdLimit>) => holdLimit(...asked) / HOUR

describe('how long food waits (USDA: two hours between 40 and 140 °F, one above 90 °F; from memory)', () => {
  it('what is perishable has two hours out of the cold, and one where it is hot, whatever it is and wherever it stands', () => {
    expect(PERISHABLE.length).toBeGreaterThan(25)
    for (const food of PERISHABLE)
      for (const place of ['counter', 'cool-room'] as const)
        expect([food.key, hours(place, 'raw', food), hours(place, 'cut', food, { roomC: 35 })]).toEqual([food.key, 2, 1])
  })
  it.each(['counter', 'cool-room'] as const)('so has what is cut: %s', place => {
    for (const food of FOODS) expect([food.key, hours(place, 'cut', food)]).toEqual([food.key, 2])
  })
  it('what is whole and keeps waits as fresh food does, half as long in the heat', () => {
    const carrot = findFood('carrot')!
    expect(hours('counter', 'raw', carrot)).toBe(24)
    expect(hours('counter', 'raw', carrot, { roomC: 34 })).toBe(12)
  })
  it('in the cold a food is never kept longer than it is fresh', () => {
    for (const food of FOODS) expect(hours('refrigerator', 'raw', food)).toBe(24 * food.freshDays.value)
  })
  it('hours that were spent before are not given again: the end of a hold is the danger clock’s', () => {
    const held = (place: HoldPlace) =>
      foldBatch(
        logOf(
          [
            0,
            {
              kind: 'intake',
              foodKey: 'milk-whole',
              cardKey: findFood('milk-whole')!.cards[0]!.key,
              purpose: 'powder',
              source: 'Shop',
              weightG: 900,
            },
          ],
          [0, { kind: 'hold', place: 'counter' }],
          [0.5, { kind: 'hold', place: 'refrigerator' }],
          [9, { kind: 'hold', place }],
        ),
        findFood,
      )!.hold!
    expect((held('counter').until - MORNING) / HOUR).toBeCloseTo(10.5, 6)
    expect(held('freezer').until - MORNING).toBeGreaterThan(80 * 24 * HOUR)
  })
})
