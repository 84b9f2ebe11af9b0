import { effectsOfChoices } from '../foods'
import { hoursOfRun, middleOf } from '../hours'
import type { BatchState, RunState } from '../log'
import { WAYS } from '../ways'

/** Hours of heat after which the top of a sheet holds (common practice: five to six). */
const TOP_HOLDS_H = 5.5
/** A sheet that dries sooner is turned at this share of its hours. */
const AT_MOST = 0.55
/** Beyond this share of its hours a sheet that nobody turned dries as one that is left. */
const FORGOTTEN = 0.75

/** Hours on the drying clock at which a sheet is to be turned over; undefined where it is not, or not by the school that was chosen. */
export function flipHour(state: Sheets, run: RunState): number | undefined {
  if (state.card.feelForm !== 'sheet' || !WAYS[run.way.way].plainHeat || state.choices.turning === 'never') return undefined
  return Math.min(TOP_HOLDS_H, AT_MOST * middleOf(hoursOfRun(state, run)))
}
type Sheets = Pick<BatchState, 'food' | 'card' | 'purpose' | 'thicknessMm' | 'choices' | 'balance'>

/**
 * Hours of a sheet that ought to have been turned over and was not, over those of one that was: 1 until then, and once it was.
 * @param atH what the drying clock reads
 */
export function unflippedFactor(state: Sheets, run: RunState, atH: number): number {
  if (flipHour(state, run) === undefined || run.places.flippedAt !== undefined) return 1
  return atH < FORGOTTEN * middleOf(hoursOfRun(state, run)) ? 1 : effectsOfChoices(state.food, { turning: 'never' }).hours
}
