/** The arithmetic of the constant-weight test. */
export interface ConstantWeight {
  constant: boolean
  /** Hours of drying between the weighings compared. */
  spanH: number
  lossG: number
  /** Loss that the scale could not tell from none, over the span. */
  noiseG: number
}

/** Shortest span of heat that the test takes, common practice: two hours between weighings. */
const LEAST_SPAN_H = 2

/**
 * Has the load stopped losing? Compares the newest weighing with the latest one at least two hours of
 * drying clock before it: constant when the loss is below what the scale and the hand could hide
 * (resolution, and two thousandths of the weight).
 * @param weighIns ascending in hours
 * @returns undefined while no two weighings are far enough apart.
 */
export function isConstantWeight(weighIns: readonly { hours: number; weightG: number }[], resolutionG = 1): ConstantWeight | undefined {
  const last = weighIns.at(-1)
  const before = last && weighIns.findLast(weighIn => last.hours - weighIn.hours >= LEAST_SPAN_H)
  if (!last || !before) return undefined
  const lossG = before.weightG - last.weightG
  const noiseG = Math.max(resolutionG, 0.002 * last.weightG)
  return { constant: Math.abs(lossG) <= noiseG, spanH: last.hours - before.hours, lossG, noiseG }
}
