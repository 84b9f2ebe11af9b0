import fc from 'fast-check'
import { foldBatch } from '#core/batch'
import { inForce, withStanding, type Entry } from '#core/log'
import { FEEL_QUESTIONS, judgeDryness, judgeFeel, VERDICT_WORDS } from '#core/dryness'
import { PURPOSES } from '#core/foods'
import { dryingClock, estimateDrying, pacePerHour, type DryingRun } from '#core/kinetics'
import { balancePrep, targetWeight } from '#core/mass'
import { forecastBasket, groupOf, nextWaking, sleepAround, startOfDay, type Household } from '#core/planning'
import { HOUR, HOUSEHOLD, logOf, MORNING } from '../../support/logbook'
import { FOODS, findFood } from '../../support/foods'

/** Laws that hold whatever the figures are. */
const run = fc
  .record({
    startWeightG: fc.integer({ min: 200, max: 6000 }),
    solids: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
    target: fc.double({ min: 0.05, max: 0.15, noNaN: true }),
    low: fc.double({ min: 3, max: 20, noNaN: true }),
    /** Share of the way from wet to dry that each weighing shows. */
    steps: fc.array(fc.double({ min: 0.05, max: 0.3, noNaN: true }), { minLength: 0, maxLength: 6 }),
  })
  .map(({ startWeightG, solids, target, low, steps }): DryingRun => {
    let left = 1
    const solidsG = startWeightG * solids
    const weighIns = steps.map((step, i) => {
      left *= 1 - step
      return { hours: ((i + 1) * low) / 7, weightG: Math.round(solidsG + (startWeightG - solidsG) * left) }
    })
    return {
      startWeightG,
      solids: { mean: solids, sd: 0.1 * solids },
      targetMoisture: target,
      usualHours: { low, high: 1.6 * low },
      weighIns,
    }
  })

describe('the estimate', () => {
  it('does not care for the unit of weight', () => {
    fc.assert(
      fc.property(run, one => {
        const ten: DryingRun = {
          ...one,
          startWeightG: 10 * one.startWeightG,
          scale: { resolutionG: 10 },
          weighIns: one.weighIns.map(({ hours, weightG }) => ({ hours, weightG: 10 * weightG })),
        }
        const [a, b] = [estimateDrying(one), estimateDrying(ten)]
        expect(b.hoursToTarget.p50 / a.hoursToTarget.p50).toBeCloseTo(1, 3)
        expect(b.solidsG.p50 / a.solidsG.p50).toBeCloseTo(10, 2)
      }),
      { numRuns: 40 },
    )
  })
  it('does not care for the unit of time', () => {
    fc.assert(
      fc.property(run, one => {
        const slow: DryingRun = {
          ...one,
          usualHours: { low: 3 * one.usualHours.low, high: 3 * one.usualHours.high },
          weighIns: one.weighIns.map(({ hours, weightG }) => ({ hours: 3 * hours, weightG })),
        }
        const [a, b] = [estimateDrying(one), estimateDrying(slow)]
        expect(b.hoursToTarget.p10 / a.hoursToTarget.p10).toBeCloseTo(3, 2)
        expect(b.moistureNow.p50).toBeCloseTo(a.moistureNow.p50, 4)
      }),
      { numRuns: 40 },
    )
  })
  it('has its figures in order, and a curve that only falls', () => {
    fc.assert(
      fc.property(run, one => {
        const estimate = estimateDrying(one)
        for (const { p10, p50, p90 } of [
          estimate.moistureNow,
          estimate.hoursToTarget,
          estimate.targetWeightG,
          estimate.solidsG,
          estimate.waterLeftG,
        ]) {
          expect(p10).toBeLessThanOrEqual(p50)
          expect(p50).toBeLessThanOrEqual(p90)
          expect(p10).toBeGreaterThanOrEqual(0)
        }
        expect(estimate.probabilityDry).toBeGreaterThanOrEqual(0)
        expect(estimate.probabilityDry).toBeLessThanOrEqual(1)
        estimate.curve.slice(1).forEach((point, i) => expect(point.weightG.p50).toBeLessThanOrEqual(estimate.curve[i]!.weightG.p50 + 1e-3))
        // The chance of being dry and the moisture's range tell the same.
        if (estimate.moistureNow.p90 <= one.targetMoisture) expect(estimate.probabilityDry).toBeGreaterThanOrEqual(0.89)
        if (estimate.moistureNow.p10 > one.targetMoisture) expect(estimate.probabilityDry).toBeLessThanOrEqual(0.11)
      }),
      { numRuns: 60 },
    )
  })
  it('says later for a drier target', () => {
    fc.assert(
      fc.property(run, one => {
        const weighed = { ...one, weighIns: one.weighIns.slice(0, 3) }
        const drier = estimateDrying({ ...weighed, targetMoisture: 0.6 * one.targetMoisture })
        // The usual hours are to the target whatever it is: only the weights can tell the two apart.
        expect(drier.targetWeightG.p50).toBeLessThan(estimateDrying(weighed).targetWeightG.p50)
        expect(drier.probabilityDry).toBeLessThanOrEqual(estimateDrying(weighed).probabilityDry + 0.02)
      }),
      { numRuns: 40 },
    )
  })
})

describe('the drying clock', () => {
  const heats = fc
    .array(fc.record({ hours: fc.double({ min: 0, max: 30, noNaN: true }), setC: fc.constantFrom(null, 45, 52, 57, 62) }), {
      minLength: 1,
      maxLength: 6,
    })
    .map(list => list.map(({ hours, setC }) => ({ at: MORNING + hours * HOUR, setC })))
  it('never runs back, nor faster than the hours on the wall', () => {
    fc.assert(
      fc.property(heats, list => {
        const clock = dryingClock({ startAt: MORNING, referenceC: 57, heats: list })
        for (let hour = 0; hour < 40; hour++) {
          const step = clock.hoursAt(MORNING + (hour + 1) * HOUR) - clock.hoursAt(MORNING + hour * HOUR)
          expect(step).toBeGreaterThanOrEqual(-1e-9)
          expect(step).toBeLessThanOrEqual(1 + 1e-9)
        }
      }),
    )
  })
  it('finds the instant at which it reads an hour', () => {
    fc.assert(
      fc.property(heats, fc.double({ min: 0.01, max: 60, noNaN: true }), (list, hours) => {
        const clock = dryingClock({ startAt: MORNING, referenceC: 57, heats: list })
        const at = clock.instantAt(hours)
        if (Number.isFinite(at)) expect(clock.equivalentHoursAt(at)).toBeCloseTo(hours, 6)
        else expect(clock.pace).toBe(0)
      }),
    )
  })
  it('counts hotter hours for more, and the card’s own for one', () => {
    fc.assert(
      fc.property(fc.double({ min: 30, max: 80, noNaN: true }), fc.double({ min: 0.5, max: 20, noNaN: true }), (celsius, more) => {
        expect(pacePerHour(celsius, celsius)).toBeCloseTo(1, 12)
        expect(pacePerHour(celsius + more, 57)).toBeGreaterThan(pacePerHour(celsius, 57))
      }),
    )
  })
})

describe('mass', () => {
  it('waste keeps the share of solids, water raises it, whatever is taken off', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FOODS), fc.double({ min: 0.05, max: 0.4, noNaN: true }), (food, share) => {
        const ledger = (kind: 'waste' | 'water') =>
          balancePrep({
            rawWeightG: 2000,
            rawMoisture: food.rawMoisture.value,
            steps: [{ kind, name: 'off', weightG: 2000 * share * food.rawMoisture.value.mean * 0.9 }],
          })
        const raw = balancePrep({ rawWeightG: 2000, rawMoisture: food.rawMoisture.value, steps: [] })
        expect(ledger('waste').solids.mean).toBeCloseTo(raw.solids.mean, 6)
        expect(ledger('water').solids.mean).toBeGreaterThan(raw.solids.mean)
        expect(ledger('water').solidsG.p50).toBeCloseTo(raw.solidsG.p50, 6)
      }),
    )
  })
  it('a drier target weighs less, and never less than the solids', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 1000, noNaN: true }), fc.double({ min: 0, max: 0.5, noNaN: true }), (solidsG, moisture) => {
        expect(targetWeight(solidsG, moisture)).toBeGreaterThanOrEqual(solidsG)
        expect(targetWeight(solidsG, moisture + 0.1)).toBeGreaterThan(targetWeight(solidsG, moisture))
      }),
    )
  })
  it('a forecast never gives more than came in, and more for a larger basket', () => {
    const machine = { trays: 9, trayAreaM2: 0.14, watts: 800 }
    fc.assert(
      fc.property(
        fc.constantFrom(...FOODS),
        fc.constantFrom(...PURPOSES),
        fc.integer({ min: 300, max: 9000 }),
        (food, purpose, weightG) => {
          const of = (grams: number) =>
            forecastBasket({
              food,
              card: food.cards[0]!,
              purpose,
              weightG: grams,
              machine,
              jarMl: 250,
              startAt: MORNING,
              household: HOUSEHOLD,
            })
          const one = of(weightG)
          expect(one.preparedG.p90).toBeLessThanOrEqual(weightG)
          expect(one.dryG.p90).toBeLessThan(one.preparedG.p90)
          expect(one.productG.p50).toBeLessThanOrEqual(one.dryG.p50)
          expect(of(2 * weightG).productG.p50).toBeCloseTo(2 * one.productG.p50, 6)
          expect(of(2 * weightG).loads.p50).toBeGreaterThanOrEqual(one.loads.p50)
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('the log', () => {
  const weighs = fc.array(
    fc.record({
      hours: fc.integer({ min: 2, max: 40 }),
      grams: fc.integer({ min: 200, max: 1700 }),
      fate: fc.constantFrom('stands', 'corrected', 'voided'),
    }),
    { maxLength: 8 },
  )
  const logFrom = (list: { hours: number; grams: number; fate: string }[]): Entry[] =>
    logOf(
      [0, { kind: 'intake', foodKey: 'beetroot', source: 'x', weightG: 2000, purpose: 'powder', cardKey: 'slices-3' }],
      [1, { kind: 'load', runId: 'r', machineId: 'm', positions: [1], totalG: 1700 }],
      [1, { kind: 'heat', runId: 'r', setC: 57 }],
      ...list.flatMap(({ hours, grams, fate }, i): Parameters<typeof logOf> => [
        [hours, { kind: 'weigh', totalG: grams }, { id: `w${i}` }],
        ...(fate === 'corrected'
          ? ([[hours, { kind: 'weigh', totalG: grams - 1 }, { id: `c${i}`, replaces: `w${i}` }]] as Parameters<typeof logOf>)
          : []),
        ...(fate === 'voided' ? ([[hours, { kind: 'void', target: `w${i}` }]] as Parameters<typeof logOf>) : []),
      ]),
    )
  it('loses no entry: each stands, is corrected or is voided', () => {
    fc.assert(
      fc.property(weighs, list => {
        const log = logFrom(list)
        expect(withStanding(log).map(({ entry }) => entry)).toEqual(log)
        expect(withStanding(log).filter(({ state }) => state === 'corrected')).toHaveLength(
          list.filter(({ fate }) => fate === 'corrected').length,
        )
        expect(inForce(log).filter(entry => entry.body.kind === 'weigh')).toHaveLength(list.filter(({ fate }) => fate !== 'voided').length)
      }),
    )
  })
  it('gives the same state in whatever order it is read', () => {
    fc.assert(
      fc.property(weighs, fc.integer({ min: 0, max: 50 }), (list, turn) => {
        const log = logFrom(list)
        const turned = log.map((_, i) => log[(i + turn) % log.length]!)
        expect(foldBatch(turned, findFood)!.run!.weighings).toEqual(foldBatch(log, findFood)!.run!.weighings)
      }),
      { numRuns: 30 },
    )
  })
})

describe('nights and days', () => {
  const household = fc
    .record({
      timeZone: fc.constantFrom('Europe/Lisbon', 'America/New_York', 'Asia/Kolkata', 'Pacific/Auckland', 'UTC'),
      sleepFrom: fc.integer({ min: 0, max: 1439 }),
      length: fc.integer({ min: 240, max: 660 }),
    })
    .map(({ timeZone, sleepFrom, length }): Household => ({ timeZone, sleepFrom, sleepTo: (sleepFrom + length) % 1440 }))
  const instant = fc.integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2027, 11, 31) })
  it('nobody is called while asleep, nor earlier than need be', () => {
    fc.assert(
      fc.property(household, instant, (people, at) => {
        const waking = nextWaking(at, people)
        expect(waking).toBeGreaterThanOrEqual(at)
        const night = sleepAround(waking, people)
        expect(waking < night.from || waking >= night.to).toBe(true)
        if (waking > at) expect(sleepAround(at, people).from).toBeLessThanOrEqual(at)
      }),
    )
  })
  it('a day begins at or before its instants, and the next one after', () => {
    fc.assert(
      fc.property(household, instant, ({ timeZone }, at) => {
        expect(startOfDay(at, timeZone)).toBeLessThanOrEqual(at)
        expect(startOfDay(at, timeZone, 1)).toBeGreaterThan(at)
        // Clocks change by an hour at most, so a day has 23 to 25.
        const hours = (startOfDay(at, timeZone, 1) - startOfDay(at, timeZone)) / HOUR
        expect(hours).toBeGreaterThanOrEqual(23)
        expect(hours).toBeLessThanOrEqual(25)
      }),
    )
  })
  it('every todo has one place in the day, and what is past its time is late', () => {
    fc.assert(
      fc.property(household, instant, fc.integer({ min: -48, max: 96 }), (people, now, hours) => {
        const from = now + hours * HOUR
        const group = groupOf({ kind: 'weigh', from }, now, people)
        expect(group === 'late').toBe(hours < 0)
        if (hours > 60) expect(group).toBe('later')
      }),
    )
  })
})

describe('the verdict', () => {
  it('is always one of five, with its reason, and never says dry over a wet place', () => {
    const feel = fc.constantFrom('pieces' as const, 'leaves' as const, 'sheet' as const, 'shreds' as const).chain(form =>
      fc.record({
        form: fc.constant(form),
        cooled: fc.boolean(),
        places: fc.integer({ min: 1, max: 5 }),
        answers: fc.record(
          Object.fromEntries(
            FEEL_QUESTIONS[form].map(question => [question.key, fc.constantFrom(...question.answers.map(answer => answer.key))]),
          ),
        ),
      }),
    )
    const probability = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(
        fc.constantFrom(...PURPOSES),
        fc.option(feel, { nil: undefined }),
        fc.option(probability, { nil: undefined }),
        (purpose, check, probabilityDry) => {
          const verdict = judgeDryness({
            purpose,
            targetMoisture: findFood('beetroot')!.target[purpose],
            feel: check,
            weight:
              probabilityDry === undefined ? undefined : { probabilityDry, moistureNow: { p10: 0.04, p50: 0.06, p90: 0.08 }, weighIns: 3 },
          })
          expect(VERDICT_WORDS[verdict.level]).toBeDefined()
          expect(verdict.reason.length).toBeGreaterThan(10)
          if (check && judgeFeel(check, purpose).vote === 'veto') expect(verdict.level).toBe('keep-drying')
          if (probabilityDry !== undefined && probabilityDry <= 0.2) expect(['keep-drying', 'cool-and-check']).toContain(verdict.level)
          if (verdict.level === 'rest') expect(check).toBeDefined()
        },
      ),
    )
  })
})
