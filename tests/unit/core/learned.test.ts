import { usualHoursFactor } from '#core/water'
import { cardOf } from '#core/foods'
import { estimateDrying } from '#core/kinetics'
import { learnedHours, machinePace, type PastRun } from '#core/planning'
import { randomSource } from '#core/stats'
import { makeTestRuns, weighUpTo } from '../../support/dryingRuns'
import { findFood } from '../../support/foods'

const card = cardOf(findFood('beetroot')!, 'slices-3')
const { low, high } = card.usualHours.value
const past = (paces: number[], sameCard = true): PastRun[] => paces.map(pace => ({ pace, sameCard }))
const middle = (hours: { low: number; high: number }) => Math.sqrt(hours.low * hours.high)

describe('learning from finished runs', () => {
  it('starts at the card', () => {
    const hours = learnedHours(card, [])
    expect(hours.low).toBeCloseTo(low, 6)
    expect(hours.high).toBeCloseTo(high, 6)
    expect(hours.machinePace.p50).toBe(1)
  })
  it('moves to the machine’s own pace as runs come in, slowly at first', () => {
    const after = (count: number) =>
      middle(learnedHours(card, past(Array.from({ length: count }, () => 1.3)))) / middle(card.usualHours.value)
    expect(after(1)).toBeGreaterThan(1.04)
    expect(after(1)).toBeLessThan(1.2)
    expect(after(3)).toBeGreaterThan(after(1))
    expect(after(30)).toBeCloseTo(1.3, 1)
  })
  it('takes from other foods what they say of the machine, and less than from its own', () => {
    const others = learnedHours(card, past([1.3, 1.3, 1.3, 1.3], false))
    const own = learnedHours(card, past([1.3, 1.3, 1.3, 1.3]))
    expect(middle(others)).toBeGreaterThan(1.1 * middle(card.usualHours.value))
    expect(middle(others)).toBeLessThan(middle(own))
  })
  it('scales the card by the thickness in hand, between 1 and 2 powers of it (common practice)', () => {
    expect(usualHoursFactor({ card, thicknessMm: card.thicknessMm })).toBe(1)
    const twice = usualHoursFactor({ card, thicknessMm: 2 * card.thicknessMm! })
    expect(twice).toBeGreaterThan(2)
    expect(twice).toBeLessThan(4)
    expect(usualHoursFactor({ card, thicknessMm: undefined })).toBe(1)
    expect(usualHoursFactor({ card, thicknessMm: 100 })).toBe(2.5)
    expect(middle(learnedHours(card, [], { factor: 1.5 }))).toBeCloseTo(1.5 * middle(card.usualHours.value), 6)
  })
  it('knows that one person cuts thicker, a little at first, and says so only of who cut', () => {
    const seen = (count: number) => [
      ...past(
        Array.from({ length: count }, () => 1.2),
        false,
      ).map(run => ({ ...run, cutBy: 'Wren' })),
      ...past(
        Array.from({ length: count }, () => 0.9),
        false,
      ).map(run => ({ ...run, cutBy: 'Tobin' })),
    ]
    const by = (cutBy: string | undefined, count = 6) => learnedHours(card, seen(count), { cutBy })
    expect(middle(by('Wren'))).toBeGreaterThan(1.05 * middle(by(undefined)))
    expect(middle(by('Tobin'))).toBeLessThan(0.95 * middle(by(undefined)))
    expect(by('Wren').person).toMatchObject({ name: 'Wren', runs: 6 })
    expect(by('Wren', 1).person!.pace.p50).toBeLessThan(by('Wren').person!.pace.p50)
    expect(by('Somebody').person).toBeUndefined()
  })
  it('narrows with runs that agree, and never to nothing', () => {
    const own = learnedHours(card, past(Array.from({ length: 25 }, () => 1)))
    expect(own.high / own.low).toBeLessThan(high / low)
    expect(own.high / own.low).toBeGreaterThan(1.25)
  })
  it('claims a slow machine only when the runs show it', () => {
    expect(machinePace([1.2]).p10).toBeLessThan(1)
    expect(machinePace(Array.from({ length: 12 }, () => 1.2)).p10).toBeGreaterThan(1)
    expect(() => machinePace([0])).toThrow('history.0')
  })
  it('pays: in a machine a quarter slower than the cards the first guess and the window improve', () => {
    const runs = makeTestRuns(3, 71)
    const source = randomSource(3)
    const slow = 1.25
    const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
    const miss = (usual: (hours: { low: number; high: number }) => { low: number; high: number }) =>
      median(
        runs.map(run => {
          const { hoursToTarget } = estimateDrying({
            ...run.known,
            usualHours: usual(run.known.usualHours),
            weighIns: weighUpTo(run, 0.25, 1).map(({ hours, weightG }) => ({ hours: slow * hours, weightG })),
          })
          return Math.abs(hoursToTarget.p50 / (slow * run.trueFinishH) - 1)
        }),
      )
    const seen = past(
      Array.from({ length: 8 }, () => slow * Math.exp(0.15 * source.normal())),
      false,
    )
    const learned = miss(hours => learnedHours({ ...card, usualHours: { value: hours, source: 'test' } }, seen))
    expect(learned).toBeLessThan(0.85 * miss(hours => hours))
  })
})
