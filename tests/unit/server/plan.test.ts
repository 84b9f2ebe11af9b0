import ICAL from 'ical.js'
import { uuidv7 } from 'uuidv7'
import { improvingPlans, runAt, type Plan, type PlanProblem } from '#core/plan'
import { calendar } from '#server/export/calendar'
import { batchPage, nowPage } from '#server/services/pages'
import { dropPlan, planBookPage, planProblem, planYear, savePlanBook, saveWeather, takePlan } from '#server/services/plan'
import {
  plan as planContract,
  planBook as planBookContract,
  planProblem as problemContract,
  weather as weatherContract,
} from '#shared/contracts'
import { householdOf } from '#server/services/context'
import { changeHousehold, saveMachine } from '#server/services/settings'
import { broken } from '../../support/plans'
import { DAY, HOUR, MORNING, testBook, type TestBook } from '../../support/logbook'
import { simulatedWeather } from '../../../devices/weather'

/** A day so many days after the book's morning. */
const day = (ahead: number) => new Date(MORNING + ahead * DAY).toISOString().slice(0, 10)
const harvest = (more: object = {}) => ({
  id: uuidv7(),
  foodKey: 'tomato',
  purpose: 'powder' as const,
  lowG: 2000,
  highG: 4000,
  from: day(1),
  to: day(9),
  everyDays: 4,
  ...more,
})
const save = ({ context }: TestBook, more: object) => {
  const { book, version } = planBookPage(context)
  return savePlanBook(context, { ...book, ...more, version })
}
function best(problem: PlanProblem): Plan {
  let plan
  for (const step of improvingPlans(problem, { rounds: 150 })) ({ plan } = step)
  return plan!
}

describe('what there is to plan', () => {
  it('is what the contract says, in hand and to come, with its limits by place', async () => {
    const book = testBook()
    book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 1500 }, 0)
    save(book, { harvests: [harvest()], away: [{ id: uuidv7(), from: MORNING + DAY, to: MORNING + 1.2 * DAY, words: 'market' }] })
    const { problem } = await planProblem(book.context)
    expect(problemContract.parse(JSON.parse(JSON.stringify(problem)))).toEqual(JSON.parse(JSON.stringify(problem)))
    const [here, ...coming] = problem.baskets
    // A day or less on the counter, longer in the cold.
    expect(here!.warmUntil! - MORNING).toBeLessThanOrEqual(DAY)
    expect(here!.keepsUntil).toBeGreaterThan(here!.warmUntil!)
    expect(new Set(coming.map(basket => basket.readyAt)).size).toBe(3)
    expect(coming.every(basket => basket.expected && basket.weightG <= 3000)).toBe(true)
    expect(problem.away).toHaveLength(1)
    // The doubt of the picking is doubt of its places: they are counted for a good one.
    expect(coming[0]!.options.length).toBeGreaterThan(0)
  })

  it('cut food waits two hours, or two days in the cold', async () => {
    const book = testBook()
    const id = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 1500 }, 0)
    book.log(id, 0.5, { kind: 'prep', step: 'cut', effect: 'none' })
    const basket = (await planProblem(book.context)).problem.baskets.find(item => item.id === id)!
    expect(basket.warmUntil! - (MORNING + 0.5 * HOUR)).toBeLessThanOrEqual(2 * HOUR)
    expect(basket.keepsUntil).toBe(MORNING + 0.5 * HOUR + 2 * DAY)
  })

  it('knows supper, sun as it was foretold, prices and wishes of what is in sight', async () => {
    const book = testBook()
    saveMachine(book.context, {
      id: uuidv7(),
      name: 'Wall racks',
      kind: 'sun',
      trays: 6,
      trayAreaM2: 0.3,
      trayTareG: 0,
      trayTares: {},
      watts: 1,
      lowC: 20,
      highC: 45,
    })
    book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 1500, purpose: 'powder' }, 0)
    const prices = Array.from({ length: 24 }, (_, hour) => (hour < 6 ? 0.1 : 0.4))
    save(book, {
      meals: [{ id: uuidv7(), machineId: book.machineId, fromMinute: 1020, toMinute: 1140 }],
      prices,
      wishes: [
        { id: 'a', foodKey: 'tomato', purpose: 'powder', grams: 300, by: day(8) },
        { id: 'b', foodKey: 'leek', purpose: 'flakes', grams: 300, by: day(8) },
      ].map(wish => ({ ...wish, id: uuidv7() })),
    })
    const weather = { source: 'radio', at: MORNING, days: [0, 1, 2].map(i => ({ day: day(i), sun: i === 1 ? 0 : 0.9, rain: 0.1 })) }
    saveWeather(book.context, weather)
    const { problem } = await planProblem(book.context)
    const machine = problem.machines.find(item => item.id === book.machineId)!
    expect(machine.busy.filter(item => item.closed).length).toBeGreaterThanOrEqual(10)
    expect(problem.prices).toEqual(prices)
    expect(problem.wishes.map(wish => wish.foodKey)).toEqual(['tomato'])
    const onDay = (ahead: number) =>
      problem.sun.filter(spell => new Date(spell.from).toISOString().slice(0, 10) === day(ahead)).map(spell => spell.share.p50)
    expect(onDay(1)).toEqual([])
    expect(onDay(2)[0]).toBeCloseTo(0.9 * 0.95, 6)
    // Nobody foretold the fourth day: it may be fair or not.
    expect(onDay(4)).toEqual([0.75])
  })

  it('bad input is named by its field: past days, unknown foods, a gone machine, a stale version, a price for half a day', () => {
    const book = testBook()
    expect(() => save(book, { harvests: [harvest({ from: day(-20), to: day(-10) })] })).toThrow(/harvests\.0\.to.*over/)
    expect(() => save(book, { harvests: [harvest({ foodKey: 'moonfruit' })] })).toThrow(/harvests\.0\.foodKey.*moonfruit/)
    expect(() => save(book, { wishes: [{ id: uuidv7(), foodKey: 'tomato', purpose: 'powder', grams: 5, by: day(-3) }] })).toThrow(
      /wishes\.0\.by.*over/,
    )
    expect(() => save(book, { meals: [{ id: uuidv7(), machineId: uuidv7(), fromMinute: 1, toMinute: 2 }] })).toThrow(/no such machine/)
    save(book, { harvests: [harvest()] })
    expect(() => savePlanBook(book.context, { ...planBookPage(book.context).book, handsMinutes: 5, version: 0 })).toThrow(
      /changed elsewhere/,
    )
    const whole = planBookPage(book.context).book
    expect(planBookContract.safeParse({ ...whole, prices: [1, 2] }).error?.issues[0]?.message).toMatch(/24 hours/)
    expect(planBookContract.safeParse({ ...whole, harvests: [harvest({ lowG: 9000 })] }).error?.issues[0]?.path).toEqual([
      'harvests',
      0,
      'highG',
    ])
    expect(planBookContract.safeParse({ ...whole, harvests: [harvest({ everyDays: 0 })] }).success).toBe(false)
  })

  it('own years are told from the log, and what was used', () => {
    const book = testBook()
    book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 1500 }, -24 * 30)
    book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 2500 }, 0)
    expect(planBookPage(book.context).ownYears).toEqual([
      expect.objectContaining({ foodKey: 'tomato', baskets: 2, weightG: 4000, from: day(-30), to: day(0) }),
    ])
  })

  it('a simulated forecast is one that the plan takes, the same for a seed, and less sure far off', () => {
    const told = simulatedWeather(MORNING, 10, 'UTC', 3)
    expect(weatherContract.parse(told)).toEqual(told)
    expect(simulatedWeather(MORNING, 10, 'UTC', 3)).toEqual(told)
    const spread = (at: number) =>
      Math.max(...Array.from({ length: 40 }, (_, seed) => Math.abs(simulatedWeather(MORNING, 10, 'UTC', seed).days[at]!.sun - 0.6)))
    expect(spread(9)).toBeLessThan(0.6 * spread(0))
  })
})

describe('a plan that is taken', () => {
  async function taken() {
    const book = testBook()
    const id = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 1500 }, 0)
    save(book, { harvests: [harvest({ from: day(2), to: day(2) })] })
    const { problem } = await planProblem(book.context)
    const plan = best(problem)
    expect(broken({ ...problem, household: { ...problem.household } }, plan).filter(words => /missing|places|heats/.test(words))).toEqual(
      [],
    )
    return { book, id, problem, plan }
  }

  it('dates what is to be done, goes to the calendar with an alarm, and to the load form', async () => {
    const { book, id, plan } = await taken()
    const run = plan.runs.find(item => item.basketId === id)!
    const page = await takePlan(book.context, plan)
    expect(page.kept.map(item => item.run.basketId).sort()).toEqual(plan.runs.map(item => item.basketId).sort())
    const todo = nowPage(book.context).todos.find(item => item.batchId === id)!
    expect(todo).toMatchObject({ kind: 'prepare', from: run.prepareAt })
    expect(todo.why).toMatch(/^By the plan/)
    expect(batchPage(book.context, id).planned).toMatchObject({ machineId: run.machineId, places: run.places })
    const events = new ICAL.Component(ICAL.parse(calendar(book.context, 'http://kitchen.local')) as unknown[]).getAllSubcomponents('vevent')
    const coming = events.find(event => String(event.getFirstPropertyValue('uid')).startsWith('harvest:'))!
    expect(coming.getAllSubcomponents('valarm')).toHaveLength(1)
    expect(planContract.parse(JSON.parse(JSON.stringify(plan)))).toEqual(JSON.parse(JSON.stringify(plan)))
    // What people live by is disturbed as little as may be.
    expect(page.problem.before).toHaveLength(plan.runs.length)
    const after = await dropPlan(book.context)
    expect(after.kept).toEqual([])
    expect(nowPage(book.context).todos.find(item => item.batchId === id)!.why).not.toMatch(/By the plan/)
  })

  it('is told in pounds and inches to whoever has them, in the to-do and the calendar', async () => {
    const { book, id, plan } = await taken()
    changeHousehold(book.context, { ...householdOf(book.context), weightUnit: 'oz', temperatureUnit: 'F' })
    await takePlan(book.context, plan)
    expect(nowPage(book.context).todos.find(item => item.batchId === id)!.why).toMatch(/^By the plan: 1\/4\u00A0in slices/)
    expect(calendar(book.context, 'http://kitchen.local')).not.toMatch(/\d[ \u00A0]mm/)
  })

  it('is seen against what was done', async () => {
    const { book, id, plan } = await taken()
    await takePlan(book.context, plan)
    book.log(id, 1, { kind: 'prep', step: 'cut', effect: 'none' })
    // Cut, it is due on the heat by the plan, and its two hours count.
    expect(nowPage(book.context).todos.find(item => item.batchId === id && item.kind === 'load')!.why).toMatch(/By the plan/)
    book.log(id, 1.5, { kind: 'load', runId: uuidv7(), machineId: book.machineId, positions: [1, 2], totalG: 1400 })
    const { kept } = await planProblem(book.context)
    expect(kept.find(item => item.batchId === id)!.actual).toMatchObject({ loadedAt: MORNING + 1.5 * HOUR, machineId: book.machineId })
    expect(batchPage(book.context, id).planned).toBeUndefined()
  })

  it('sends what waits longer than it keeps into the cold first, until that is logged', async () => {
    const book = testBook()
    const id = book.begin({ foodKey: 'tomato', cardKey: 'slices-6', weightG: 1500 }, 0)
    book.log(id, 0.5, { kind: 'prep', step: 'cut', effect: 'none' })
    const { problem } = await planProblem(book.context)
    const plan = best(problem)
    const later = runAt(problem, id, { machineId: plan.runs[0]!.machineId, startAt: plan.runs[0]!.startAt + DAY })!
    await takePlan(book.context, { ...plan, runs: [later] })
    const kinds = () => nowPage(book.context).todos.map(todo => [todo.kind, todo.to])
    expect(kinds()).toEqual([
      ['danger', MORNING + 2.5 * HOUR],
      ['load', undefined],
    ])
    book.log(id, 1, { kind: 'hold', place: 'refrigerator' })
    expect(kinds().map(([kind]) => kind)).toEqual(['load', 'held'])
  })

  it('by another program it is looked at as well: rules, baskets that are gone', async () => {
    const { book, id, plan } = await taken()
    const late = { ...plan, runs: plan.runs.map(run => (run.basketId === id ? { ...run, startAt: run.startAt + 30 * DAY } : run)) }
    await expect(takePlan(book.context, late)).rejects.toThrow(/would be spoiled by then/)
    const strange = { ...plan, runs: [{ ...plan.runs[0]!, basketId: 'nobody' }] }
    await expect(takePlan(book.context, strange)).rejects.toThrow(/no such basket/)
  })
})

describe('the year', () => {
  it('counts pickings into months, wishes back to baskets, jars and sachets to buy', async () => {
    const book = testBook()
    save(book, {
      harvests: [harvest({ from: day(1), to: day(40), everyDays: 3 })],
      wishes: [
        { id: uuidv7(), foodKey: 'tomato', purpose: 'powder', grams: 400, by: day(60) },
        { id: uuidv7(), foodKey: 'tomato', purpose: 'powder', grams: 90_000, by: day(2) },
      ],
    })
    const year = await planYear(book.context)
    const [line] = year.problem.lines
    // Every third day of forty: fourteen pickings of three kilograms.
    expect(line!.kg.reduce((sum, kg) => sum + kg, 0)).toBeCloseTo(14 * 3, 6)
    expect(year.problem.nights).toHaveLength(12)
    expect(year.problem.nights[0]).toBe(31)
    expect(line!.productGKg).toBeGreaterThan(30)
    expect(line!.productGKg).toBeLessThan(90)
    const [soon, later] = [...year.wishes].sort((a, b) => a.by - b.by)
    expect(soon!.impossible).toBe('no-time')
    expect(later!.needsKg! * line!.productGKg).toBeGreaterThan(300)
    expect(later!.loadBy!).toBeLessThan(later!.by - DAY)
    expect(year.shopping.jars).toBe(year.lines[0]!.jars)
    expect(year.shopping.sachets).toBe(year.shopping.jars)
  })
})
