import { expectedWeight, pacePerHour } from '../kinetics'
import type { BatchState } from '../log'
import { spellsAt } from '../water'
import type { Assessment } from './assess'

/** What a person who has seen many loads would remark on. */
export type Unusual =
  /** It runs at this share of the usual speed: 0.5 takes twice the hours. */
  | { kind: 'slow' | 'quick'; speed: number }
  /**
   * While the heat was off it took so much water back; hours that it needs now, at what the heat is set to or was last, and whether
   * it was weighed since.
   */
  | { kind: 'tookBack'; grams: number; hoursMore: number; atC: number; weighed: boolean }
  /** The weight at loading does not go with the others. */
  | { kind: 'startOff' }
  /** It has lost more than it can have since it was logged: it went in so many hours before. */
  | { kind: 'lateStart'; hours: number }

/** Hours so far off the usual ones are remarked on, when even the nearer end of the window is. */
const SLOW = 1.35
const QUICK = 0.7
/** Weighed so near the spell, the scale tells what the food was then. */
const JUST_H = 0.25
/** Less than this is the scale's. */
const LEAST_G = 2
/** Belief from which the weight at loading is questioned. */
const LIKELY_OFF = 0.5

/** What is unusual about a load in its machine, the most useful first. */
export function unusualOf(state: BatchState, { estimate }: Assessment, now: number): Unusual[] {
  const { run } = state
  if (!run || run.unloadedAt !== undefined) return []
  const found: Unusual[] = []
  const spells = spellsAt(state, run, now)
  const spell = spells.at(-1)
  if (spell && run.weighings.length - spell.before <= 1) {
    const first = spells.find(item => item.hours === spell.hours)!
    const before = run.weighings[first.before - 1]
    const after = run.weighings[first.before]
    const beforeG = before && first.hours - before.hours < JUST_H ? before.weightG : expectedWeight(estimate, first.hours - 1e-6).p50
    const afterG = after && after.hours - first.hours < JUST_H ? after.weightG : expectedWeight(estimate, first.hours).p50
    const heat = run.clock.spells.at(-1)!
    const pace = pacePerHour(heat.setC, run.way.temperatureC)
    const left = (estimate.hoursToTarget.p50 - run.clock.equivalentHoursAt(now)) / pace
    if (afterG - beforeG > LEAST_G)
      found.push({
        kind: 'tookBack',
        grams: afterG - beforeG,
        hoursMore: Math.max(0, left),
        atC: heat.setC,
        weighed: spell.before < run.weighings.length,
      })
  }
  if (estimate.lateStart && estimate.lateStart.belief > LIKELY_OFF) found.push({ kind: 'lateStart', hours: estimate.lateStart.hours })
  else if (estimate.startOff > LIKELY_OFF && run.weighings.length > 1) found.push({ kind: 'startOff' })
  else if (run.weighings.length > 0 && estimate.pace.p10 > SLOW) found.push({ kind: 'slow', speed: 1 / estimate.pace.p50 })
  else if (run.weighings.length > 0 && estimate.pace.p90 < QUICK) found.push({ kind: 'quick', speed: 1 / estimate.pace.p50 })
  return found
}
