import { cardOf, findFood, type Purpose } from '#core/foods'
import { InputError } from '#core/errors'
import { forecastBasket, type Forecast, type OwnHistory } from '#core/planning'
import { ownRatios } from '#server/db/batches'
import { findMachine } from '#server/db/settings'
import { householdOf, type Context } from './context'
import { NotFound } from './refusals'

/** Own batches that count: the newest say most about today's knife and machine. */
const HISTORY = 12

/** What a basket would take and give, if started now in this machine. */
export function forecast(context: Context, question: { foodKey: string, cardKey: string, purpose: Purpose, weightG: number, machineId: string }): Forecast {
  const food = findFood(question.foodKey)
  if (!food) throw new InputError([{ field: 'foodKey', message: `“${question.foodKey}” is not a food in the reference.` }])
  const machine = findMachine(context.db, question.machineId)
  if (!machine) throw new NotFound('machineId', 'There is no such machine.')
  const household = householdOf(context)
  return forecastBasket({
    food, card: cardOf(food, question.cardKey), purpose: question.purpose, weightG: question.weightG,
    machine: { trays: machine.trays, trayAreaM2: machine.trayAreaM2, watts: machine.watts },
    history: historyOf(context, food.key, question.cardKey), jarMl: household.jarMl, startAt: context.now(),
  })
}

function historyOf({ db }: Context, foodKey: string, cardKey: string): OwnHistory {
  const rows = ownRatios(db, foodKey, cardKey, HISTORY)
  const column = (pick: (row: typeof rows[number]) => number | null) => rows.map(pick).filter((value): value is number => value !== null && value > 0)
  return {
    prep: column(row => row.prep_yield),
    dryingRatio: column(row => row.drying_ratio),
    powderRecovery: column(row => row.recovery),
    pace: column(row => (row.card ? row.pace : null)),
  }
}
