import type { BatchState } from '../log'

/**
 * How hours grow with thickness: between 1, where the air carries the water off, and 2, where it must
 * diffuse out of the piece (common practice).
 */
const THICKNESS_POWER = 1.5
/** Beyond this the card no longer speaks of the same cut. */
const LEAST = 0.5
const MOST = 2.5

/** Hours of a batch as cut, over those of its card's thickness: 1 where either is not known. */
export function usualHoursFactor({ card, thicknessMm }: Pick<BatchState, 'card' | 'thicknessMm'>): number {
  if (!card.thicknessMm || !thicknessMm) return 1
  return Math.min(MOST, Math.max(LEAST, (thicknessMm / card.thicknessMm) ** THICKNESS_POWER))
}
