import { bestByWindow } from '#core/keeping'
import { temperatureFrom } from '#core/units'
import { findFood } from '../support/foods'

/**
 * Drying guidance of the extension services (National Center for Home Food Preservation; So Easy to Preserve,
 * University of Georgia), from memory: dried fruit keeps a year at 60 °F and six months at 80 °F, vegetables about
 * half as long as fruit, that is about six months.
 */
const months = (foodKey: string, fahrenheit: number) =>
  bestByWindow({ food: findFood(foodKey)!, purpose: 'pieces', packageKey: 'screw-jar', storageC: temperatureFrom(fahrenheit, 'F') }).months

describe('keeping times of extension guidance', () => {
  it.each(['apple', 'strawberry', 'plum'])('%s: the window holds a year at 60 °F and six months at 80 °F', foodKey => {
    const [cool, warm] = [months(foodKey, 60), months(foodKey, 80)]
    expect(cool.low).toBeLessThan(12)
    expect(cool.high).toBeGreaterThan(12)
    expect(warm.low).toBeLessThan(6)
    expect(warm.high).toBeGreaterThan(6)
  })
  it.each(['carrot', 'celery', 'onion', 'beetroot'])('%s: six months is within, or at the near end of, the window of a pantry', foodKey => {
    const pantry = months(foodKey, 68)
    expect(pantry.low).toBeLessThanOrEqual(6.1)
    expect(pantry.high).toBeGreaterThan(6)
  })
  it('fruit keeps half as long at 80 °F as at 60', () => {
    const ratio = months('apple', 60).high / months('apple', 80).high
    expect(ratio).toBeGreaterThan(1.9)
    expect(ratio).toBeLessThan(2.1)
  })
  // USDA cold storage charts, from memory: frozen cooked fish 4 to 6 months, and raw 3 to 8; nothing dried is told of for years.
  it.each(['salmon-cooked', 'egg-whole'])('%s in the freezer is not promised for years', foodKey => {
    expect(months(foodKey, 0).high).toBeLessThan(24)
    expect(months(foodKey, 0).low).toBeGreaterThanOrEqual(months(foodKey, 68).low)
  })
})
