import { believedOf, estimateDrying, estimateOf, type DryingEstimate, type DryingRun, type Posterior } from '../kinetics'
import type { BatchState, RunState } from '../log'
import { withoutBelief, Z_90, type Finding, type Interval } from '../stats'
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

/**
 * What is believed of the present or last run; undefined before loading.
 * @param at figures of now are of the last weight; of a rack that is off, or that nobody has weighed, they are of this instant
 */
export function estimateOfRun(state: BatchState, at?: number): DryingEstimate | undefined {
  const { run } = state
  if (!run) return undefined
  const belief = beliefOf(state, run, at)
  if (at === undefined || !isByHours(run) || run.unloadedAt !== undefined || isOffAt(run, at)) return belief.estimate
  return estimateOf({ ...belief.drying, at: run.clock.equivalentHoursAt(Math.max(at, run.loadedAt)) }, belief.posterior)
}

/** Nothing was weighed since it went in: what it holds is told by its hours alone. */
export const isByHours = ({ weighings }: Pick<RunState, 'weighings'>): boolean => weighings.length === 0

/** A run that is to teach is read as if it might take so many times more or less, and hold solids of so many times the doubt. */
const OPEN = { hours: 2.5, solids: 3, leastSolids: 0.3 }

/** ln of the hours to target by a run's weights, hardly by what was believed of its hours before: else that would teach itself. */
export function hoursByWeights(state: BatchState, run: RunState): Finding | undefined {
  const drying = dryingRunOf(state, run)
  const { middle, usualHours } = openHours(drying)
  return withoutBelief(estimateDrying({ ...drying, usualHours }).hoursToTarget, {
    log: Math.log(middle),
    doubt: Math.log(OPEN.hours) / Z_90,
  })
}

/** ln of the solids by a run's weights, in grams, hardly by what was believed of them; and how wet that makes it at its end. */
export function solidsByWeights(state: BatchState, run: RunState): { solids?: Finding; moistureNow: Interval } {
  const drying = dryingRunOf(state, run)
  const { mean, sd } = drying.solids
  const doubt = Math.max((OPEN.solids * sd) / mean, OPEN.leastSolids)
  const { solidsG, moistureNow } = estimateDrying({
    ...drying,
    solids: { mean, sd: doubt * mean },
    usualHours: openHours(drying).usualHours,
  })
  return { solids: withoutBelief(solidsG, { log: Math.log(mean * drying.startWeightG), doubt }), moistureNow }
}

function openHours({ usualHours: { low, high } }: DryingRun) {
  const middle = Math.sqrt(low * high)
  return { middle, usualHours: { low: middle / OPEN.hours, high: middle * OPEN.hours } }
}
