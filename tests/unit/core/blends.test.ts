import { allergensOfLot, allergenWords } from '#core/foods'
import fc from 'fast-check'
import loadHighs from 'highs'
import {
  heatCautions,
  heatFigures,
  heatWord,
  heatWords,
  middleHeat,
  mixedColour,
  mixOf,
  mostOf,
  scaled,
  solveBlend,
  type BlendQuestion,
  type Ingredient,
  type Solver,
} from '#core/blends'
import { InputError } from '#core/errors'
import { contentOf, jarBest, replayJars } from '#core/jars'
import { moistureOf, type FindLot, type JarItem, type Lot } from '#core/log'
import { BOOK, findFood } from '../../support/foods'
import { DAY, MORNING } from '../../support/logbook'

const exactly = (value: number) => ({ p10: value, p50: value, p90: value })
const ingredient = (name: string, more: Partial<Ingredient> = {}): Ingredient => ({
  key: name,
  name,
  leftG: 1000,
  moisture: 0.06,
  densityGMl: exactly(0.5),
  saltShare: 0,
  allergens: [],
  oldestAt: 0,
  bestTo: 1e12,
  purpose: 'powder',
  ...more,
})
const MILD = ingredient('mild chili', { heat: { low: 1000, high: 1000 } })
const HOT = ingredient('hot chili', { heat: { low: 40_000, high: 40_000 } })
const CUMIN = ingredient('cumin', { allergens: ['mustard'], costPerG: 0.02 })
const SALT = ingredient('salt', { saltShare: 1, densityGMl: exactly(1.2), costPerG: 0.001 })

let highs: Solver
beforeAll(async () => {
  highs = await loadHighs()
})

describe('what a mix adds up to', () => {
  it('is the mass average of heat and salt, the union of allergens, the age of the oldest', () => {
    const mix = mixOf([
      { ingredient: MILD, grams: 60 },
      { ingredient: HOT, grams: 20 },
      { ingredient: { ...CUMIN, oldestAt: -5, bestTo: 7 }, grams: 15 },
      { ingredient: SALT, grams: 5 },
    ])
    expect(mix.totalG).toBe(100)
    expect(mix.heat).toEqual({ low: 8600, high: 8600 })
    expect(mix.saltShare).toBeCloseTo(0.05, 12)
    expect(mix.allergens).toEqual(['mustard'])
    expect([mix.oldestAt, mix.bestTo, mix.hottest]).toEqual([-5, 7, 40_000])
    expect([mix.cost, mix.pricedG]).toEqual([expect.closeTo(0.305, 9), 20])
    expect(mix.ml.p50).toBeCloseTo(95 / 0.5 + 5 / 1.2, 9)
  })
  it('is as coarse as its coarsest part, and unknown where one was never sieved', () => {
    expect(
      mixOf([
        { ingredient: { ...MILD, sievedUm: 400 }, grams: 1 },
        { ingredient: { ...HOT, sievedUm: 600, purpose: 'flakes' }, grams: 1 },
      ]),
    ).toMatchObject({ sievedUm: 600, coarsest: 'flakes' })
    expect(
      mixOf([
        { ingredient: { ...MILD, sievedUm: 400 }, grams: 1 },
        { ingredient: HOT, grams: 1 },
      ]).sievedUm,
    ).toBeUndefined()
  })
  it('keeps mass, heat, salt and water, however it is put together (property)', () => {
    const shares = fc.array(
      fc.record({
        grams: fc.double({ min: 0.1, max: 900, noNaN: true }),
        heat: fc.double({ min: 0, max: 2e6, noNaN: true }),
        salt: fc.double({ min: 0, max: 1, noNaN: true }),
        water: fc.double({ min: 0, max: 0.15, noNaN: true }),
      }),
      { minLength: 2, maxLength: 8 },
    )
    fc.assert(
      fc.property(shares, list => {
        const parts = list.map(({ grams, heat, salt, water }, i) => ({
          grams,
          ingredient: ingredient(`i${i}`, { heat: { low: heat, high: heat }, saltShare: salt, moisture: water }),
        }))
        const whole = mixOf(parts)
        const [a, b] = [mixOf(parts.slice(0, 1)), mixOf(parts.slice(1))]
        const again = mixOf(
          [a, b].map(mix => ({
            grams: mix.totalG,
            ingredient: ingredient('half', { heat: mix.heat, saltShare: mix.saltShare, moisture: mix.moisture }),
          })),
        )
        expect(again.totalG).toBeCloseTo(whole.totalG, 6)
        expect((again.heat!.low * again.totalG) / (whole.heat!.low * whole.totalG || 1)).toBeCloseTo(whole.heat!.low > 0 ? 1 : 0, 9)
        expect(again.saltG).toBeCloseTo(whole.saltG, 6)
        expect(again.moisture).toBeCloseTo(whole.moisture, 9)
      }),
    )
  })
  it('is the stronger for water lost in the pan: 20 g toasted to 18 g hold the heat and the salt of 20 g', () => {
    const wet = { ...HOT, moisture: 0.12, saltShare: 0.02, costPerG: 0.05 }
    const mix = mixOf([
      { ingredient: wet, grams: 20, toastedG: 18 },
      { ingredient: CUMIN, grams: 12 },
    ])
    expect(mix.totalG).toBe(30)
    expect(mix.heat!.low * mix.totalG).toBeCloseTo(20 * 40_000, 6)
    expect(mix.saltG).toBeCloseTo(0.4, 9)
    expect(mix.moisture * mix.totalG).toBeCloseTo(20 * 0.12 - 2 + 12 * 0.06, 9)
    expect([mix.cost, mix.ml.p50]).toEqual([expect.closeTo(20 * 0.05 + 12 * 0.02, 9), expect.closeTo(30 / 0.5, 9)])
    expect(
      mostOf([
        { ingredient: { ...wet, leftG: 40 }, grams: 20, toastedG: 18 },
        { ingredient: CUMIN, grams: 12 },
      ]),
    ).toEqual({ totalG: 60, by: 'hot chili' })
    expect(scaled([{ ingredient: wet, grams: 20, toastedG: 18 }], 9)).toEqual([{ ingredient: wet, grams: 10, toastedG: 9 }])
    expect(() => mixOf([{ ingredient: wet, grams: 20, toastedG: 21 }])).toThrow('parts.0.toastedG')
  })
  it('refuses nothing, and weights that are not above zero, by field', () => {
    expect(() => mixOf([])).toThrow('parts')
    expect(() =>
      mixOf([
        { ingredient: MILD, grams: 5 },
        { ingredient: HOT, grams: 0 },
      ]),
    ).toThrow('parts.1.grams')
  })
  it('is scaled to a weight, or to what the shelf holds', () => {
    const parts = [
      { ingredient: { ...MILD, leftG: 30 }, grams: 10 },
      { ingredient: { ...HOT, leftG: 4 }, grams: 2 },
    ]
    expect(mostOf(parts)).toEqual({ totalG: 24, by: 'hot chili' })
    expect(scaled(parts, 24).map(part => part.grams)).toEqual([20, 4])
  })
})

describe('heat', () => {
  it('is told in words that rise with the units', () => {
    expect([0, 500, 3000, 8000, 50_000, 200_000, 1e6].map(heatWord)).toEqual([
      'not hot',
      'mild',
      'warm',
      'hot',
      'very hot',
      'fierce',
      'dangerously hot',
    ])
    expect([heatWords({ low: 3000, high: 9000 }), heatWords({ low: 6000, high: 9000 }), heatWords(undefined)]).toEqual([
      'warm to hot',
      'hot',
      'not hot',
    ])
    expect([heatFigures({ low: 4123, high: 9480 }), heatFigures({ low: 0, high: 0 })]).toEqual(['4,100 to 9,500', '0'])
    expect(middleHeat({ low: 100, high: 10_000 })).toBe(1000)
  })
  it('comes with cautions from very hot chili on, and with more for the fiercest', () => {
    expect([5000, 50_000, 800_000].map(units => heatCautions(units).length)).toEqual([0, 2, 3])
    expect(heatCautions(50_000)[0]).toMatch(/Gloves/)
  })
  it('every chili of the reference keeps its rating within one order of itself', () => {
    for (const food of [...BOOK.foods, ...BOOK.goods])
      if (food.heatUnits) expect(food.heatUnits.value.high).toBeGreaterThanOrEqual(food.heatUnits.value.low)
  })
})

describe('a blend solved for', () => {
  const ask = (more: Partial<BlendQuestion> = {}): BlendQuestion => ({
    totalG: 100,
    wishes: [
      { ingredient: MILD, share: 0.7 },
      { ingredient: HOT, share: 0.1 },
      { ingredient: CUMIN, share: 0.2 },
    ],
    ...more,
  })
  it('is the recipe itself where nothing stands against it', () => {
    expect(solveBlend(ask(), highs).grams).toEqual([expect.closeTo(70, 4), expect.closeTo(10, 4), expect.closeTo(20, 4)])
  })
  it('meets a wanted heat with the least change, against a fine grid', () => {
    const wanted = 2000
    const answer = solveBlend(ask({ heat: { low: wanted, high: wanted } }), highs)
    expect(answer.heat).toBeCloseTo(wanted, 0)
    const off = (g: readonly number[]) => (g[0]! - 70) ** 2 + (g[1]! - 10) ** 2 + (g[2]! - 20) ** 2
    let best = Infinity
    // On the plane of the whole and the heat one weight is free.
    for (let hot = 0; hot <= 100; hot += 0.002) {
      const mild = (wanted * 100 - 40_000 * hot) / 1000
      const cumin = 100 - mild - hot
      if (mild >= 0 && cumin >= 0) best = Math.min(best, off([mild, hot, cumin]))
    }
    expect(off(answer.grams)).toBeLessThanOrEqual(best + 1e-3)
    expect(off(answer.grams)).toBeGreaterThan(best - 1e-2)
  })
  it('keeps what is held fast and never takes more than the shelf has', () => {
    const answer = solveBlend(
      {
        totalG: 100,
        heat: { low: 3000, high: 3500 },
        wishes: [
          { ingredient: { ...MILD, leftG: 75 }, share: 0.7 },
          { ingredient: HOT, share: 0.1 },
          { ingredient: CUMIN, share: 0.2, fixed: true },
        ],
      },
      highs,
    )
    expect(answer.grams[2]).toBeCloseTo(20, 4)
    expect(answer.grams[0]).toBeLessThanOrEqual(75 + 1e-4)
    expect(answer.heat).toBeGreaterThan(2999)
    expect(answer.heat).toBeLessThan(3501)
  })
  it.each([[{ low: 0, high: 2000 }], [{ low: 5000, high: 9000 }], [undefined]])(
    'with whole spoons is as good as trying them all (heat %j)',
    heat => {
      const steps = [7, 2, 4]
      const question = ask({ totalG: 60, heat, wishes: ask().wishes.map((wish, i) => ({ ...wish, stepG: steps[i] })) })
      const wanted = [42, 6, 12]
      const off = (counts: readonly number[]) => counts.reduce((sum, count, i) => sum + Math.abs(count * steps[i]! - wanted[i]!), 0)
      let best = Infinity
      for (let a = 0; a <= 9; a++)
        for (let b = 0; b <= 31; b++)
          for (let c = 0; c <= 16; c++) {
            const grams = [a * 7, b * 2, c * 4] as const
            const total = grams[0] + grams[1] + grams[2]
            if (total < 60 * 0.94 || total > 60 * 1.06) continue
            const units = (grams[0] * 1000 + grams[1] * 40_000) / total
            if (!heat || (units >= heat.low && units <= heat.high)) best = Math.min(best, off([a, b, c]))
          }
      const answer = solveBlend(question, highs)
      answer.grams.forEach((grams, i) => expect(grams % steps[i]!).toBe(0))
      expect(answer.grams.reduce((sum, grams, i) => sum + Math.abs(grams - wanted[i]!), 0)).toBeCloseTo(best, 6)
    },
  )
  it('keeps salt below what is wanted', () => {
    const answer = solveBlend(
      {
        totalG: 100,
        saltMost: 0.1,
        wishes: [
          { ingredient: CUMIN, share: 0.6 },
          { ingredient: SALT, share: 0.4 },
        ],
      },
      highs,
    )
    expect(answer.grams[1]).toBeCloseTo(10, 3)
  })
  it.each<[Partial<BlendQuestion>, string]>([
    [{ heat: { low: 60_000, high: 70_000 } }, 'Nothing in it is that hot'],
    [{ totalG: 5000 }, 'make less'],
    [{ totalG: 0 }, 'totalG'],
    [{ heat: { low: 500, high: 100 } }, 'heat'],
    [{ wishes: [] }, 'parts'],
    [{ heat: { low: 9000, high: 9000 }, wishes: ask().wishes.map((wish, i) => ({ ...wish, fixed: i !== 2 })) }, 'let more give way'],
  ])('says what stands in the way: %j', (more, words) => {
    expect(() => solveBlend(ask(more), highs)).toThrow(InputError)
    expect(() => solveBlend(ask(more), highs)).toThrow(words)
  })
})

describe('a blend in a jar', () => {
  const lot = (key: string, more: Partial<Lot> = {}): Lot => ({
    food: BOOK.product(key)!,
    purpose: 'powder',
    rested: true,
    moisture: 0.06,
    ...more,
  })
  const LOTS: Record<string, Lot> = {
    chili: lot('hot-chili', { moisture: 0.08 }),
    'jar-cumin': lot('cumin', { moisture: 0.08, bestTo: MORNING + 200 * DAY }),
    'jar-salt': lot('salt', { moisture: 0.002 }),
  }
  const find: FindLot = id => LOTS[id]
  let seq = 0
  const item = (days: number, body: JarItem['body'], batchId?: string): JarItem => ({
    id: `e${++seq}`,
    seq,
    at: MORNING + days * DAY,
    recordedAt: MORNING + days * DAY,
    body,
    batchId,
  })
  const stock = (jarId: string, foodKey: string, netG: number): JarItem =>
    item(1, { kind: 'stock', jarId, foodKey, purpose: 'powder', netG, packageKey: 'screw-jar', place: 'Spice drawer' })
  const started = () => [
    item(0, { kind: 'pack', jarId: 'jar-chili', netG: 100, packageKey: 'screw-jar', place: 'Shelf' }, 'chili'),
    stock('jar-cumin', 'cumin', 50),
    stock('jar-salt', 'salt', 500),
  ]
  const blend = (more: object = {}) =>
    item(5, {
      kind: 'fill',
      jarId: 'mix',
      packageKey: 'screw-jar',
      place: 'Shelf',
      from: [
        { jarId: 'jar-chili', weightG: 40 },
        { jarId: 'jar-cumin', weightG: 20, toastedG: 19 },
        { jarId: 'jar-salt', weightG: 10 },
      ],
      blend: { name: 'Red rub', sifted: { openingUm: 500, overG: 3.45 } },
      ...more,
    })

  it('loses water by toasting and a share of all by the sieve, and no gram else', () => {
    const { jars } = replayJars([...started(), blend()], find, true)
    const mix = jars.get('mix')!
    expect(mix.leftG).toBeCloseTo(69 - 3.45, 9)
    expect(mix.parts.reduce((sum, part) => sum + part.grams, 0)).toBeCloseTo(mix.leftG, 9)
    expect(jars.get('jar-chili')!.leftG + jars.get('jar-cumin')!.leftG + jars.get('jar-salt')!.leftG).toBeCloseTo(650 - 70, 9)
    const cumin = mix.parts.find(part => part.lotId === 'jar-cumin')!
    // 20 g held 1.6 g of water, a gram of which is gone.
    expect(cumin.moisture).toBeCloseTo(0.6 / 19, 9)
    expect(moistureOf(mix)).toBeLessThan(0.06)
    expect([mix.name, mix.sievedUm, mix.purpose]).toEqual(['Red rub', 500, 'powder'])
  })
  it('keeps heat and salt by weight, is as old as its oldest part, and ends with the first printed date', () => {
    const { jars } = replayJars([...started(), blend({ blend: { name: 'Red rub' } })], find, true)
    const mix = jars.get('mix')!
    const content = contentOf(mix, find)
    const { low, high } = findFood('hot-chili')!.heatUnits!.value
    expect(content.heat!.low * mix.leftG).toBeCloseTo(40 * low, 3)
    expect(content.heat!.high * mix.leftG).toBeCloseTo(40 * high, 3)
    expect(content.saltShare * mix.leftG).toBeCloseTo(10, 9)
    expect(jarBest(mix, find, { celsius: 20 })).toMatchObject({ oldestAt: MORNING })
    expect(jarBest(mix, find, { celsius: 20 }).to).toBeLessThanOrEqual(MORNING + 200 * DAY)
  })
  it('keeps the heat of what was toasted first: water leaves, chili does not', () => {
    const rub = blend({
      from: [
        { jarId: 'jar-chili', weightG: 40, toastedG: 38 },
        { jarId: 'jar-cumin', weightG: 22 },
      ],
      blend: { name: 'Red rub' },
    })
    const mix = replayJars([...started(), rub], find, true).jars.get('mix')!
    expect(mix.leftG).toBeCloseTo(60, 9)
    expect(contentOf(mix, find).heat!.high * mix.leftG).toBeCloseTo(40 * findFood('hot-chili')!.heatUnits!.value.high, 3)
  })
  it('can be split and topped up with its own kind, which keeps its name', () => {
    const split = item(6, { kind: 'fill', jarId: 'mix-2', packageKey: 'screw-jar', place: 'Shelf', from: [{ jarId: 'mix', weightG: 20 }] })
    const { jars } = replayJars([...started(), blend(), split], find, true)
    expect(jars.get('mix-2')).toMatchObject({ name: 'Red rub', foodKey: jars.get('mix')!.foodKey })
  })
  it('refuses a toasting that would drive out more than the water there was', () => {
    const wrong = blend({ from: [{ jarId: 'jar-cumin', weightG: 20, toastedG: 15 }] })
    expect(() => replayJars([...started(), wrong], find, true)).toThrow('from.toastedG')
  })
  it('has the colour of its parts by weight', () => {
    expect(
      mixedColour([
        { grams: 1, colour: '#FF0000' },
        { grams: 3, colour: '#0000FF' },
      ]),
    ).toBe('#4000BF')
  })
})

describe('allergens', () => {
  it('are said as known, possible and unknown; what a packet says takes the unknown away', () => {
    expect(allergenWords([])).toBe('')
    expect(allergenWords(['celery', 'milk'])).toBe('Contains celery, milk.')
    expect(allergenWords(['gluten', 'may contain egg', 'unknown: ask the cook'])).toBe(
      'Contains gluten. May contain egg. Allergens unknown: ask the cook.',
    )
    expect(allergensOfLot(['unknown: see its packet'], ['sesame'])).toEqual(['sesame'])
    expect(allergensOfLot(['unknown: see its packet'], undefined)).toEqual(['unknown: see its packet'])
    expect(allergensOfLot(['milk', 'unknown: ask the cook'], ['milk', 'unknown: ask the cook'])).toEqual(['milk', 'unknown: ask the cook'])
  })
})
