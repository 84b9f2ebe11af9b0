/** The ratios of a finished batch; undefined where a weight was not taken. */
export interface Yields {
  /** Trimmed over raw. */
  prep?: number
  /** Wet over dry: 8 means 8 g of prepared food gave 1 g dry. */
  dryingRatio?: number
  /** Powder over the dry pieces that were ground. */
  powderRecovery?: number
  /** Powder over raw; undefined where only a part was ground. */
  overall?: number
}

/** Ground less of the dry pieces than this, a batch was ground in part. */
const PART = 0.95

/** Ratios from the weights of one batch. */
export function overallYields(weights: { rawG?: number; loadedG?: number; dryG?: number; groundG?: number; powderG?: number }): Yields {
  const ratio = (a?: number, b?: number) => (a !== undefined && b !== undefined && b > 0 ? a / b : undefined)
  return {
    // What was loaded whole was prepared before it was weighed: it tells nothing of trimming.
    prep: weights.loadedG === weights.rawG ? undefined : ratio(weights.loadedG, weights.rawG),
    dryingRatio: ratio(weights.loadedG, weights.dryG),
    powderRecovery: ratio(weights.powderG, weights.groundG),
    overall: weights.dryG && weights.groundG && weights.groundG < PART * weights.dryG ? undefined : ratio(weights.powderG, weights.rawG),
  }
}
