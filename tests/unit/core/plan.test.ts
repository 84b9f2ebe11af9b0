import fc from 'fast-check'
import { improvingPlans, type Plan, type PlanBasket, type PlanOption, type PlanProblem } from '#core/plan'
import { asleepShare, basket, broken, DAY, HOUR, machine, MINUTE, MONDAY, option, planned, problem, wakes } from '../../support/plans'

describe('a plan', () => {
  it('of one basket begins when it can and wakes nobody', () => {
    const { plan, worth } = planned(problem([basket('a')]))
    expect(plan.lost).toEqual([])
    expect(worth.wakings).toBe(0)
    const [run] = plan.runs
    expect(wakes(option(), run!.startAt)).toBe(false)
    // The first half hour after the knife that ends by day: 07:40 ends from half past three to eight in the evening.
    expect(run!.startAt).toBe(MONDAY + HOUR)
    expect(run!.prepareAt).toBe(run!.startAt - 40 * MINUTE)
    expect(run!.ends).toEqual({ p10: run!.startAt + 8 * HOUR, p50: run!.startAt + 10 * HOUR, p90: run!.startAt + 12 * HOUR })
  })
  it('lets what is long run through the night rather than end in it', () => {
    const long = option({ hours: { p10: 12, p50: 14, p90: 16 } })
    const { plan, worth } = planned(problem([basket('a', { options: [long] })]))
    expect(worth.wakings).toBe(0)
    expect(wakes(long, plan.runs[0]!.startAt)).toBe(false)
    // Any start of the morning would end at night.
    expect((plan.runs[0]!.startAt - MONDAY) / HOUR).toBeGreaterThan(8)
  })
  it('gives the place to what spoils first, and says what is lost and why', () => {
    const two = [
      basket('patient', { keepsUntil: MONDAY + 6 * DAY, options: [option({ places: 9 })] }),
      basket('urgent', { keepsUntil: MONDAY + 6 * HOUR, options: [option({ places: 9 })] }),
    ]
    const { plan } = planned(problem(two))
    expect(plan.lost).toEqual([])
    expect(plan.runs[0]!.basketId).toBe('urgent')
    const crowd = Array.from({ length: 4 }, (_, i) =>
      basket(`b${i}`, { keepsUntil: MONDAY + 5 * HOUR, weightG: 1000 * (i + 1), options: [option({ places: 5 })] }),
    )
    const { plan: short, worth } = planned(problem(crowd))
    // One place: the heaviest stays.
    expect(short.runs.map(run => run.basketId)).toEqual(['b3'])
    expect(worth.lostG).toBe(6000)
    expect(short.lost.every(item => item.why === 'no-place')).toBe(true)
  })
  it('names what stands in the way: no machine, too late, no hands', () => {
    const why = (asked: PlanProblem) => planned(asked).plan.lost[0]?.why
    expect(why(problem([basket('a', { options: [option({ places: 12 })] })]))).toBe('no-option')
    expect(why(problem([basket('a', { options: [option({ machineId: 'none' })] })]))).toBe('no-option')
    expect(why(problem([basket('a', { keepsUntil: MONDAY + 20 * MINUTE })]))).toBe('too-late')
    expect(why(problem([basket('a')], { handsMinutesADay: 30 }))).toBe('no-hands')
    expect(why(problem([basket('a')], { away: [{ from: MONDAY, to: MONDAY + 4 * DAY }] }))).toBe('too-late')
  })
  it('keeps smells, heats and full machines apart', () => {
    const mild = basket('mild')
    const onion = basket('onion', { smell: true })
    const cool = basket('herbs', { options: [option({ places: 3, heat: { lowC: 35, highC: 42 } })] })
    const asked = problem([mild, onion, cool])
    const { plan } = planned(asked)
    expect(plan.lost).toEqual([])
    expect(broken(asked, plan)).toEqual([])
    const together = planned(problem([mild, basket('also mild', { options: [option({ places: 4 })] })])).plan.runs
    expect(together[0]!.startAt).toBe(together[1]!.startAt)
    const full = planned(problem([mild], { machines: [machine({ busy: [{ from: MONDAY - DAY, to: MONDAY + 5 * HOUR, places: 9 }] })] }))
      .plan.runs
    expect(full[0]!.startAt).toBeGreaterThanOrEqual(MONDAY + 5 * HOUR)
  })
  it('watches an oven, and lets the sun end when it likes', () => {
    const oven = machine({ id: 'oven', places: 4, attended: true })
    const inOven = option({ machineId: 'oven', places: 4, hours: { p10: 5, p50: 6, p90: 7 } })
    const { plan } = planned(
      problem([basket('a', { options: [inOven] })], { machines: [oven], away: [{ from: MONDAY + 2 * HOUR, to: MONDAY + 10 * HOUR }] }),
    )
    expect(plan.runs[0]!.startAt).toBeGreaterThan(MONDAY + 10 * HOUR)
    const sun = machine({ id: 'sun', endsAlone: true })
    const { worth } = planned(
      problem([basket('a', { options: [option({ machineId: 'sun', hours: { p10: 30, p50: 40, p90: 52 } })] })], { machines: [sun] }),
    )
    expect(worth.wakings).toBe(0)
  })
  it('is the same for the same seed, and never worse for more time', () => {
    const asked = problem(
      Array.from({ length: 9 }, (_, i) =>
        basket(`b${i}`, { keepsUntil: MONDAY + (1 + (i % 3)) * DAY, options: [option({ places: 3 + (i % 4) })] }),
      ),
    )
    const run = (seed: number, rounds: number) => [...improvingPlans(asked, { seed, rounds })]
    expect(run(3, 60)).toEqual(run(3, 60))
    const costs = run(5, 200).map(step => step.cost)
    expect(costs).toEqual([...costs].sort((a, b) => b - a))
  })
  it('refuses what contradicts itself, by field and with the mend', () => {
    const words = (more: Partial<PlanProblem>, baskets = [basket('a')]) => {
      try {
        planned(problem(baskets, more))
        return ''
      } catch (error) {
        return (error as Error).message
      }
    }
    expect(words({ until: MONDAY - DAY })).toMatch(/^until: The plan must end after it begins/)
    expect(words({ until: MONDAY + 40 * DAY })).toMatch(/At most three weeks/)
    expect(words({ machines: [machine({ places: 0 })] })).toMatch(/machines\.0\.places: A machine needs at least one place/)
    expect(words({}, [basket('a', { keepsUntil: MONDAY - DAY })])).toMatch(/baskets\.0\.keepsUntil/)
    expect(words({}, [basket('a', { options: [option({ hours: { p10: 5, p50: 4, p90: 6 } })] })])).toMatch(/baskets\.0\.options\.0\.hours/)
    expect(
      words(
        {},
        Array.from({ length: 301 }, (_, i) => basket(`b${i}`)),
      ),
    ).toMatch(/At most 300 baskets/)
    expect(words({ handsMinutesADay: Number.NaN })).toMatch(/handsMinutesADay/)
  })
})

describe('held against others', () => {
  /** Every way of putting so few baskets on starts of four hours, by the checker alone: the least cost there is. */
  function bruteForce(asked: PlanProblem, starts: number[]): number {
    const cost = (item: PlanBasket, way: PlanOption, startAt: number) =>
      (wakes(way, startAt) ? 20_000 : 0) +
      1000 * asleepShare(way, startAt) +
      (startAt - item.readyAt) / HOUR +
      way.hours.p50 +
      4 * way.kWh +
      (2 * way.handsMinutes) / 60
    const empty: Plan = { format: 'dulse-plan', form: 2, runs: [], lost: [] }
    const walk = (i: number, plan: Plan, sum: number): number => {
      if (i === asked.baskets.length) return broken(asked, plan).length === 0 ? sum : Infinity
      const item = asked.baskets[i]!
      let best = walk(
        i + 1,
        { ...plan, lost: [...plan.lost, { basketId: item.id, weightG: item.weightG, why: 'no-place' }] },
        sum + 1000 * item.weightG,
      )
      for (const way of item.options)
        for (const startAt of starts) {
          const ends = { p10: startAt + way.hours.p10 * HOUR, p50: startAt + way.hours.p50 * HOUR, p90: startAt + way.hours.p90 * HOUR }
          const run = {
            basketId: item.id,
            machineId: way.machineId,
            cardKey: way.cardKey,
            places: way.places,
            prepareAt: startAt - way.handsMinutes * MINUTE,
            startAt,
            ends,
          }
          best = Math.min(best, walk(i + 1, { ...plan, runs: [...plan.runs, run] }, sum + cost(item, way, startAt)))
        }
      return best
    }
    return walk(0, empty, 0)
  }
  it('small ones are no worse than the best of every way there is on coarser starts', () => {
    const starts = Array.from({ length: 12 }, (_, i) => MONDAY + (1 + 4 * i) * HOUR)
    for (const [places, keeps] of [
      [5, 30],
      [9, 40],
      [4, 12],
    ] as const) {
      const asked = problem([
        basket('a', {
          keepsUntil: MONDAY + keeps * HOUR,
          options: [option({ places }), option({ places: places - 1, cardKey: 'thin', hours: { p10: 5, p50: 6, p90: 8 }, kWh: 5 })],
        }),
        basket('b', { keepsUntil: MONDAY + keeps * HOUR, options: [option({ places, hours: { p10: 11, p50: 13, p90: 16 } })] }),
        basket('c', {
          keepsUntil: MONDAY + (keeps - 6) * HOUR,
          weightG: 900,
          options: [option({ places: 3, heat: { lowC: 38, highC: 45 } })],
        }),
      ])
      const best = bruteForce(asked, starts)
      const found = planned(asked, 400)
      expect(broken(asked, found.plan)).toEqual([])
      // The share of nights is drawn by the one and reckoned by the other.
      expect(found.cost).toBeLessThanOrEqual(best + 8)
    }
  })
  it('any of them keeps every rule', () => {
    const hours = fc
      .tuple(
        fc.double({ min: 2, max: 30, noNaN: true }),
        fc.double({ min: 1, max: 1.5, noNaN: true }),
        fc.double({ min: 1, max: 1.6, noNaN: true }),
      )
      .map(([p10, a, b]) => ({ p10, p50: p10 * a, p90: p10 * a * b }))
    const heat = fc.constantFrom({ lowC: 35, highC: 42 }, { lowC: 50, highC: 60 }, { lowC: 55, highC: 70 })
    const way = fc.record({
      machineId: fc.constantFrom('cabinet', 'oven', 'sun', 'none'),
      cardKey: fc.constantFrom('thin', 'thick'),
      cut: fc.constant('Cut'),
      places: fc.integer({ min: 1, max: 10 }),
      hours,
      heat,
      handsMinutes: fc.integer({ min: 0, max: 200 }),
      kWh: fc.double({ min: 0, max: 9, noNaN: true }),
      productG: fc.integer({ min: 1, max: 900 }),
      restDays: fc.integer({ min: 0, max: 5 }),
      afterMinutes: fc.integer({ min: 0, max: 60 }),
    })
    const some = fc.record({
      weightG: fc.integer({ min: 100, max: 9000 }),
      ready: fc.integer({ min: -20, max: 60 }),
      keeps: fc.integer({ min: 0, max: 90 }),
      smell: fc.boolean(),
      options: fc.uniqueArray(way, { minLength: 1, maxLength: 3, selector: item => `${item.machineId} ${item.cardKey}` }),
    })
    fc.assert(
      fc.property(
        fc.array(some, { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 0, max: 400 }),
        fc.integer({ min: 0, max: 30 }),
        (list, handsMinutesADay, gone) => {
          const asked = problem(
            list.map((item, i) =>
              basket(`b${i}`, { ...item, readyAt: MONDAY + item.ready * HOUR, keepsUntil: MONDAY + (item.ready + item.keeps) * HOUR }),
            ),
            {
              handsMinutesADay,
              away: [{ from: MONDAY + gone * HOUR, to: MONDAY + (gone + 7) * HOUR }],
              machines: [
                machine({ busy: [{ from: MONDAY - DAY, to: MONDAY + 9 * HOUR, places: 4, heat: { lowC: 50, highC: 57 }, smell: false }] }),
                machine({ id: 'oven', places: 4, attended: true }),
                machine({ id: 'sun', places: 6, endsAlone: true, tasteless: true }),
              ],
            },
          )
          expect(broken(asked, planned(asked, 25).plan)).toEqual([])
        },
      ),
      { numRuns: 60 },
    )
  })
})
