import { improvingPlans, type Plan, type PlanBasket, type PlanMachine, type Planning, type PlanOption, type PlanProblem } from '#core/plan'

/** Problems to plan, and a checker of plans that shares no line with the planner. */

export const HOUR = 3_600_000
export const MINUTE = 60_000
export const DAY = 24 * HOUR
/** A Monday, seven in the morning, by UTC: what is asleep is told by the clock's own figures. */
export const MONDAY = Date.UTC(2026, 8, 7, 7)
export const HOUSE = { timeZone: 'UTC', sleepFrom: 22 * 60 + 30, sleepTo: 6 * 60 + 30 }

export const machine = (more: Partial<PlanMachine> = {}): PlanMachine => ({
  id: 'cabinet',
  name: 'Cabinet',
  places: 9,
  attended: false,
  endsAlone: false,
  tasteless: false,
  outdoors: false,
  busy: [],
  ...more,
})
export const option = (more: Partial<PlanOption> = {}): PlanOption => ({
  machineId: 'cabinet',
  cardKey: 'slices',
  cut: 'Slices',
  places: 5,
  hours: { p10: 8, p50: 10, p90: 12 },
  heat: { lowC: 50, highC: 60 },
  handsMinutes: 40,
  kWh: 4,
  productG: 200,
  restDays: 0,
  afterMinutes: 0,
  ...more,
})
export const basket = (id: string, more: Partial<PlanBasket> = {}): PlanBasket => ({
  id,
  title: id,
  foodKey: 'tomato',
  purpose: 'powder',
  weightG: 2000,
  readyAt: MONDAY,
  keepsUntil: MONDAY + 2 * DAY,
  smell: false,
  options: [option()],
  ...more,
})
export const problem = (baskets: PlanBasket[], more: Partial<PlanProblem> = {}): PlanProblem => ({
  format: 'dulse-plan-problem',
  form: 2,
  from: MONDAY,
  until: MONDAY + 10 * DAY,
  household: HOUSE,
  away: [],
  handsMinutesADay: 300,
  machines: [machine()],
  baskets,
  wishes: [],
  sun: [],
  prices: [],
  pins: [],
  ...more,
})
/** The last plan of so many rounds. */
export function planned(asked: PlanProblem, rounds = 150, more: Planning = {}) {
  let last
  for (const step of improvingPlans(asked, { rounds, ...more })) last = step
  return last!
}

/** Whether a plan keeps every rule: by the minute, without a line of the planner's own. */
export function broken({ machines, baskets, away, handsMinutesADay, from, until, sun }: PlanProblem, { runs, lost }: Plan): string[] {
  const found: string[] = []
  const asleep = (at: number) => {
    const minute = Math.floor((at % DAY) / MINUTE)
    return minute >= HOUSE.sleepFrom || minute < HOUSE.sleepTo
  }
  const up = (at: number) => !asleep(at) && !away.some(gap => at >= gap.from && at < gap.to)
  const ids = [...runs.map(run => run.basketId), ...lost.map(item => item.basketId)].sort()
  if (
    ids.join() !==
    baskets
      .map(item => item.id)
      .sort()
      .join()
  )
    found.push('a basket is missing or there twice')
  const hands = new Map<number, number>()
  for (const run of runs) {
    const of = baskets.find(item => item.id === run.basketId)!
    const by = machines.find(item => item.id === run.machineId)!
    const way = of.options.find(item => item.machineId === run.machineId && item.cardKey === run.cardKey && item.places === run.places)
    if (!way) found.push(`${run.basketId} goes a way that it has not`)
    const smokeH = way?.first?.hours ?? 0
    const coldH = way?.leadHours ?? 0
    const cutBy = run.startAt - (smokeH + coldH) * HOUR
    if (cutBy > of.keepsUntil || run.prepareAt < of.readyAt || run.prepareAt < from || run.startAt > until)
      found.push(`${run.basketId} is out of its time`)
    for (let at = run.prepareAt; at <= cutBy; at += 5 * MINUTE) if (!up(at)) found.push(`${run.basketId} is prepared by nobody`)
    if (!up(run.startAt)) found.push(`${run.basketId} is loaded by nobody`)
    for (let at = run.startAt - smokeH * HOUR; smokeH > 0 && at <= run.startAt; at += 5 * MINUTE)
      if (!up(at)) found.push(`${run.basketId} smokes with nobody about`)
    if (by.outdoors) {
      let need = way!.hours.p50 * HOUR
      for (let at = run.startAt; at < run.ends.p50 - 1; at += MINUTE)
        need -= MINUTE * (sun.find(spell => at >= spell.from && at < spell.to)?.share.p50 ?? 0)
      if (Math.abs(need) > 3 * MINUTE) found.push(`${run.basketId} has the wrong hours of sun`)
    }
    if (by.attended)
      for (let at = run.startAt; at <= run.ends.p90; at += 5 * MINUTE) if (!up(at)) found.push(`${run.basketId} is watched by nobody`)
    const day = Math.floor(run.prepareAt / DAY)
    hands.set(day, (hands.get(day) ?? 0) + way!.handsMinutes)
  }
  for (const minutes of hands.values()) if (minutes > handsMinutesADay) found.push(`${minutes} minutes of hands on a day`)
  for (const by of machines) {
    const standing = [
      ...by.busy.map(item => ({ ...item })),
      ...runs.flatMap(run => {
        const of = baskets.find(item => item.id === run.basketId)!
        const way = of.options.find(item => item.machineId === run.machineId && item.cardKey === run.cardKey)!
        const until = run.ends.p90 + (way.clearHours ?? 0) * HOUR
        const there = { from: run.startAt, to: until, places: run.places, heat: way.heat, smell: of.smell, closed: undefined }
        const { first } = way
        return [
          ...(run.machineId === by.id ? [there] : []),
          ...(first?.machineId === by.id
            ? [{ ...there, from: run.startAt - first.hours * HOUR, to: run.startAt, places: first.places, heat: first.heat }]
            : []),
        ]
      }),
    ]
    for (const { from: at } of standing) {
      const there = standing.filter(item => item.from <= at && item.to > at)
      if (there.reduce((sum, item) => sum + item.places, 0) > by.places) found.push(`${by.id} holds more than it has places`)
      if (there.length > 1 && there.some(item => item.closed)) found.push(`${by.id} runs while it is closed`)
      for (const one of there)
        for (const other of there) {
          if (one.heat && other.heat && one.heat.lowC > other.heat.highC) found.push(`${by.id} would have two heats`)
          if (!by.tasteless && one.smell !== undefined && other.smell !== undefined && one.smell !== other.smell)
            found.push(`${by.id} mixes smells`)
        }
    }
  }
  return found
}
/** Share of the cases in which an end falls into the night, by many draws of the range; it wakes in more than one case of five. */
export function asleepShare({ hours: { p10, p50, p90 } }: PlanOption, startAt: number): number {
  let asleep = 0
  const draws = 400
  for (let i = 0; i < draws; i++) {
    const share = (i + 0.5) / draws
    const side = share < 0.5 ? Math.log(p50 / p10) : Math.log(p90 / p50)
    const end = startAt + p50 * Math.exp((side * (share - 0.5)) / 0.4) * HOUR
    const minute = Math.floor((end % DAY) / MINUTE)
    if (minute >= HOUSE.sleepFrom || minute < HOUSE.sleepTo) asleep++
  }
  return asleep / draws
}
export const wakes = (way: PlanOption, startAt: number) => asleepShare(way, startAt) > 0.2
