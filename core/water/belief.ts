import { believedOf, estimateDrying, estimateOf, type DryingEstimate, type DryingRun, type Posterior } from '../kinetics'
import type { BatchState, RunState } from '../log'
import type { Interval } from '../stats'
import { dryingRunOf, isOffAt } from './run'

export interface Belief {
  drying: DryingRun
  posterior: Posterior
  /** The figures that it comes to, worked out when they are asked for. */
  readonly estimate: DryingEstimate
}

/** A folded run does not change: several ask for what is believed of it. */
const beliefs = new WeakMap<RunState, Belief>()
/** Of a rack that is off, by the instant that was asked for last. */
const drifting = new WeakMap<RunState, { at: number; belief: Belief }>()

/**
 * What all that was weighed of a run says.
 * @param at an instant later than its log: water that a rack without heat took up or lost until then is reckoned with
 */
export function beliefOf(state: BatchState, run: RunState, at = -Infinity): Belief {
  if (isOffAt(run, at)) {
    const known = drifting.get(run)
    if (known?.at === at) return known.belief
    const belief = believe(dryingRunOf(state, run, at))
    drifting.set(run, { at, belief })
    return belief
  }
  const known = beliefs.get(run) ?? believe(dryingRunOf(state, run))
  beliefs.set(run, known)
  return known
}

function believe(drying: DryingRun): Belief {
  const posterior = believedOf(drying)
  let estimate: DryingEstimate | undefined
  return {
    drying,
    posterior,
    get estimate() {
      return (estimate ??= estimateOf(drying, posterior))
    },
  }
}

/** What is believed of the present or last run; undefined before loading. */
export function estimateOfRun(state: BatchState, at?: number): DryingEstimate | undefined {
  return state.run && beliefOf(state, state.run, at).estimate
}

/** A run that is to teach hours is read as if it might take so many times more or less. */
const OPEN = 2.5

/** Hours to target by a run's weights, hardly by what was believed of its hours before: else what was believed would teach itself. */
export function hoursByWeights(state: BatchState, run: RunState): Interval {
  const drying = dryingRunOf(state, run)
  const middle = Math.sqrt(drying.usualHours.low * drying.usualHours.high)
  return estimateDrying({ ...drying, usualHours: { low: middle / OPEN, high: middle * OPEN } }).hoursToTarget
}
