import type { Felt } from './types'

/** Errors of a hand that are looked at, in its standard deviations, with their weights (Gauss and Hermite, five points). */
export const HAND_AT = [-2.857, -1.3556, 0, 1.3556, 2.857] as const
const HAND_WEIGHTS = [0.01126, 0.22208, 0.53333, 0.22208, 0.01126] as const
/** Water over which it is told, logarithm of the dry basis. */
export const FELT_LN_X = { from: Math.log(0.004), to: Math.log(20), count: 48 } as const
const STEP = (FELT_LN_X.to - FELT_LN_X.from) / (FELT_LN_X.count - 1)

/**
 * ln of how likely all that was felt is, of a load that held so much water at each: one hand has one error, so that the same said twice
 * is not twice the evidence.
 */
export function lnFelt(felt: readonly Felt[], xAt: (hours: number) => number): number {
  const places = felt.map(({ hours }) => {
    const place = (Math.log(Math.max(1e-6, xAt(hours))) - FELT_LN_X.from) / STEP
    return Math.min(FELT_LN_X.count - 1.000_001, Math.max(0, place))
  })
  let sum = 0
  for (let hand = 0; hand < HAND_AT.length; hand++) {
    let ln = 0
    for (let i = 0; i < felt.length; i++) {
      const row = felt[i]!.ln[hand]!
      const left = Math.floor(places[i]!)
      ln += row[left]! + (row[left + 1]! - row[left]!) * (places[i]! - left)
    }
    sum += HAND_WEIGHTS[hand]! * Math.exp(ln)
  }
  return Math.log(Math.max(1e-300, sum))
}
