import { errorFunction } from 'simple-statistics'

/** Standard normal distribution function, absolute error below 2e-7. */
export function normalCdf(z: number): number {
  if (z > 8) return 1
  if (z < -8) return 0
  return 0.5 * (1 + errorFunction(z / Math.SQRT2))
}
