import loadHighs from 'highs'
import { improvingPlans, type PlanBasket, type PlanMachine, type PlanOption, type PlanProblem, type PlanSolver } from '#core/plan'
import { simulateRun } from '#core/simulation'
import { intervalOf, randomSource } from '#core/stats'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const HALF = HOUR / 2
/** A Monday, by UTC. */
const MONDAY = Date.UTC(2026, 8, 7)
const HOUSE = { timeZone: 'UTC', sleepFrom: 22 * 60 + 30, sleepTo: 6 * 60 + 30 }
const HANDS = 240
type Source = ReturnType<typeof randomSource>

const asleep = (at: number) => {
  const minute = Math.floor((at % DAY) / 60_000)
  return minute >= HOUSE.sleepFrom || minute < HOUSE.sleepTo
}

/** How true hours differ from the usual, drawn by the simulator: lots, cuts and places in the machine differ. */
function trueFactors(): number[] {
  const source = randomSource(11)
  const hours = Array.from({ length: 80 }, (_, seed) => {
    const run = simulateRun(
      {
        trays: 4,
        startWeightG: 2000,
        solids: 0.12 * Math.exp(0.08 * source.normal()),
        slab: {
          diffusionRate: 0.25 * Math.exp(0.22 * source.normal()),
          slowing: 0.12,
          evaporationRate: Math.exp(0.1 * source.normal()),
          airHumidity: 0.1,
        },
        traySpread: 0.08,
        seed,
      },
      60,
      0.25,
    )
    return run.hoursTo(0.09)
  }).filter(Number.isFinite)
  const { p50 } = intervalOf(Float64Array.from(hours))
  return hours.map(value => value / p50)
}

const MACHINES: readonly PlanMachine[] = [
  { id: 'cabinet', name: 'Cabinet', places: 9, attended: false, endsAlone: false, tasteless: false, outdoors: false, busy: [] },
  { id: 'stack', name: 'Stack', places: 5, attended: false, endsAlone: false, tasteless: false, outdoors: false, busy: [] },
  { id: 'oven', name: 'Oven', places: 3, attended: true, endsAlone: false, tasteless: false, outdoors: false, busy: [] },
  { id: 'chest', name: 'Cold chest', places: 4, attended: false, endsAlone: true, tasteless: true, outdoors: false, busy: [] },
]

/** A week of glut: what comes in, and how long it truly takes. */
function week(seed: number, factors: readonly number[]): { baskets: PlanBasket[]; factorOf: Map<string, number> } {
  const source = randomSource(seed)
  const spread = intervalOf(Float64Array.from(factors))
  const factorOf = new Map<string, number>()
  const baskets = Array.from({ length: 16 + source.integer(0, 12) }, (_, i): PlanBasket => {
    const readyAt = MONDAY + source.integer(0, 6) * DAY + (8 + source.integer(0, 10)) * HOUR
    const kg = 0.8 + 3.2 * source.uniform()
    const smell = source.uniform() < 0.15
    const heat = smell ? { lowC: 53, highC: 61 } : source.uniform() < 0.2 ? { lowC: 36, highC: 44 } : { lowC: 53, highC: 61 }
    const thin = 7 + 4 * source.uniform()
    const way = (machineId: string, cardKey: string, p50: number, places: number, watts: number): PlanOption => ({
      machineId,
      cardKey,
      cut: cardKey,
      places: Math.max(1, Math.ceil(places)),
      hours: { p10: p50 * spread.p10, p50: p50 * spread.p50, p90: p50 * spread.p90 },
      heat,
      handsMinutes: Math.round(10 + 10 * kg),
      kWh: (watts / 1000) * 0.65 * p50,
      productG: 90 * kg,
      restDays: 5,
      afterMinutes: 30,
    })
    factorOf.set(`b${i}`, factors[source.integer(0, factors.length - 1)]!)
    return {
      id: `b${i}`,
      title: `Basket ${i + 1}`,
      foodKey: 'tomato',
      purpose: 'powder',
      weightG: 1000 * kg,
      readyAt,
      keepsUntil: readyAt + (1 + 2.5 * source.uniform()) * DAY,
      smell,
      options: [
        way('cabinet', 'thick', 1.7 * thin, 1.6 * kg, 800),
        way('cabinet', 'thin', thin, 2.3 * kg, 800),
        way('stack', 'thick', 1.7 * thin, 2.6 * kg, 260),
        way('stack', 'thin', thin, 3.6 * kg, 260),
        way('oven', 'thin', 0.7 * thin, 1.5 * kg, 2400),
        way('chest', 'thick', 26, kg, 1100),
      ].filter(option => option.places <= MACHINES.find(machine => machine.id === option.machineId)!.places),
    }
  })
  return { baskets, factorOf }
}

interface Standing {
  basket: PlanBasket
  option: PlanOption
  startAt: number
  trueEnd: number
}
interface Kitchen {
  now: number
  waiting: PlanBasket[]
  standing: Standing[]
  /** Minutes of hands left today, and until when they are busy. */
  left: number
  busyUntil: number
}
/** What a habit or a plan does now: a basket is cut, and goes in when that is done. */
type Policy = (kitchen: Kitchen) => { basket: PlanBasket; option: PlanOption }[]

const free = (
  { standing }: Kitchen,
  option: PlanOption,
  basket: PlanBasket,
  added: readonly { basket: PlanBasket; option: PlanOption }[],
) => {
  const machine = MACHINES.find(item => item.id === option.machineId)!
  const there = [...standing, ...added].filter(item => item.option.machineId === option.machineId)
  const fits = there.reduce((sum, item) => sum + item.option.places, option.places) <= machine.places
  const goes = there.every(
    item =>
      machine.tasteless ||
      (item.basket.smell === basket.smell && item.option.heat.lowC <= option.heat.highC && option.heat.lowC <= item.option.heat.highC),
  )
  return fits && goes
}
/** Nobody leaves an oven on and goes to bed, whatever the habit. */
const watched = (now: number, { machineId, hours }: PlanOption) => {
  const bedtime = Math.floor(now / DAY) * DAY + HOUSE.sleepFrom * 60_000
  return machineId !== 'oven' || now + (hours.p90 + 1) * HOUR <= bedtime
}

/** First come, first dried, at once: the usual cut, the first machine with the places. */
const atOnce: Policy = kitchen => {
  const done: { basket: PlanBasket; option: PlanOption }[] = []
  for (const basket of kitchen.waiting) {
    const option = basket.options.find(item => free(kitchen, item, basket, done) && watched(kitchen.now, item))
    if (option) done.push({ basket, option })
  }
  return done
}
/** One load each evening at seven, the oldest first, as much as goes in. */
const eachEvening: Policy = kitchen => {
  const hour = (kitchen.now % DAY) / HOUR
  return hour >= 18 && hour < 20 ? atOnce({ ...kitchen, waiting: [...kitchen.waiting].sort((a, b) => a.keepsUntil - b.keepsUntil) }) : []
}
/** By the plan, made anew as things happen. */
function planned(): Policy {
  let before: PlanProblem['before'] = []
  return kitchen => {
    const { now, waiting, standing } = kitchen
    if (waiting.length === 0) return []
    const problem: PlanProblem = {
      format: 'dulse-plan-problem',
      form: 2,
      from: now,
      until: now + 6 * DAY,
      household: HOUSE,
      away: [],
      handsMinutesADay: HANDS,
      machines: MACHINES.map(machine => ({
        ...machine,
        busy: standing
          .filter(item => item.option.machineId === machine.id)
          .map(({ basket, option, startAt, trueEnd }) => {
            // From two thirds on the weights tell it nearly.
            const known = now - startAt > 0.66 * (trueEnd - startAt)
            const to = known ? trueEnd + HOUR : startAt + option.hours.p90 * HOUR
            return { from: startAt, to: Math.max(now + HALF, to), places: option.places, heat: option.heat, smell: basket.smell }
          }),
      })),
      baskets: waiting.map(basket => ({ ...basket, readyAt: Math.max(now, basket.readyAt), keepsUntil: Math.max(now, basket.keepsUntil) })),
      wishes: [],
      sun: [],
      prices: [],
      pins: [],
      before: before!.filter(run => waiting.some(basket => basket.id === run.basketId)),
    }
    let plan
    for (const step of improvingPlans(problem, { rounds: 100 })) ({ plan } = step)
    before = plan!.runs.map(({ basketId, machineId, cardKey, startAt }) => ({ basketId, machineId, cardKey, startAt }))
    const done: { basket: PlanBasket; option: PlanOption }[] = []
    for (const run of plan!.runs) {
      if (run.prepareAt >= now + HALF) continue
      const basket = waiting.find(item => item.id === run.basketId)!
      const option = basket.options.find(item => item.machineId === run.machineId && item.cardKey === run.cardKey)!
      if (free(kitchen, option, basket, done)) done.push({ basket, option })
    }
    return done
  }
}

interface Outcome {
  spoiledKg: number
  wakings: number
  kWh: number
  handsHours: number
  days: number
}

/** Plays a week to its end. */
function play({ baskets, factorOf }: ReturnType<typeof week>, policy: Policy): Outcome {
  const kitchen: Kitchen = { now: MONDAY, waiting: [], standing: [], left: HANDS, busyUntil: 0 }
  const out: Outcome = { spoiledKg: 0, wakings: 0, kWh: 0, handsHours: 0, days: 0 }
  let coming = [...baskets].sort((a, b) => a.readyAt - b.readyAt)
  for (let now = MONDAY; now < MONDAY + 16 * DAY; now += HALF) {
    kitchen.now = now
    if (now % DAY === 0) kitchen.left = HANDS
    const ended = kitchen.standing.filter(item => item.trueEnd <= now)
    for (const item of ended) {
      out.days = Math.max(out.days, (item.trueEnd - MONDAY) / DAY)
      if (asleep(item.trueEnd) && !MACHINES.find(machine => machine.id === item.option.machineId)!.endsAlone) out.wakings++
    }
    kitchen.standing = kitchen.standing.filter(item => item.trueEnd > now)
    kitchen.waiting.push(...coming.filter(basket => basket.readyAt <= now))
    coming = coming.filter(basket => basket.readyAt > now)
    const gone = kitchen.waiting.filter(basket => basket.keepsUntil < now)
    out.spoiledKg += gone.reduce((sum, basket) => sum + basket.weightG / 1000, 0)
    kitchen.waiting = kitchen.waiting.filter(basket => basket.keepsUntil >= now)
    if (asleep(now) || asleep(now + HOUR) || kitchen.busyUntil > now) continue
    for (const { basket, option } of policy(kitchen)) {
      if (option.handsMinutes > kitchen.left) continue
      kitchen.left -= option.handsMinutes
      kitchen.busyUntil = Math.max(now, kitchen.busyUntil) + option.handsMinutes * 60_000
      kitchen.waiting = kitchen.waiting.filter(other => other !== basket)
      const startAt = now + option.handsMinutes * 60_000
      kitchen.standing.push({ basket, option, startAt, trueEnd: startAt + option.hours.p50 * factorOf.get(basket.id)! * HOUR })
      out.kWh += option.kWh * factorOf.get(basket.id)!
      out.handsHours += option.handsMinutes / 60
    }
  }
  return out
}

/** What could have been saved by somebody who knew all of it beforehand, kg spoiled. */
function hindsight({ baskets, factorOf }: ReturnType<typeof week>): number {
  const known = baskets.map(basket => ({
    ...basket,
    options: basket.options.map(option => {
      const hours = option.hours.p50 * factorOf.get(basket.id)!
      return { ...option, hours: { p10: hours, p50: hours, p90: hours } }
    }),
  }))
  let lostG = 0
  const problem: PlanProblem = {
    format: 'dulse-plan-problem',
    form: 2,
    from: MONDAY,
    until: MONDAY + 14 * DAY,
    household: HOUSE,
    away: [],
    handsMinutesADay: HANDS,
    machines: MACHINES,
    baskets: known,
    wishes: [],
    sun: [],
    prices: [],
    pins: [],
  }
  for (const step of improvingPlans(problem, { rounds: 300 })) ({ lostG } = step.worth)
  return lostG / 1000
}

/** Thirty baskets over ten days in six machines: the first plan, and how near its bound it is after fifteen seconds. */
async function benchPlanner(row: (name: string, figures: string, aim?: string) => void, source: Source): Promise<void> {
  const highs = (await loadHighs()) as unknown as PlanSolver
  const factors = trueFactors()
  const { baskets } = week(3, factors)
  const many = Array.from({ length: 30 }, (_, i) => {
    const basket = baskets[i % baskets.length]!
    const readyAt = MONDAY + source.integer(0, 8 * 24) * HOUR
    return { ...basket, id: `b${i}`, readyAt, keepsUntil: readyAt + (1.5 + 3 * source.uniform()) * DAY }
  })
  const machines = [...MACHINES, { ...MACHINES[0]!, id: 'cabinet2' }, { ...MACHINES[1]!, id: 'stack2' }]
  const problem: PlanProblem = {
    format: 'dulse-plan-problem',
    form: 2,
    from: MONDAY + 7 * HOUR,
    until: MONDAY + 10 * DAY,
    household: HOUSE,
    away: [],
    handsMinutesADay: HANDS,
    machines,
    baskets: many.map(basket => ({
      ...basket,
      options: basket.options.flatMap(option => [
        option,
        ...(option.machineId === 'cabinet' || option.machineId === 'stack' ? [{ ...option, machineId: `${option.machineId}2` }] : []),
      ]),
    })),
    wishes: [],
    sun: [],
    prices: [],
    pins: [],
  }
  const begun = performance.now()
  let first = 0
  let soon
  let last
  for (const step of improvingPlans(problem, { solver: highs, stop: () => performance.now() - begun > 60_000 })) {
    const took = performance.now() - begun
    first ||= took
    if (took <= 15_000) soon = step
    last = step
  }
  row('plan of 30 loads, 6 machines, 10 days: first', `${first.toFixed(0)} ms`, 'under 1000 ms')
  row(
    '  after 15 s, from the best of a minute',
    `${((100 * (soon!.cost - last!.cost)) / last!.cost).toFixed(2)} %`,
    `within 3 %; from its bound ${(100 * (soon!.gap ?? Number.NaN)).toFixed(2)} %`,
  )
}

/** Forty weeks of glut, by two habits and by the plan. */
export async function benchPlan(row: (name: string, figures: string, aim?: string) => void): Promise<void> {
  await benchPlanner(row, randomSource(5))
  const factors = trueFactors()
  const weeks = Array.from({ length: 40 }, (_, seed) => week(seed + 1, factors))
  const sum = (list: readonly Outcome[]) =>
    list.reduce((a, b) => ({
      spoiledKg: a.spoiledKg + b.spoiledKg,
      wakings: a.wakings + b.wakings,
      kWh: a.kWh + b.kWh,
      handsHours: a.handsHours + b.handsHours,
      days: a.days + b.days,
    }))
  const tell = (name: string, policy: () => Policy) => {
    const all = sum(weeks.map(item => play(item, policy())))
    row(
      `40 weeks of glut, ${name}`,
      `${all.spoiledKg.toFixed(1)} kg spoiled, woken ${all.wakings}`,
      `${all.kWh.toFixed(0)} kWh, ${all.handsHours.toFixed(0)} h of hands, done in ${(all.days / weeks.length).toFixed(1)} days`,
    )
  }
  tell('each at once', () => atOnce)
  tell('a load each evening', () => eachEvening)
  tell('by the plan', planned)
  row('  spoiled by who knew all beforehand', `${weeks.reduce((all, item) => all + hindsight(item), 0).toFixed(1)} kg`)
}
