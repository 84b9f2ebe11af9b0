import { cardOf, mixedFood, type Food, type MethodCard, type Purpose } from '#core/foods'
import { InputError } from '#core/errors'
import {
  alternatives,
  compareBoughtIn,
  forecastBasket,
  type Alternative,
  type BoughtIn,
  type Forecast,
  type OwnBasket,
} from '#core/planning'
import { findMachine, listMachines } from '#server/db/settings'
import { householdOf, type Context } from './context'
import { standingIn } from './machines'
import { skyOf } from './plan/book'
import { basketLearned, densityLearned, hoursOfCard } from './learning'
import { NotFound } from './refusals'

interface Question {
  foodKey: string
  cardKey: string
  purpose: Purpose
  weightG: number
  machineId: string
  weighed?: 'uncooked' | 'cooked'
  weightSdG?: number
  /** Other foods among it, with what each weighs. */
  mix?: { foodKey: string; weightG: number }[]
}

/** What a basket would take and give, if started now in this machine. */
export function forecast(context: Context, question: Question): Forecast {
  const food = basketOf(context, question)
  const machine = findMachine(context.db, question.machineId)
  if (!machine) throw new NotFound('machineId', 'There is no such machine.')
  const card = cardOf(food, question.cardKey)
  return forecastBasket({
    food,
    card,
    purpose: question.purpose,
    weightG: question.weightG,
    machine: { ...machine, ...placesOf(context, machine) },
    own: ownOf(context, food, question.purpose)(card),
    usualHours: hoursOfCard(context, machine.id, food, card, question.purpose),
    weighed: question.weighed,
    weightSdG: question.weightSdG,
    jarMl: householdOf(context).jarMl,
    startAt: context.now(),
    household: householdOf(context),
    skyOf: skyOf(context),
  })
}

/** The same basket in every machine and cut, soonest dry first. */
export function forecastAlternatives(context: Context, question: Question): Alternative[] {
  const food = basketOf(context, question)
  const household = householdOf(context)
  return alternatives({
    ...question,
    food,
    machines: listMachines(context.db).map(machine => ({ ...machine, ...placesOf(context, machine) })),
    ownOf: ownOf(context, food, question.purpose),
    hoursOf: (machineId, card) => hoursOfCard(context, machineId, food, card, question.purpose),
    jarMl: household.jarMl,
    startAt: context.now(),
    household,
    skyOf: skyOf(context),
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

/** Places of a machine that carry nothing now, and when those that do are free; nobody knows where one of their windows is not known. */
function placesOf(context: Context, machine: { id: string; trays: number }): { free: number; freeAt?: number } {
  const standing = standingIn(context, machine.id)
  const taken = standing.reduce((sum, { places }) => sum + places, 0)
  const freeAt = Math.max(...standing.map(({ out }) => out?.p50 ?? Number.NaN))
  return { free: Math.max(0, machine.trays - taken), freeAt: Number.isFinite(freeAt) ? freeAt : undefined }
}

/** What is in a basket, as one food. */
function basketOf(context: Context, { foodKey, weightG, mix = [] }: Question): Food {
  for (const part of mix) foodOf(context, part.foodKey)
  return mixedFood(foodOf(context, foodKey), weightG, mix, context.foods.find)
}

/** What own batches say of a basket of this food, by card. */
export function ownOf(context: Context, food: Food, purpose: Purpose): (card: MethodCard) => OwnBasket {
  // What lots of one kind taught is not the mix's.
  if (food.mixOf) return () => ({})
  const { prep, dry, recovery } = basketLearned(context, food)
  const density = densityLearned(context, food)
  return card => ({ prep: prep(card.key), dry: dry(card.key), recovery: recovery(purpose), density })
}
