/** Below this share of the cup the knives throw air: seed it with powder, or fill it better (common practice). */
const LEAST_FILL = 0.35

/** How full a round fills the cup, 0–1. */
export const fillOf = (grams: number, looseGMl: number, cupMl: number) => grams / looseGMl / cupMl

/**
 * Finished powder that helps a small round to move, g; 0 where the cup is full enough.
 * @param powderGMl spooned density of the powder
 */
export function seedG(grams: number, looseGMl: number, powderGMl: number, cupMl: number): number {
  const missing = LEAST_FILL - fillOf(grams, looseGMl, cupMl)
  return missing > 0 ? missing * cupMl * powderGMl : 0
}
