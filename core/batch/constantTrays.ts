import { isConstantWeight, type ConstantWeight } from '../dryness'
import type { RunState } from '../log'

/** Between the weighings of the constant-weight test, h (common practice). */
export const ROUND_H = 2

/** A tray in the rounds of extra drying: weighed, two hours more, weighed again, until it loses nothing. */
export interface TrayRound {
  position: number
  /** How often it was weighed since loading. */
  weighings: number
  lastG?: number
  /** The test between its last weighings two hours apart; undefined before there are two. */
  test?: ConstantWeight
}

/** Every tray of a run in the constant-weight test; the load is done when each of them is constant. */
export function constantTrays(run: RunState): TrayRound[] {
  return run.positions.map((position): TrayRound => {
    const own = run.trayWeights.filter(weight => weight.position === position)
    return { position, weighings: own.length, lastG: own.at(-1)?.weightG, test: isConstantWeight(own) }
  })
}
