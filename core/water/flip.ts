import { effectsOfChoices } from '../foods'
import type { BatchState, RunState } from '../log'
import { WAYS } from '../ways'

/** Hours of heat after which the top of a sheet holds (common practice: five to six). */
const TOP_HOLDS_H = 5.5
/** A sheet that dries sooner is turned at this share of its hours. */
const AT_MOST = 0.55
/** Beyond this share of its hours a sheet that nobody turned dries as one that is left. */
const FORGOTTEN = 0.75

/** Hours on the drying clock at which a sheet is to be turned over; undefined where it is not, or not by the school that was chosen. */
export function flipHour(
  { card, choices }: Pick<BatchState, 'card' | 'choices'>,
  { way, usualHours }: Pick<RunState, 'way' | 'usualHours'>,
): number | undefined {
  if (card.feelForm !== 'sheet' || !WAYS[way.way].plainHeat || choices.turning === 'never') return undefined
  const { low, high } = usualHours ?? way.usualHours.value
  return Math.min(TOP_HOLDS_H, AT_MOST * Math.sqrt(low * high))
}

/**
 * Hours of a sheet that ought to have been turned over and was not, over those of one that was: 1 until then, and once it was.
 * @param atH what the drying clock reads
 */
export function unflippedFactor(state: Pick<BatchState, 'card' | 'choices' | 'food'>, run: RunState, atH: number): number {
  if (flipHour(state, run) === undefined || run.places.flippedAt !== undefined) return 1
  const { low, high } = run.usualHours ?? run.way.usualHours.value
  return atH < FORGOTTEN * Math.sqrt(low * high) ? 1 : effectsOfChoices(state.food, { turning: 'never' }).hours
}
