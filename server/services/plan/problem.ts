import { sdOf } from '#core/stats'
import { dangerZoneOf, foldBatch, holdLimit, restNeeded } from '#core/batch'
import { partedG, type BatchState } from '#core/log'
import { atMinuteOfDay, startOfDay } from '#core/planning'
import type { Busy, PlanBasket, PlanMachine } from '#core/plan'
import { sunAhead, type SunSpell } from '#core/sun'
import { WAYS } from '#core/ways'
import { DAY, HOUR } from '#core/time'
import type { PlanAnswer, PlanBook } from '#shared/contracts'
import { batchView, listBatchViews } from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import { keptRuns, shelfByForm } from '#server/db/plan'
import { findMachine, listMachines } from '#server/db/settings'
import { householdOf, type Context } from '../context'
import { standingIn } from '../machines'
import { dayAt, planBookOf, skyOf } from './book'
import { heatOf, optionsOf, smells, type Machines } from './options'
import { wishesOf } from './wishes'

/** So far ahead it is planned; nobody knows more. */
const AHEAD = 10 * DAY
/** What stands in a machine and of which nobody knows when it is dry keeps its places so long. */
const UNKNOWN = DAY
/** A plan begins with the next of them. */
const HALF_HOUR = 0.5 * HOUR
/** A basket goes into so many loads at most. */
const MOST_PARTS = 4
/** Baskets in hand that are looked at, those that are cut first; and pickings that are to come. */
const MOST_BASKETS = 60
const MOST_PICKINGS = 120
/** Pickings are brought in by then, minutes after midnight. */
const PICKED_BY = 9 * 60

/**
 * What there is to plan: baskets in hand and to come, machines with what stands in them, nights, hands, sun and power. It begins with the
 * next half hour, so that it stays the same until then unless something is logged. Between two baskets others are answered.
 */
export async function planProblem(context: Context): Promise<PlanAnswer> {
  const now = Math.ceil(context.now() / HALF_HOUR) * HALF_HOUR
  const until = now + AHEAD
  const household = householdOf(context)
  const book = planBookOf(context)
  const machines = listMachines(context.db)
  const apart: PlanAnswer['apart'] = []
  const baskets: PlanBasket[] = []
  const views = (['prep', 'intake'] as const)
    .flatMap(stage => listBatchViews(context.db, { stage, limit: MOST_BASKETS }))
    .slice(0, MOST_BASKETS)
  for (const { batch_id: batchId, title } of views) {
    const state = foldBatch(entriesOfBatch(context.db, batchId), context.foods.find)
    if (!state) continue
    const latest = keepsUntil(state)
    const why = whyApart(state, latest, now)
    if (why) apart.push({ batchId, title, why, until: latest })
    else baskets.push(...basketsOf(context, batchId, title, state, machines, { now, until: latest, pace: book.pace }))
    await new Promise(setImmediate)
  }
  const expected = new Map<Picking['line'], (at: number) => PlanBasket[]>()
  for (const { line, at } of pickingsOf(context, book, now, until)) {
    const known = expected.get(line)
    const basketsAt = known ?? expectedOf(context, line, machines, book.pace)
    expected.set(line, basketsAt)
    baskets.push(...basketsAt(at))
    if (!known) await new Promise(setImmediate)
  }
  const kept = keptRuns(context.db)
  return {
    problem: {
      format: 'dulse-plan-problem',
      form: 2,
      from: now,
      until,
      household: { timeZone: household.timeZone, sleepFrom: household.sleepFrom, sleepTo: household.sleepTo },
      away: book.away.filter(({ from, to }) => to > now && from < until).map(({ from, to }) => ({ from, to })),
      handsMinutesADay: book.handsMinutes,
      machines: machines.map(machine => planMachine(context, machine, book, now, until)),
      baskets,
      wishes: wishesOf(context, book, baskets),
      sun: sunOf(context, now, until),
      prices: book.prices.length > 0 ? book.prices : [household.kwhPrice],
      pins: [],
      before: kept
        .filter(({ run }) => baskets.some(basket => basket.id === run.basketId))
        .map(({ run: { basketId, machineId, cardKey, startAt } }) => ({ basketId, machineId, cardKey, startAt })),
    },
    apart,
    shelf: shelfByForm(context.db).map(row => ({ foodKey: row.food_key, purpose: row.purpose, leftG: row.left_g })),
    colours: Object.fromEntries(
      [...new Set(baskets.map(basket => basket.foodKey))].map(key => [key, context.foods.find(key)!.powderColour]),
    ),
    kept: kept
      .sort((a, b) => a.run.startAt - b.run.startAt)
      .map(({ run, batchId, takenAt }) => ({ run, batchId, takenAt, actual: actualOf(context, batchId) })),
    weather: book.weather && { source: book.weather.source, at: book.weather.at },
  }
}

/** What became of a planned run: when it went in, and where. */
function actualOf({ db }: Context, batchId: string | undefined): PlanAnswer['kept'][number]['actual'] {
  const view = batchId === undefined ? undefined : batchView(db, batchId)
  if (!view?.loaded_at || !view.machine_id) return undefined
  return { loadedAt: view.loaded_at, machineId: view.machine_id, machineName: findMachine(db, view.machine_id)?.name ?? '' }
}

/** What cannot be planned for: whose time is over, what stood too long in the warm, and what comes from jars, whose hours nobody knows. */
function whyApart(state: BatchState, until: number, now: number): PlanAnswer['apart'][number]['why'] | undefined {
  if (dangerZoneOf(state, now)?.over) return 'warm'
  if (state.intake.body.fromJars) return 'jars'
  return until < now ? 'late' : undefined
}

function planMachine(context: Context, machine: Machines[number], { meals }: PlanBook, now: number, until: number): PlanMachine {
  const { attended, underVacuum, drawsPower, outdoors } = WAYS[machine.kind]
  const { timeZone } = householdOf(context)
  const busy = standingIn(context, machine.id).map(({ view, places, out }): Busy => {
    const food = context.foods.find(view.food_key)
    const card = food?.cards.find(item => item.key === view.card_key)
    return {
      from: view.loaded_at ?? view.started_at,
      to: Math.max(now, out?.p90 ?? now + UNKNOWN),
      places,
      heat: card && heatOf(card, machine),
      smell: food && smells(food),
    }
  })
  const closed = meals
    .filter(meal => meal.machineId === machine.id)
    .flatMap(meal =>
      daysOf(now, until, timeZone).map((day): Busy => ({
        from: atMinuteOfDay(day, timeZone, meal.fromMinute, 0),
        to: meal.toMinute === 1440 ? startOfDay(day, timeZone, 1) : atMinuteOfDay(day, timeZone, meal.toMinute, 0),
        places: machine.trays,
        closed: true,
      })),
    )
  return {
    id: machine.id,
    name: machine.name,
    places: machine.trays,
    attended,
    endsAlone: underVacuum || !drawsPower,
    tasteless: underVacuum,
    outdoors,
    busy: [...busy, ...closed],
  }
}

/** Local midnights of a stretch, the day of its beginning first. */
function daysOf(from: number, until: number, timeZone: string): number[] {
  const days: number[] = []
  for (let i = 0; ; i++) {
    const day = startOfDay(from, timeZone, i)
    if (day >= until) return days
    days.push(day)
  }
}

/** The sun of the days that are planned. */
function sunOf(context: Context, now: number, until: number): SunSpell[] {
  const found: SunSpell[] = []
  for (const spell of sunAhead(startOfDay(now, householdOf(context).timeZone), householdOf(context), skyOf(context))) {
    if (spell.from >= until) break
    found.push(spell)
  }
  return found
}

interface Limits {
  now: number
  until: number
  pace: number
}

/** A basket as the plan takes it: whole, or in the fewest parts that find a machine. */
function basketsOf(context: Context, batchId: string, title: string, state: BatchState, machines: Machines, limits: Limits): PlanBasket[] {
  const { food, purpose, intake, prep, splits, balance, hold } = state
  const isCut = prep.some(({ body }) => body.step === 'cut' || body.step === 'puree')
  // A part that went its own way is not in this basket any more; one that came from another is prepared already.
  const prepared = intake.body.prepared && balance.solids
  const weightG = prepared ? balance.weightG.p50 : intake.body.weightG - partedG(splits)
  const smoker = machines.find(machine => machine.id === intake.body.machineId && WAYS[machine.kind].partOnly)
  const found = inParts(title, parts =>
    optionsOf(
      context,
      {
        food,
        purpose,
        weightG: weightG / parts,
        weighed: intake.body.weighed,
        prepared,
        cutAs: isCut ? intake.body.cardKey : undefined,
        cardKey: intake.body.cardKey,
        smokerId: smoker?.id,
        handG: balance.weightG.p50 / parts,
        restDays: restNeeded(state),
      },
      machines,
      limits.now,
      limits.pace,
    ),
  )
  const since = isCut ? prep.at(-1)!.at : intake.at
  const stands = since + holdLimit('counter', isCut ? 'cut' : 'raw', food)
  return found.map(({ options, title: called, mark, parts }) => ({
    id: `${batchId}${mark}`,
    title: called,
    foodKey: food.key,
    purpose,
    weightG: weightG / parts,
    readyAt: limits.now,
    keepsUntil: Math.round(limits.until),
    // What is in the cold already waits where it is.
    warmUntil: hold ? undefined : Math.round(Math.max(limits.now, Math.min(stands, limits.until))),
    smell: smells(food),
    options,
  }))
}

/** In the fewest parts that find a machine. */
function inParts(title: string, optionsFor: (parts: number) => PlanBasket['options']) {
  for (let parts = 1; ; parts++) {
    const options = optionsFor(parts)
    if (options.length === 0 && parts < MOST_PARTS) continue
    return Array.from({ length: parts }, (_, i) => ({
      options,
      parts,
      mark: parts === 1 ? '' : `#${i + 1}`,
      title: parts === 1 ? title : `${title}, part ${i + 1} of ${parts}`,
    }))
  }
}

/** By when it is on the heat: what is kept as long as its place keeps it, else as long as the refrigerator would, cut or whole. */
function keepsUntil({ food, intake, prep, hold, stage }: BatchState): number {
  if (hold) return hold.until
  return stage === 'prep' && prep.length > 0
    ? prep.at(-1)!.at + holdLimit('refrigerator', 'cut', food)
    : intake.at + holdLimit('refrigerator', 'raw', food)
}

interface Picking {
  line: PlanBook['harvests'][number]
  at: number
}

/** Pickings of the calendar that are to come while it is planned. */
function pickingsOf(context: Context, { harvests }: PlanBook, now: number, until: number): Picking[] {
  const { timeZone } = householdOf(context)
  return harvests
    .flatMap(line => {
      const found: Picking[] = []
      const [first, last] = [dayAt(line.from, timeZone), dayAt(line.to, timeZone)]
      for (let i = 0; ; i += line.everyDays) {
        const day = startOfDay(first, timeZone, i)
        if (day > last || day >= until) return found
        const at = atMinuteOfDay(day, timeZone, PICKED_BY, 0)
        if (at > now && at < until) found.push({ line, at })
      }
    })
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST_PICKINGS)
}

/** Baskets of a line of the calendar, of a weight that nobody has weighed; each of its pickings is like the others. */
function expectedOf(context: Context, line: Picking['line'], machines: Machines, pace: number): (at: number) => PlanBasket[] {
  const food = context.foods.find(line.foodKey)
  if (!food) return () => []
  const weightG = (line.lowG + line.highG) / 2
  const parts = inParts(food.name, count =>
    optionsOf(
      context,
      {
        food,
        purpose: line.purpose,
        weightG: weightG / count,
        weightSdG: sdOf({ p10: line.lowG, p90: line.highG }) / count,
        handG: weightG / count,
      },
      machines,
      context.now(),
      pace,
    ),
  )
  return at =>
    parts.map(({ options, title, mark, parts: count }) => ({
      id: `harvest:${line.id}:${at}${mark}`,
      title,
      foodKey: food.key,
      purpose: line.purpose,
      weightG: weightG / count,
      readyAt: at,
      keepsUntil: Math.round(at + holdLimit('refrigerator', 'raw', food)),
      warmUntil: Math.round(at + holdLimit('counter', 'raw', food)),
      expected: true,
      smell: smells(food),
      options,
    }))
}
