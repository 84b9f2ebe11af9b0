import { productOf } from '../batch'
import type { BatchState } from '../log'

/** What a dried sheet stands for: so many grams are so many mL of what was spread. */
export interface Portion {
  dryG: number
  ml: number
}

/**
 * The fresh equivalent of a batch that was spread as measured portions: each sheet is a known amount,
 * and so is its weight in powder.
 * @returns undefined where nothing was measured out, or it is not dry yet
 */
export function portionOf(state: Pick<BatchState, 'run' | 'earlierRuns' | 'dryG' | 'powderG' | 'had' | 'purpose'>): Portion | undefined {
  const portions = (state.earlierRuns[0] ?? state.run)?.portions
  const productG = productOf(state) ?? state.dryG
  return portions && productG ? { dryG: productG / portions.count, ml: portions.ml } : undefined
}
