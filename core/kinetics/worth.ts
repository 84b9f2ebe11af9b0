/** What one more weighing would buy. */
export interface WeighingWorth {
  /** On the drying clock. */
  hours: number
  /** Width of the finish window after it over its width now, 0–1: small is much bought. */
  shrinksTo: number
}

/** Draws of the posterior, one number a curve: finish by the curve alone, and the load's weight at the hour asked. */
interface Question {
  hours: number
  finishes: Float64Array
  weights: Float64Array
  sdG: number
  spareBefore: number
  spareAfter: number
}

/**
 * How far the finish window would shrink by a weighing at an hour, before it is taken: in the draws,
 * finish and weight hang together, and a weight with error `sdG` takes that share of the finish's spread
 * away (the linear rule of Gauss; the doubt that no curve foretells stays, as it will be at that hour).
 * @returns undefined where fewer than half of the curves ever finish
 */
export function worthOfWeighing({ hours, finishes, weights, sdG, spareBefore, spareAfter }: Question): WeighingWorth | undefined {
  let count = 0
  let meanF = 0
  let meanW = 0
  for (let i = 0; i < finishes.length; i++) {
    if (!Number.isFinite(finishes[i]!)) continue
    count++
    meanF += finishes[i]!
    meanW += weights[i]!
  }
  if (count < finishes.length / 2) return undefined
  meanF /= count
  meanW /= count
  let varF = 0
  let varW = 0
  let both = 0
  for (let i = 0; i < finishes.length; i++) {
    if (!Number.isFinite(finishes[i]!)) continue
    const f = finishes[i]! - meanF
    const w = weights[i]! - meanW
    varF += f * f
    varW += w * w
    both += f * w
  }
  if (varF === 0) return { hours, shrinksTo: 1 }
  const told = (both * both) / (varF * (varW + count * sdG * sdG))
  const before = varF / count + spareBefore * spareBefore
  const after = (varF / count) * (1 - told) + spareAfter * spareAfter
  return { hours, shrinksTo: Math.min(1, Math.sqrt(after / before)) }
}
