import { cardOf } from '#core/foods'
import { jarTakesG } from '#core/keeping'
import { estimateDrying } from '#core/kinetics'
import { learnBasket, type BasketLesson } from '#core/learning'
import { forecastBasket } from '#core/planning'
import { Rack, RestingJar } from '#core/simulation'
import { equilibriumIn, isothermOf, lowestMoisture } from '#core/sorption'
import { CARROTS } from '../../support/carrotRack'
import { makeTestRuns, weighUpTo } from '../../support/dryingRuns'
import { findFood } from '../../support/foods'
import { HOUSEHOLD, MORNING } from '../../support/logbook'

/** Single figures worked out a second time by hand: a sign, an end or a factor that is wrong shows here, and nowhere as clearly. */
const ROOM = { celsius: 21, humidity: 0.5 }

it('the lowest water of a room is its equilibrium, told wet basis, with the isotherm’s spread about it', () => {
  const isotherm = isothermOf(findFood('carrot')!)
  const { mean } = equilibriumIn(isotherm, ROOM, 57)
  const { p10, p50, p90 } = lowestMoisture(equilibriumIn(isotherm, ROOM, 57))
  const dryBasis = (wet: number) => wet / (1 - wet)
  expect(dryBasis(p50)).toBeCloseTo(mean, 9)
  // Of a normal distribution 10 % lie beyond 1.2816 standard deviations (from memory).
  expect(Math.log(dryBasis(p90) / dryBasis(p10))).toBeCloseTo(2 * 1.2816 * isotherm.sdLog, 3)
})

it('jars hold what there is, and one fewer would not', () => {
  const food = findFood('tomato')!
  const jarMl = 20
  const { jars, productG } = forecastBasket({
    food,
    card: cardOf(food, 'slices-6'),
    purpose: 'powder',
    weightG: 20_000,
    machine: { trays: 6, trayAreaM2: 0.1, watts: 600 },
    jarMl,
    startAt: MORNING,
    household: HOUSEHOLD,
  })
  const inOne = jarTakesG(food.powderDensity.value.mean, 'powder', jarMl)
  expect(jars.p50).toBeGreaterThan((0.9 * productG.p50) / inOne)
  expect(jars.p50).toBeLessThan((1.1 * productG.p50) / inOne + 1)
})

it('of a scale that writes all the time sixty weighings are followed, the first and the last among them', () => {
  const [run] = makeTestRuns(1, 31)
  const all = weighUpTo(run!, 0.9, 150)
  const of = (weighIns: typeof all) => estimateDrying({ ...run!.known, seed: run!.seed, weighIns })
  const picked = Array.from({ length: 60 }, (_, i) => all[Math.round((i * 149) / 59)]!)
  expect(of(all).moistureNow).toEqual(of(picked).moistureNow)
  expect(of(all).moistureNow).not.toEqual(of(all.slice(0, 60)).moistureNow)
})

describe('a closed jar', () => {
  const dried = () => {
    const rack = new Rack({ ...CARROTS, trayWeightsG: [400, 400] })
    rack.advance(7, { setC: 57, room: ROOM })
    return rack
  }
  const jarred = () => {
    const { trays } = dried()
    return { trays, jar: new RestingJar(trays, 3, x => Math.min(1, x / 0.3), 0.2) }
  }

  it('keeps its water: what one piece gives another takes, and the lid lets in the rest', () => {
    for (const gPerDayKPa of [0, 0.5]) {
      const { jar } = jarred()
      const before = jar.waterG
      jar.advance(60, { pantry: { celsius: 20, humidity: 0.6 }, gPerDayKPa })
      expect(jar.waterG + jar.owed).toBeCloseTo(before + jar.entered, 6)
      expect(jar.entered === 0).toBe(gPerDayKPa === 0)
    }
  })
  it('makes all even: its wettest piece is the wettest of all, and comes to the mean', () => {
    const { trays, jar } = jarred()
    const wettest = () => Math.max(...trays.flatMap(({ pieces }) => pieces.map(({ piece }) => piece.meanX)))
    expect(jar.wettestX).toBe(wettest())
    const apart = jar.wettestX - jar.meanX
    expect(apart).toBeGreaterThan(0.01)
    jar.advance(24 * 10, { pantry: ROOM, gPerDayKPa: 0 })
    expect(jar.wettestX).toBe(wettest())
    expect(jar.wettestX - jar.meanX).toBeLessThan(0.3 * apart)
  })
  it('counts the hours that were let go by, in steps that come out even', () => {
    const { jar } = jarred()
    jar.advance(0.7, { pantry: ROOM, gPerDayKPa: 0 })
    expect(jar.hours).toBeCloseTo(0.7, 9)
    jar.advance(100.1, { pantry: ROOM, gPerDayKPa: 0 })
    expect(jar.hours).toBeCloseTo(100.8, 9)
    const [once, twice] = [jarred().jar, jarred().jar]
    once.advance(6, { pantry: ROOM, gPerDayKPa: 0 })
    for (let i = 0; i < 3; i++) twice.advance(2, { pantry: ROOM, gPerDayKPa: 0 })
    expect(once.waterG).toBeCloseTo(twice.waterG, 9)
  })
})

describe('what a household’s own lots teach', () => {
  const lot = (log: number, more: Partial<BasketLesson> = {}): BasketLesson => ({
    dry: { log, doubt: 0.02 },
    prep: { log, doubt: 0.02 },
    solids: { log, doubt: 0.02 },
    recovery: { log, doubt: 0.01 },
    card: 'slices-3',
    path: '',
    purpose: 'powder',
    ...more,
  })
  const SPREAD = { solids: 0.12, prep: 0.05 }
  const up = Math.log(1.2)

  it('one lot moves the next a part of its way, many nearly all of it', () => {
    const after = (count: number) =>
      learnBasket(
        Array.from({ length: count }, () => lot(up)),
        SPREAD,
      ).dry('slices-3')!
    expect(after(1).factor.p50).toBeGreaterThan(1.1)
    expect(after(1).factor.p50).toBeLessThan(1.19)
    expect(after(20).factor.p50).toBeCloseTo(1.2, 1)
    expect(after(20).factor.p50).toBeGreaterThan(after(1).factor.p50)
    expect(after(20).lots).toBe(20)
    // Two lots of one garden differ by about 5 % (common practice): the next is never told closer than that.
    const { p10, p90 } = after(20).factor
    expect(Math.log(p90 / p10) / (2 * 1.2816)).toBeGreaterThan(0.03)
    expect(Math.log(p90 / p10) / (2 * 1.2816)).toBeLessThan(0.12)
  })
  it('hands repeat themselves: what the knife leaves is told closer than what dries', () => {
    const learned = learnBasket(
      Array.from({ length: 8 }, () => lot(0.05)),
      SPREAD,
    )
    const width = ({ p10, p90 }: { p10: number; p90: number }) => Math.log(p90 / p10)
    expect(width(learned.prep('slices-3')!.factor)).toBeLessThan(width(learned.dry('slices-3')!.factor))
  })
  it('a step that takes water off is of its own path, and the newest path of a card is the next one’s', () => {
    const roasted = Array.from({ length: 6 }, () => lot(Math.log(0.7), { path: 'roast' }))
    const plain = Array.from({ length: 6 }, () => lot(0))
    expect(learnBasket([...plain, ...roasted], SPREAD).prep('slices-3')!.factor.p50).toBeCloseTo(1, 1)
    expect(learnBasket([...roasted, ...plain], SPREAD).prep('slices-3')!.factor.p50).toBeCloseTo(0.7, 1)
  })
  it('nothing was weighed: nothing is taught', () => {
    const learned = learnBasket([{ card: 'slices-3', path: '', purpose: 'powder' }], SPREAD)
    expect([learned.dry('slices-3'), learned.prep('slices-3'), learned.recovery('powder')]).toEqual([undefined, undefined, undefined])
  })
})
