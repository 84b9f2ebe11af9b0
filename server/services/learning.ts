import { usualHoursFactor } from '#core/water'
import type { BatchState } from '#core/log'
import { wayOf } from '#core/foods'
import { learnedHours, type LearnedHours } from '#core/planning'
import { pacesOf } from '#server/db/batches'
import { findMachine } from '#server/db/settings'
import type { Context } from './context'

/** Newest runs of a machine that say how it dries today. */
export const RUNS_LEARNED_FROM = 30
/** Newest trays of a machine that say how evenly it dries today. */
export const TRAYS_LEARNED_FROM = 240

/** Usual hours of a batch, as it was cut and by whom, in a machine: from the household's own finished runs. */
export function hoursInMachine(
  { db }: Context,
  machineId: string,
  state: Pick<BatchState, 'food' | 'card' | 'thicknessMm' | 'cutBy'>,
): LearnedHours {
  const past = pacesOf(db, machineId, RUNS_LEARNED_FROM).map(row => ({
    pace: row.pace,
    sameCard: row.food_key === state.food.key && row.card_key === state.card.key,
    cutBy: row.cut_by ?? undefined,
  }))
  return learnedHours(wayOf(state.card, findMachine(db, machineId)?.kind), past, { factor: usualHoursFactor(state), cutBy: state.cutBy })
}
