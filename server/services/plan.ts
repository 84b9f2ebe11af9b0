import { foldBatch } from '#core/batch'
import { wayOf, type Food, type MethodCard } from '#core/foods'
import type { BatchState } from '#core/log'
import { alternatives, handsMinutesKg, nearestHeat, type Alternative } from '#core/planning'
import type { Busy, Heat, PlanBasket, PlanMachine, PlanOption } from '#core/plan'
import { elapsedHours, WAYS, type WayKey } from '#core/ways'
import { DAY, HOUR } from '#core/time'
import type { PlanAnswer, PlanQuery } from '#shared/contracts'
import { dryingViews, listBatchViews } from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import { listMachines } from '#server/db/settings'
import { householdOf, type Context } from './context'
import { hoursOfCard } from './learning'
import { ownOf } from './forecast'

/** So far ahead it is planned; nobody knows more. */
const AHEAD = 10 * DAY
/** Heats so far from a card's still suit it, °C: what dries beside it may ask a little more or less. */
const NEAR_C = 4
/** What stands in a machine and of which nobody knows when it is dry keeps its places so long. */
const UNKNOWN = DAY
/** Baskets in hand that are looked at. */
const MOST_BASKETS = 60

/** What there is to plan: baskets in hand, machines with what stands in them, nights and hands. */
export function planProblem(context: Context, { handsMinutes }: PlanQuery): PlanAnswer {
  const now = context.now()
  const household = householdOf(context)
  const machines = listMachines(context.db)
  const baskets = (['intake', 'prep'] as const)
    .flatMap(stage => listBatchViews(context.db, { stage, limit: MOST_BASKETS }))
    .flatMap(view => basketsOf(context, view.batch_id, view.title, machines, now))
  return {
    problem: {
      format: 'dulse-plan-problem',
      form: 1,
      from: now,
      until: now + AHEAD,
      household: { timeZone: household.timeZone, sleepFrom: household.sleepFrom, sleepTo: household.sleepTo },
      away: [],
      handsMinutesADay: handsMinutes,
      machines: machines.map(machine => planMachine(context, machine, now)),
      baskets,
    },
  }
}

const smells = ({ traits }: Food) => traits.includes('smell') || traits.includes('hot')
const heatOf = (card: MethodCard, machine: { kind: WayKey; lowC: number; highC: number }): Heat => {
  const celsius = nearestHeat(wayOf(card, machine.kind).temperatureC, machine)
  return { lowC: celsius - NEAR_C, highC: celsius + NEAR_C }
}

function planMachine({ db, foods }: Context, machine: ReturnType<typeof listMachines>[number], now: number): PlanMachine {
  const { attended, underVacuum, drawsPower } = WAYS[machine.kind]
  const busy = dryingViews(db)
    .filter(view => view.machine_id === machine.id)
    .map((view): Busy => {
      const food = foods.find(view.food_key)
      const card = food?.cards.find(item => item.key === view.card_key)
      return {
        from: view.loaded_at ?? view.started_at,
        to: Math.max(now, view.finish_to ?? now + UNKNOWN),
        places: (JSON.parse(view.trays) as number[]).length,
        heat: card && heatOf(card, machine),
        smell: food && smells(food),
      }
    })
  return {
    id: machine.id,
    name: machine.name,
    places: machine.trays,
    attended,
    endsAlone: underVacuum || !drawsPower,
    tasteless: underVacuum,
    busy,
  }
}

/** A basket as the plan takes it: whole, or in the fewest parts that find a machine. */
function basketsOf(context: Context, batchId: string, title: string, machines: ReturnType<typeof listMachines>, now: number): PlanBasket[] {
  const state = foldBatch(entriesOfBatch(context.db, batchId), context.foods.find)
  if (!state) return []
  for (let parts = 1; parts <= 4; parts++) {
    const options = optionsOf(context, state, machines, state.balance.weightG.p50 / parts, parts, now)
    if (options.length === 0 && parts < 4) continue
    return Array.from({ length: parts }, (_, i) => ({
      id: parts === 1 ? batchId : `${batchId}#${i + 1}`,
      title: parts === 1 ? title : `${title}, part ${i + 1} of ${parts}`,
      weightG: state.balance.weightG.p50 / parts,
      readyAt: now,
      keepsUntil: keepsUntil(state, now),
      smell: smells(state.food),
      options,
    }))
  }
  return []
}

/** By when it is on the heat: what is cut within two hours, what is kept as long as its place keeps it, else while it is fresh. */
function keepsUntil({ food, intake, prep, hold, stage }: BatchState, now: number): number {
  const until = hold
    ? hold.until
    : stage === 'prep' && prep.length > 0
      ? prep.at(-1)!.at + 2 * HOUR
      : intake.at + food.freshDays.value * DAY
  // Late already: at once is all that is left, within what an afternoon's work takes.
  return Math.max(until, now + 3 * HOUR)
}

function optionsOf(
  context: Context,
  state: BatchState,
  machines: ReturnType<typeof listMachines>,
  preparedG: number,
  parts: number,
  now: number,
): PlanOption[] {
  const { food, purpose, intake, prep } = state
  const rows = alternatives({
    food,
    purpose,
    cardKey: intake.body.cardKey,
    machineId: '',
    weightG: intake.body.weightG / parts,
    weighed: intake.body.weighed,
    machines,
    ownOf: ownOf(context, food, purpose),
    hoursOf: (machineId, card) => hoursOfCard(context, machineId, food, card, purpose),
    jarMl: householdOf(context).jarMl,
    startAt: now,
    household: householdOf(context),
  })
  // What is cut is not cut otherwise.
  const isCut = prep.some(({ body }) => body.step === 'cut' || body.step === 'puree')
  return rows
    .filter(row => !isCut || row.cardKey === intake.body.cardKey)
    .flatMap(row => optionOf(row, food, machines, (preparedG / 1000) * (isCut ? 1 : handsMinutesKg(food))))
}

function optionOf(row: Alternative, food: Food, machines: ReturnType<typeof listMachines>, minutes: number): PlanOption[] {
  const machine = machines.find(item => item.id === row.machineId)!
  // In one load, most likely.
  if (row.trays.p50 > machine.trays) return []
  const card = food.cards.find(item => item.key === row.cardKey)!
  const hours = (value: number) => elapsedHours(machine.kind, value)
  return [
    {
      machineId: row.machineId,
      cardKey: row.cardKey,
      places: Math.min(machine.trays, row.trays.p90),
      hours: { p10: hours(row.hoursPerLoad.p10), p50: hours(row.hoursPerLoad.p50), p90: hours(row.hoursPerLoad.p90) },
      heat: heatOf(card, machine),
      handsMinutes: Math.round(minutes) + 10,
      kWh: row.energyKWh.p50,
    },
  ]
}
