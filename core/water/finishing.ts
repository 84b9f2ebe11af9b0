import { targetIn, wayOf } from '../foods'
import { hoursOf, middleOf } from '../hours'
import type { BatchState } from '../log'
import { WAYS, type WayKey } from '../ways'
import { shareOfHours } from './run'
import { targetOfRun } from './target'

/** What heat would still do to a load: a way of its card that has a dial, its heat and the hours from what it holds. */
export interface Finishing {
  way: WayKey
  celsius: number
  hours: number
}

/** A crisp of pieces that are nearly there takes so long at the least, h (common practice: half an hour). */
const LEAST_H = 0.5
/** Hours are told by halves. */
const HALVES = 2

/**
 * The finish in warm air of what sun, room or smoke left: at the card's heat, from the water that it holds to the target; undefined where its
 * card has no way with a dial.
 * @param moisture water that it holds, or that its air leaves it at last, wet basis
 */
export function finishingOf(state: BatchState, moisture: number): Finishing | undefined {
  const { card, balance, run } = state
  const way = card.ways.find(item => WAYS[item.way].plainHeat && !item.partOnly)?.way
  if (!way) return undefined
  const target = run ? targetOfRun(state, run) : targetIn(state.food, state.purpose, way)
  const share = shareOfHours(1 - moisture, balance.solids.mean, target)
  const hours = share * middleOf(hoursOf({ ...state, way }))
  return { way, celsius: wayOf(card, way).temperatureC, hours: Math.max(LEAST_H, Math.round(HALVES * hours) / HALVES) }
}
