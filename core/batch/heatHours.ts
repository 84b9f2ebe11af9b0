import { dryingClock } from '../kinetics'
import { ofKind, type Entry } from '../log'

/** What hours of heat are counted at where only their number matters: any heat does. */
const ANY_C = 57

/** Hours that a run has had with the heat on, or in the sun, up to an instant. @param log of the run, in force */
export function heatHours(log: readonly Entry[], startedAt: number, at: number): number {
  const heats = ofKind(log, 'heat').map(entry => ({ at: entry.at, setC: entry.body.setC }))
  return dryingClock({ startAt: startedAt, referenceC: ANY_C, heats }).hoursAt(at)
}
