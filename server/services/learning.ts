import { learnedHours, type LearnedHours } from '#core/planning'
import type { MethodCard } from '#core/foods'
import { pacesOf } from '#server/db/batches'
import type { Context } from './context'

/** Newest runs of a machine that say how it dries today. */
export const RUNS_LEARNED_FROM = 30

/** Usual hours of a food's card in a machine, from the household's own finished runs. */
export function hoursInMachine({ db }: Context, machineId: string, foodKey: string, card: MethodCard): LearnedHours {
  return learnedHours(card, pacesOf(db, machineId, RUNS_LEARNED_FROM).map(row => ({ pace: row.pace, sameCard: row.food_key === foodKey && row.card_key === card.key })))
}
