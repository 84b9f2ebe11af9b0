import { cardOf } from '#core/foods'
import { learnedHours, learnHours, type FinishedRun, type LoadAsked } from '#core/learning'
import { envelopeOf, factor, solve } from '#core/learning/cholesky'
import { randomSource } from '#core/stats'
import { cutFactor } from '#core/hours'
import { findFood } from '../../support/foods'
import { HOUSEHOLDS, toldAfter } from '../../support/households'

const card = cardOf(findFood('beetroot')!, 'slices-3')
const usual = card.usualHours.value
const LOAD: LoadAsked = { machine: 'cabinet', food: 'beetroot', family: 'root', card: 'slices-3' }
const runs = (count: number, pace: number, more: Partial<FinishedRun> = {}): FinishedRun[] =>
  Array.from({ length: count }, () => ({ ...LOAD, pace, ...more }))
const middle = ({ low, high }: { low: number; high: number }) => Math.sqrt(low * high)

describe('hours ahead', () => {
  it('are the card’s until a run has finished, by the thickness in hand', () => {
    expect(learnedHours(usual, learnHours([]), LOAD)).toEqual({ ...usual, runs: 0, by: 'card' })
    const thick = learnedHours(usual, learnHours([]), LOAD, { factor: 1.5 })
    expect(middle(thick)).toBeCloseTo(1.5 * middle(usual), 9)
    const factorOf = (foodKey: string, cardKey: string, thicknessMm?: number, more: object = {}) => {
      const food = findFood(foodKey)!
      return cutFactor({ food, card: cardOf(food, cardKey), thicknessMm, purpose: 'pieces', choices: {}, ...more })
    }
    // Of one thickness only: about in proportion (common practice), never beyond two and a half times.
    expect(factorOf('parsnip', 'slices-3', 3)).toBe(1)
    expect(factorOf('parsnip', 'slices-3', 6)).toBeCloseTo(2, 6)
    expect(factorOf('parsnip', 'slices-3')).toBe(1)
    expect(factorOf('parsnip', 'slices-3', 100)).toBe(2.5)
    // Of two: cut at the other's thickness it takes the other's hours.
    const beet = findFood('beetroot')!
    const hours = (key: string) => middle(cardOf(beet, key).usualHours.value)
    expect(factorOf('beetroot', 'slices-3', 6)).toBeCloseTo(hours('slices-6') / hours('slices-3'), 2)
    // Fruit's hours are until it is pliable: powder takes longer, and not in a freeze dryer.
    expect(factorOf('apple', 'rings-5', 5, { purpose: 'powder' })).toBeCloseTo(1.6, 6)
    expect(cutFactor({ food: findFood('apple')!, card, thicknessMm: undefined, purpose: 'powder', choices: {} }, 'freeze-dryer')).toBe(1)
    expect(factorOf('beetroot', 'slices-3', 3, { purpose: 'powder' })).toBe(1)
    // As it was chosen to be done.
    expect(factorOf('grape', 'whole', 14, { choices: { crackSkin: 'whole' } })).toBe(2)
  })
  it('move to what the runs took, and narrow, but never to nothing', () => {
    const after = (count: number) => learnedHours(usual, learnHours(runs(count, 1.3)), LOAD)
    expect(middle(after(1)) / middle(usual)).toBeGreaterThan(1.08)
    expect(middle(after(1)) / middle(usual)).toBeLessThan(1.28)
    expect(middle(after(12)) / middle(usual)).toBeCloseTo(1.3, 1)
    expect(after(12).high / after(12).low).toBeLessThan(after(1).high / after(1).low)
    expect(after(60).high / after(60).low).toBeGreaterThan(1.2)
  })
  it('of a machine and a food that no run is of are the card’s, whatever others took', () => {
    const learned = learnHours(runs(12, 1.6, { cutBy: 'Wren' }))
    const apart = { machine: 'freezer', food: 'freeze-dryer apple', family: 'freeze-dryer orchard', card: 'slices', cutBy: 'Wren' }
    expect(learnedHours(usual, learned, apart)).toEqual({ ...usual, runs: 0, by: 'card' })
    expect(learnedHours(usual, learned, { ...apart, family: 'root' }).runs).toBe(12)
  })
  it('say what they know and from what', () => {
    const learned = learnHours([
      ...runs(6, 1.5, { food: 'onion', family: 'allium' }),
      ...runs(6, 1.3, { cutBy: 'Wren' }),
      ...runs(4, 1.3, { food: 'pear', family: 'orchard' }),
    ])
    const told = learnedHours(usual, learned, { ...LOAD, cutBy: 'Wren' })
    expect(told.runs).toBe(16)
    expect(told.machine).toMatchObject({ runs: 16 })
    expect(told.machine!.factor.p10).toBeGreaterThan(1.05)
    expect(told.food).toMatchObject({ runs: 6 })
    expect(told.person).toMatchObject({ runs: 6 })
    expect(learned.effectOf('food', 'onion')!.factor.p50).toBeGreaterThan(told.food!.factor.p50)
    expect(learnedHours(usual, learned, { ...LOAD, machine: 'another', cutBy: 'Nobody' })).toMatchObject({
      machine: undefined,
      person: undefined,
    })
    expect(learned.effectOf('family', 'citrus')).toBeUndefined()
  })
  it('claim a slow machine only when its runs show it', () => {
    const machine = (count: number) => learnHours(runs(count, 1.2)).effectOf('machine', 'cabinet')!.factor
    expect(machine(1).p10).toBeLessThan(1)
    const several = learnHours(['beetroot', 'leek', 'apple', 'pear'].flatMap(food => runs(4, 1.3, { food, family: food })))
    expect(several.effectOf('machine', 'cabinet')!.factor.p10).toBeGreaterThan(1.05)
  })
  it('hardly heed one run that is far off all others, and doubtful ones less than sure ones', () => {
    const others = runs(8, 1)
    const told = (more: FinishedRun[]) => learnHours([...more, ...others]).next(LOAD)
    expect(told(runs(1, 2.5)).p50).toBeLessThan(1.06)
    expect(told(runs(1, 1.25, { doubt: 0.4 })).p50).toBeLessThan(told(runs(1, 1.25, { doubt: 0.02 })).p50)
  })
  it('go by the newest runs of a machine', () => {
    const told = (list: FinishedRun[]) => learnHours(list).next(LOAD).p50
    const now = runs(8, 1.5)
    const then = runs(30, 1)
    expect(told([...now, ...then])).toBeGreaterThan(told([...then, ...now]) + 0.2)
    // What lies sixty runs back is not read.
    expect(told([...runs(60, 1.2), ...runs(500, 3)])).toBeCloseTo(told(runs(60, 1.2)), 9)
  })
  it('do not depend on the order of what stands apart', () => {
    const a = runs(3, 1.2)
    const b = runs(3, 0.9, { machine: 'oven', food: 'apple', family: 'orchard' })
    const [one, other] = [learnHours([...a, ...b]).next(LOAD), learnHours([...b, ...a]).next(LOAD)]
    expect(one.p50).toBeCloseTo(other.p50, 9)
    expect(one.p90).toBeCloseTo(other.p90, 9)
  })
})

/**
 * Households that share nothing with the fit but that hours multiply. The median error at most, after three runs and after twelve.
 * Beside them a plain hierarchical Bayes on like households, where it was tried: 0.10, 0.10; 0.10, 0.10; 0.11, 0.10; 0.24, 0.13;
 * others after one odd food 0.21, 0.24 (no learning: 0.10); that food elsewhere 0.38, 0.20; leek 0.36, 0.34; erratic 0.29, 0.28.
 */
describe('what households learn', () => {
  it.each<[string, number, number]>([
    ['cards right', 0.11, 0.13],
    ['machine 1.5 times slower', 0.13, 0.1],
    ['machine twice as slow', 0.13, 0.1],
    ['machine twice as slow, a new food', 0.27, 0.17],
    ['one food at 0.6, alone: others', 0.12, 0.12],
    ['one food at 1.6, alone: others', 0.23, 0.3],
    ['an odd food among others: others', 0.11, 0.11],
    ['an odd food among others: that food', 0.23, 0.1],
    ['a machine at 0.75', 0.15, 0.11],
    ['one cut slow', 0.24, 0.15],
    ['that food in another machine', 0.16, 0.13],
    ['leek after onions, family at 0.65', 0.2, 0.17],
    ['two machines apart', 0.22, 0.12],
    ['a second cutter, thick', 0.2, 0.12],
    ['the first cutter meanwhile', 0.11, 0.13],
    ['one run of 2.5', 0.27, 0.13],
    ['erratic', 0.24, 0.26],
  ])('%s', (kind, atThree, atTwelve) => {
    expect(Object.keys(HOUSEHOLDS)).toContain(kind)
    for (const [count, most] of [
      [3, atThree],
      [12, atTwelve],
    ] as const) {
      const { held, error } = toldAfter(kind, count)
      expect(error).toBeLessThan(most)
      expect(held).toBeGreaterThan(kind === 'one cut slow' && count === 3 ? 0.6 : 0.66)
      // Three runs, one of them far off, may tell of a household that is like that.
      expect(held).toBeLessThanOrEqual(count === 3 ? 1 : 0.985)
    }
  })
  it('a machine that has become slower is followed within eight runs', () => {
    const [before, after] = [toldAfter('slower since eight runs', 31), toldAfter('slower since eight runs', 38)]
    expect(after.error).toBeLessThan(0.6 * before.error)
  })
})

describe('Cholesky’s factor', () => {
  it('solves what it was made of, within whatever envelope (property over random matrices)', () => {
    const source = randomSource(5)
    for (let turn = 0; turn < 30; turn++) {
      const size = source.integer(1, 12)
      // A lower triangle whose rows begin somewhere: its product with itself has the same envelope.
      const first = Int32Array.from({ length: size }, (_, i) => source.integer(0, i))
      const root = Array.from({ length: size }, (_, i) =>
        Array.from({ length: size }, (__, j) => (j < first[i]! || j > i ? 0 : i === j ? 1 + source.uniform() : source.normal())),
      )
      const whole = root.map(row => root.map(other => row.reduce((sum, value, k) => sum + value * other[k]!, 0)))
      const envelope = envelopeOf(first)
      const kept = new Float64Array(envelope.kept)
      whole.forEach((row, i) => row.forEach((value, j) => j >= first[i]! && j <= i && (kept[envelope.start[i]! + j] = value)))
      const x = Float64Array.from({ length: size }, () => source.normal())
      const right = Float64Array.from(whole, row => row.reduce((sum, value, j) => sum + value * x[j]!, 0))
      solve(factor(envelope, kept), right).forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 6))
    }
  })
  it('knows the determinant, and refuses what has none', () => {
    const two = envelopeOf(Int32Array.of(0, 0))
    expect(factor(two, Float64Array.of(4, 2, 3)).halfLogDeterminant).toBeCloseTo(0.5 * Math.log(8), 12)
    expect(() => factor(two, Float64Array.of(1, 2, 1))).toThrow(RangeError)
  })
})
