import { InputError } from '../errors'
import { intervalFromLogNormal, type Interval } from '../stats'

/** A reference ratio: its median, the spread of its logarithm, and how many batches it counts as. */
export interface RatioReference {
  median: number
  sdLog: number
  countsAs?: number
}

export interface RatioEstimate {
  median: number
  /** Standard deviation of the logarithm for the next batch. */
  sdLog: number
  interval: Interval
  /** Own batches in it. */
  batches: number
}

/**
 * A yield from the user's own batches, shrunk toward the reference: normal–normal on the logarithm,
 * the reference counting as a few batches (default 3). The spread is that of the next batch, so it
 * holds the batches' own scatter and the doubt of their mean.
 * @param history ratios of earlier batches, each above 0
 * @throws InputError where a ratio is not above 0.
 */
export function shrunkRatio(history: readonly number[], reference: RatioReference): RatioEstimate {
  const bad = history.findIndex(ratio => !(ratio > 0 && Number.isFinite(ratio)))
  if (bad >= 0) throw new InputError([{ field: `history.${bad}`, code: 'not-above-zero', message: 'must be a ratio above 0' }])
  if (!(reference.median > 0))
    throw new InputError([{ field: 'reference.median', code: 'not-above-zero', message: 'must be a ratio above 0' }])
  const weight = reference.countsAs ?? 3
  const logs = history.map(Math.log)
  const prior = Math.log(reference.median)
  const total = weight + logs.length
  const mean = (weight * prior + logs.reduce((sum, value) => sum + value, 0)) / total
  const scatter = logs.reduce((sum, value) => sum + (value - mean) ** 2, 0)
  // Scatter is pooled with the reference's own, since three batches do not tell a spread.
  const variance = (weight * reference.sdLog ** 2 + scatter) / total
  const sdLog = Math.sqrt(variance * (1 + 1 / total))
  const median = Math.exp(mean)
  return { median, sdLog, interval: intervalFromLogNormal(median, sdLog), batches: logs.length }
}

/** The ratios of a finished batch; undefined where a weight was not taken. */
export interface Yields {
  /** Trimmed over raw. */
  prep?: number
  /** Wet over dry: 8 means 8 g of prepared food gave 1 g dry. */
  dryingRatio?: number
  /** Powder over dry. */
  powderRecovery?: number
  /** Powder over raw. */
  overall?: number
}

/** Ratios from the weights of one batch. */
export function overallYields(weights: { rawG?: number; loadedG?: number; dryG?: number; powderG?: number }): Yields {
  const ratio = (a?: number, b?: number) => (a !== undefined && b !== undefined && b > 0 ? a / b : undefined)
  return {
    // What was loaded whole was prepared before it was weighed: it tells nothing of trimming.
    prep: weights.loadedG === weights.rawG ? undefined : ratio(weights.loadedG, weights.rawG),
    dryingRatio: ratio(weights.loadedG, weights.dryG),
    powderRecovery: ratio(weights.powderG, weights.dryG),
    overall: ratio(weights.powderG, weights.rawG),
  }
}
