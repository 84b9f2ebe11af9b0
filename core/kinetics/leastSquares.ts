import { solveSymmetric, invertSymmetric } from '../stats'

/** A sum of squares to make small. */
export interface LeastSquaresProblem {
  start: readonly number[]
  /** Number of residuals. */
  count: number
  /** Writes the residuals at `parameters` (already divided by their standard deviations) into `out`. */
  residuals: (parameters: readonly number[], out: Float64Array) => void
  /**
   * Writes the slopes of the residuals, one array a parameter. Called right after `residuals` at the same
   * parameters. By differences when missing.
   */
  jacobian?: (parameters: readonly number[], columns: readonly Float64Array[]) => void
  /**
   * The first `robust` residuals get Student's t loss with 4 degrees of freedom in place of the
   * square, so that a wild one pulls little (Lange, Little & Taylor 1989). Default 0.
   */
  robust?: number
  lower?: readonly number[]
  upper?: readonly number[]
  /** Default 60. */
  maxIterations?: number
  /** Relative fall of the cost that counts as none. Default 1e-10. */
  tolerance?: number
}

export interface LeastSquaresFit {
  parameters: number[]
  /** Inverse of the (weighted) Gauss–Newton matrix at the end; undefined when it is singular. */
  covariance: number[][] | undefined
  cost: number
  iterations: number
  converged: boolean
}

const DEGREES_OF_FREEDOM = 4

/**
 * Levenberg–Marquardt with bounds and an optional robust loss (Marquardt 1963; Moré 1978 for the
 * scaling by the diagonal). Priors enter as residuals of their own. The derivative is taken by
 * differences unless it is given: one-sided on the way, central for the covariance.
 * @throws RangeError when the start gives residuals that are not finite.
 */
export function fitLeastSquares(problem: LeastSquaresProblem): LeastSquaresFit {
  const { count, robust = 0, maxIterations = 60, tolerance = 1e-10 } = problem
  const size = problem.start.length
  const clamp = (values: readonly number[]) =>
    values.map((value, i) => Math.min(problem.upper?.[i] ?? Infinity, Math.max(problem.lower?.[i] ?? -Infinity, value)))

  let parameters = clamp(problem.start)
  let residuals = new Float64Array(count)
  problem.residuals(parameters, residuals)
  let cost = costOf(residuals, robust)
  if (!Number.isFinite(cost)) throw new RangeError('the start gives residuals that are not finite')

  const jacobian = Array.from({ length: size }, () => new Float64Array(count))
  const scratch = [new Float64Array(count), new Float64Array(count)] as const
  let trial = new Float64Array(count)
  let damping = 1e-3
  let converged = false
  let iterations = 0

  while (iterations < maxIterations && !converged) {
    iterations++
    differentiate(problem, parameters, residuals, jacobian, scratch)
    const { matrix, gradient } = normalEquations(jacobian, residuals, robust)
    let improved = false
    for (let attempt = 0; attempt < 12 && !improved; attempt++) {
      const damped = matrix.map((row, i) => row.map((value, j) => (i === j ? value * (1 + damping) + 1e-300 : value)))
      const step = solveSymmetric(damped, gradient)
      if (step) {
        const candidate = clamp(parameters.map((value, i) => value - step[i]!))
        problem.residuals(candidate, trial)
        const candidateCost = costOf(trial, robust)
        if (candidateCost <= cost) {
          converged = cost - candidateCost <= tolerance * (cost + 1e-300)
          parameters = candidate
          cost = candidateCost
          ;[residuals, trial] = [trial, residuals]
          damping = Math.max(1e-12, damping / 5)
          improved = true
          continue
        }
      }
      damping *= 4
    }
    // No step lowers the cost any more: this is the bottom as far as the arithmetic can tell.
    if (!improved) converged = true
  }
  differentiate(problem, parameters, undefined, jacobian, scratch)
  const { matrix } = normalEquations(jacobian, residuals, robust)
  return { parameters, covariance: invertSymmetric(matrix), cost, iterations, converged }
}

function robustWeight(residual: number): number {
  return (DEGREES_OF_FREEDOM + 1) / (DEGREES_OF_FREEDOM + residual * residual)
}

function costOf(residuals: Float64Array, robust: number): number {
  let sum = 0
  for (let i = 0; i < residuals.length; i++) {
    const square = residuals[i]! * residuals[i]!
    sum += i < robust ? (DEGREES_OF_FREEDOM + 1) * Math.log1p(square / DEGREES_OF_FREEDOM) : square
  }
  return Number.isNaN(sum) ? Infinity : sum
}

function differentiate(
  problem: LeastSquaresProblem,
  parameters: readonly number[],
  here: Float64Array | undefined,
  jacobian: Float64Array[],
  [ahead, behind]: readonly [Float64Array, Float64Array],
): void {
  if (problem.jacobian) return problem.jacobian(parameters, jacobian)
  for (let j = 0; j < parameters.length; j++) {
    const step = (here ? 1e-7 : 1e-5) * Math.max(1e-2, Math.abs(parameters[j]!))
    const shifted = [...parameters]
    shifted[j] = parameters[j]! + step
    problem.residuals(shifted, ahead)
    if (!here) {
      shifted[j] = parameters[j]! - step
      problem.residuals(shifted, behind)
    }
    const from = here ?? behind
    const distance = here ? step : 2 * step
    const column = jacobian[j]!
    for (let i = 0; i < column.length; i++) column[i] = (ahead[i]! - from[i]!) / distance
  }
}

function normalEquations(jacobian: readonly Float64Array[], residuals: Float64Array, robust: number) {
  const size = jacobian.length
  const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0))
  const gradient = new Array<number>(size).fill(0)
  for (let i = 0; i < residuals.length; i++) {
    const weight = i < robust ? robustWeight(residuals[i]!) : 1
    for (let a = 0; a < size; a++) {
      const slope = weight * jacobian[a]![i]!
      if (slope === 0) continue
      gradient[a]! += slope * residuals[i]!
      for (let b = 0; b <= a; b++) matrix[a]![b]! += slope * jacobian[b]![i]!
    }
  }
  for (let a = 0; a < size; a++) for (let b = 0; b < a; b++) matrix[b]![a] = matrix[a]![b]!
  return { matrix, gradient }
}
