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
