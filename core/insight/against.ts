import type { HoursTold } from './learning'

/** Hours as they were said against what it took; hours are told on a scale of ratios, and so is their middle. */
export const toldAgainst = ({ low, high, took }: HoursTold) => ({ low, middle: Math.sqrt(low * high), high, actual: took })

/**
 * What came of a basket, as a share of it, beside what the reference gives at its steps.
 * @returns undefined where nothing came of it
 */
export function yieldAgainst(
  rawG: number,
  productG: number | undefined,
  usual: { prep: number; drying: number; grinding: number } | undefined,
): { share: number; reference?: number } | undefined {
  if (!productG || rawG <= 0) return undefined
  return { share: productG / rawG, reference: usual && usual.prep * usual.drying * usual.grinding }
}
