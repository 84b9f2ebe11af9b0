import { usualHoursFactor } from '#core/water'
import type { BatchState } from '#core/log'
import { wayOf, type Food, type MethodCard } from '#core/foods'
import { learnedHours, learnHours, type HoursLearned, type LearnedHours, type LoadAsked } from '#core/learning'
import { WAYS, type WayKey } from '#core/ways'
import { pacesMark, pacesOf } from '#server/db/batches'
import type { Db } from '#server/db/open'
import { findMachine, listMachines } from '#server/db/settings'
import type { Context } from './context'

/** Newest finished runs that are looked through; each machine's newest sixty count. */
const RUNS_LOOKED_AT = 2000
/** Newest runs of a machine that say how far its dial is off. */
export const HEATS_LEARNED_FROM = 30
/** Newest trays of a machine that say how evenly it dries today. */
export const TRAYS_LEARNED_FROM = 240

const kept = new WeakMap<Db, { mark: string; learned: HoursLearned }>()

/** What all finished runs teach of hours; worked out anew when one has come or gone. */
export function hoursLearned({ db, foods }: Context): HoursLearned {
  const mark = pacesMark(db)
  const before = kept.get(db)
  if (before?.mark === mark) return before.learned
  const kinds = new Map(listMachines(db).map(machine => [machine.id, machine.kind]))
  const learned = learnHours(
    pacesOf(db, RUNS_LOOKED_AT).map(row => ({
      pace: row.pace,
      doubt: row.pace_doubt,
      ...loadOf(row.machine_id, kinds.get(row.machine_id), foods.find(row.food_key) ?? { key: row.food_key, group: '' }, row.card_key),
      cutBy: row.cut_by ?? undefined,
    })),
  )
  kept.set(db, { mark, learned })
  return learned
}

/** A load as runs are compared: what dries by sun, room or vacuum teaches nothing of the same food in warm air. */
function loadOf(machine: string, kind: WayKey | undefined, { key, group }: Pick<Food, 'key' | 'group'>, card: string): LoadAsked {
  const apart = kind === undefined || WAYS[kind].plainHeat ? '' : `${kind} `
  return { machine, food: apart + key, family: apart + group, card }
}

/** Usual hours of a food and cut in a machine, before anything is known of thickness and person. */
export function hoursOfCard(context: Context, machineId: string, food: Food, card: MethodCard): LearnedHours {
  const kind = findMachine(context.db, machineId)?.kind
  return learnedHours(wayOf(card, kind).usualHours.value, hoursLearned(context), loadOf(machineId, kind, food, card.key))
}

/** Usual hours of a batch, as it was cut and by whom, in a machine. */
export function hoursInMachine(
  context: Context,
  machineId: string,
  state: Pick<BatchState, 'food' | 'card' | 'thicknessMm' | 'cutBy'>,
): LearnedHours {
  const kind = findMachine(context.db, machineId)?.kind
  const load = { ...loadOf(machineId, kind, state.food, state.card.key), cutBy: state.cutBy }
  return learnedHours(wayOf(state.card, kind).usualHours.value, hoursLearned(context), load, usualHoursFactor(state))
}
