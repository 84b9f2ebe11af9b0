import type { BatchState } from '../log'
import { finishingOf, type Finishing } from '../water'
import { WAYS } from '../ways'
import type { Assessment } from './assess'

/** What is out of its machine and not in a jar yet: whether it may be closed in one. */
export interface AfterRun {
  /**
   * `part`: its way took part of the water only; `vacuum`: dry, and it takes water from the room within minutes; `doubtful`: more likely wet
   * than dry, and nothing else says that it is dry.
   */
  is: 'part' | 'vacuum' | 'dry' | 'doubtful' | 'wet'
  /** What brings it to its target, where a way without a dial left it short. */
  finishing?: Finishing
}

/** Less likely dry than this, nobody closes it in a jar unasked. */
const LIKELY = 0.5
/** And less likely than this, it is told to be wet. */
const HARDLY = 0.2

/** What a page and its list say of a load that came out, from one verdict: nothing is closed in a jar that is likely wet. */
export function afterRun(state: BatchState, assessed: Assessment | undefined): AfterRun {
  const { run } = state
  if (run?.way.partOnly) return { is: 'part' }
  if (!run || !assessed) return { is: 'dry' }
  const { plainHeat, underVacuum } = WAYS[run.way.way]
  const { verdict, estimate } = assessed
  const { probabilityDry, moistureNow } = estimate
  const saysWet = verdict.level === 'keep-drying' && verdict.witnesses.some(({ says }) => says === 'wet')
  // A hand that felt it dry all through outweighs hours that nobody checked.
  const isDoubtful = probabilityDry < LIKELY && (verdict.level === 'keep-drying' || verdict.level === 'cool-and-check')
  const is = saysWet || (isDoubtful && probabilityDry < HARDLY) ? 'wet' : isDoubtful ? 'doubtful' : 'dry'
  if (underVacuum) return { is: is === 'wet' ? 'wet' : 'vacuum' }
  if (is === 'dry' || plainHeat) return { is }
  return { is, finishing: finishingOf(state, moistureNow.p50) }
}
