import { cardOf, type Food, type Purpose } from '#core/foods'
import { InputError } from '#core/errors'
import {
  alternatives,
  compareBoughtIn,
  forecastBasket,
  type Alternative,
  type BoughtIn,
  type Forecast,
  type OwnHistory,
} from '#core/planning'
import { ownRatios } from '#server/db/batches'
import { findMachine, listMachines } from '#server/db/settings'
import { householdOf, type Context } from './context'
import { hoursOfCard } from './learning'
import { NotFound } from './refusals'

/** Own batches that count: the newest say most about today's knife and machine. */
const HISTORY = 12

interface Question {
  foodKey: string
  cardKey: string
  purpose: Purpose
  weightG: number
  machineId: string
}

/** What a basket would take and give, if started now in this machine. */
export function forecast(context: Context, question: Question): Forecast {
  const food = foodOf(context, question.foodKey)
  const machine = findMachine(context.db, question.machineId)
  if (!machine) throw new NotFound('machineId', 'There is no such machine.')
  const card = cardOf(food, question.cardKey)
  return forecastBasket({
    food,
    card,
    purpose: question.purpose,
    weightG: question.weightG,
    machine,
    history: historyOf(context, food.key),
    usualHours: hoursOfCard(context, machine.id, food, card),
    jarMl: householdOf(context).jarMl,
    startAt: context.now(),
  })
}

/** The same basket in every machine and cut, soonest dry first. */
export function forecastAlternatives(context: Context, question: Question): Alternative[] {
  const food = foodOf(context, question.foodKey)
  const household = householdOf(context)
  return alternatives({
    ...question,
    food,
    machines: listMachines(context.db),
    history: historyOf(context, food.key),
    hoursOf: (machineId, card) => hoursOfCard(context, machineId, food, card),
    jarMl: household.jarMl,
    startAt: context.now(),
    household,
  })
}

/** Own peeling against bought-in stock. */
export function forecastBoughtIn(
  context: Context,
  {
    foodKey,
    ...question
  }: {
    foodKey: string
    purpose: Purpose
    ownPriceKg: number
    ownMinutesKg: number
    boughtPriceKg: number
    boughtMinutesKg: number
    hourWorth: number
  },
): BoughtIn {
  return compareBoughtIn({ food: foodOf(context, foodKey), ...question })
}

function foodOf({ foods }: Context, key: string): Food {
  const food = foods.find(key)
  if (!food) throw new InputError([{ field: 'foodKey', code: 'unknown-food', message: `“${key}” is not a food in the reference.` }])
  return food
}

function historyOf({ db }: Context, foodKey: string): OwnHistory {
  const rows = ownRatios(db, foodKey, HISTORY)
  const column = (pick: (row: (typeof rows)[number]) => number | null) =>
    rows.map(pick).filter((value): value is number => value !== null && value > 0)
  return {
    prep: column(row => row.prep_yield),
    dryingRatio: column(row => row.drying_ratio),
    powderRecovery: column(row => row.recovery),
  }
}
