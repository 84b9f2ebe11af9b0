import fc from 'fast-check'
import { bestByDates, bestByWindow, freshnessOf, jarTakesG, PACKAGES, USE_FIRST_DAYS, type PackageKey } from '#core/keeping'
import { trayTakesG } from '#core/planning'
import { tablespoonsOf } from '#core/using'
import { DAY, MORNING } from '../../support/logbook'
import { FOODS, findFood } from '../../support/foods'

describe('a jar’s time', () => {
  const jar = { leftG: 40, bestFrom: MORNING + 100 * DAY, bestTo: MORNING + 200 * DAY }
  it.each<[string, Partial<typeof jar & { smell: string }>, number, string]>([
    ['well before its window', {}, 0, 'good'],
    ['three weeks before its window begins', {}, 100 - USE_FIRST_DAYS + 1, 'use-first'],
    ['within its window', {}, 150, 'use-first'],
    ['after its window', {}, 201, 'past'],
    ['with no smell left, whatever the date', { smell: 'none' }, 0, 'stale'],
    ['with a weaker smell', { smell: 'weaker' }, 0, 'good'],
    ['empty, whatever else', { leftG: 0, smell: 'none' }, 300, 'empty'],
  ])('%s', (_, more, day, freshness) => {
    expect(freshnessOf({ ...jar, ...more }, MORNING + day * DAY)).toBe(freshness)
  })
  it('counts months of the calendar: twelve are a year', () => {
    const { from, to } = bestByDates(MORNING, { months: { low: 12, high: 24 } })
    expect((from - MORNING) / DAY).toBeCloseTo(365.25, 1)
    expect(to - MORNING).toBeCloseTo(2 * (from - MORNING), -1)
  })
  it('has a window for every food, form and package, the low end first, warmer never longer', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FOODS),
        fc.constantFrom('pieces', 'flakes', 'powder'),
        fc.constantFrom(...PACKAGES),
        fc.double({ min: -25, max: 40, noNaN: true }),
        (food, purpose, { key }, storageC) => {
          const at = (celsius: number) => bestByWindow({ food, purpose, packageKey: key, storageC: celsius }).months
          const { low, high } = at(storageC)
          expect(low).toBeGreaterThan(0)
          expect(low).toBeLessThanOrEqual(high)
          expect(at(storageC + 5).low).toBeLessThanOrEqual(low)
          expect(at(storageC + 5).high).toBeLessThanOrEqual(high)
        },
      ),
    )
  })
  it('follows Q10: ten degrees warmer keeps about half as long (extension guidance on fruit)', () => {
    const food = findFood('beetroot')!
    const at = (storageC: number) => bestByWindow({ food, purpose: 'powder', packageKey: 'screw-jar', storageC }).months.low
    expect(at(15) / at(25)).toBeCloseTo(1.9, 6)
  })
})

describe('what a jar and a tray take', () => {
  it('a 250 mL jar of powder at 0.5 g/mL takes about 110 g, pieces far less', () => {
    expect(jarTakesG(0.5, 'powder', 250)).toBeCloseTo(112.5, 6)
    expect(jarTakesG(0.5, 'pieces', 250)).toBeLessThan(0.5 * jarTakesG(0.5, 'powder', 250))
    expect(jarTakesG(0.5, 'flakes', 250)).toBeLessThan(jarTakesG(0.5, 'powder', 250))
  })
  it('a tray of 30 × 33 cm takes 280 g of paste and more of slices (common practice), within a factor of two', () => {
    const area = 0.3 * 0.33
    const sheet = trayTakesG(
      findFood('pumpkin')!.cards.find(card => card.key === 'sheet')!,
      area,
    )
    expect(sheet.mean / 280).toBeGreaterThan(0.5)
    expect(sheet.mean / 280).toBeLessThan(2)
    for (const food of FOODS)
      for (const card of food.cards) expect(trayTakesG(card, area).mean).toBeGreaterThan(3 * trayTakesG(card, area).sd)
  })
  it('level tablespoons are a range as wide as the density is unknown', () => {
    // 60 g at half a gram a millilitre fill half a US cup, which is 8 tablespoons of 15 mL.
    expect(tablespoonsOf(60, { p10: 0.5, p50: 0.5, p90: 0.5 })).toEqual({ p10: 8, p50: 8, p90: 8 })
    const { p10, p50, p90 } = tablespoonsOf(60, { p10: 0.4, p50: 0.5, p90: 0.6 })
    expect(p10).toBeLessThan(p50)
    expect(p50).toBeLessThan(p90)
    expect(p90 / p10).toBeCloseTo(1.5, 9)
  })
})

describe('as extension guidance says (National Center for Home Food Preservation, from memory)', () => {
  const months = (foodKey: string, storageC: number, packageKey: PackageKey = 'screw-jar') =>
    bestByWindow({
      food: findFood(foodKey)!,
      purpose: 'pieces',
      packageKey,
      storageC,
      said: { months: { low: 0, high: 0 }, guidance: true },
    }).months.high
  it.each([
    ['carrot', 16, 6],
    ['carrot', 27, 3],
    ['apple', 16, 12],
    ['apple', 27, 6],
  ])('%s at %d °C keeps %d months, in foil too', (foodKey, storageC, expected) => {
    expect(months(foodKey, storageC)).toBeCloseTo(expected, 0)
    expect(months(foodKey, storageC, 'foil-bag')).toBe(months(foodKey, storageC))
  })
  it('meat keeps no longer for its foil, and by the default either', () => {
    const kept = (packageKey: PackageKey) =>
      bestByWindow({ food: findFood('beef-cooked')!, purpose: 'pieces', packageKey, storageC: 20 }).months.high
    expect(kept('foil-bag')).toBeLessThanOrEqual(2)
    expect(kept('vacuum-jar')).toBe(kept('screw-jar'))
  })
})
