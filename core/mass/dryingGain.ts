import { InputError } from '../errors'

/** What drying a powder took out. */
export interface DryingGain {
  lostG: number
  before: number
  after: number
}

/**
 * Water that a powder lost in the oven or the dryer, by its weights: what went was water, so its solids stay.
 * @param moisture wet basis, before
 * @throws InputError for an after-weight that is above the one before, or below the solids
 */
export function dryingGain(beforeG: number, afterG: number, moisture: number): DryingGain {
  const solidsG = beforeG * (1 - moisture)
  if (!(afterG > 0 && afterG <= beforeG))
    throw new InputError([
      { field: 'afterG', code: 'not-within-weight-before', message: 'must be above zero and not above the weight before' },
    ])
  // A scale may show a hair less than the solids; then all of the water is gone.
  return { lostG: beforeG - afterG, before: moisture, after: Math.max(0, 1 - solidsG / afterG) }
}
