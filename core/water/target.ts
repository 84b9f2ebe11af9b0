import { effectsOfChoices, targetIn, type Purpose } from '../foods'
import type { BatchState, RunState } from '../log'

/**
 * What a run dries for: what the batch is meant for; coarser, and so wetter, where it is to be ground once, dried on as powder and ground
 * again. What went in as powder is at its second turn.
 */
export function driesFor(
  { food, purpose, choices }: Pick<BatchState, 'food' | 'purpose' | 'choices'>,
  run?: Pick<RunState, 'powder'>,
): Purpose {
  const { grindAt } = effectsOfChoices(food, choices)
  return grindAt && purpose === 'powder' && !run?.powder ? grindAt : purpose
}

/** Water at which a run is dry, wet basis. */
export const targetOfRun = (state: Pick<BatchState, 'food' | 'purpose' | 'choices'>, run: Pick<RunState, 'way' | 'powder'>): number =>
  targetIn(state.food, driesFor(state, run), run.way.way)
