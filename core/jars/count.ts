/** What a kitchen scale cannot tell apart, g. */
const SAME_G = 0.5

/** What was counted of one jar, against what the log says is left in it. */
export type Counted =
  | { is: 'same' }
  /** So much is missing: it was taken and not logged. */
  | { is: 'missing'; goneG: number }
  /** More than the log has: something was poured in, or logged that never left. */
  | { is: 'more' }

/** Holds a counted weight against the log's, both g. */
export function countOfJar(countedG: number, leftG: number): Counted {
  const goneG = leftG - countedG
  if (goneG < -SAME_G) return { is: 'more' }
  // To the milligram: the log takes no finer weight.
  return goneG < SAME_G ? { is: 'same' } : { is: 'missing', goneG: Math.round(goneG * 1000) / 1000 }
}
