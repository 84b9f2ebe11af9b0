import type { Purpose } from '../foods'

/** How full a jar is filled. */
export const FILL = 0.9
/** How much looser than its powder a form lies (common practice). */
const LOOSENESS: Record<Purpose, number> = { powder: 1, flakes: 0.6, pieces: 0.35 }

/** Density of a form as it lies, g/mL: broken pieces far looser than their powder. */
export function looseGMl(powderDensityGMl: number, purpose: Purpose): number {
  return powderDensityGMl * LOOSENESS[purpose]
}

/**
 * Grams that a jar takes.
 * @param powderDensityGMl density of the food's powder, g/mL
 */
export function jarTakesG(powderDensityGMl: number, purpose: Purpose, jarMl: number): number {
  return looseGMl(powderDensityGMl, purpose) * jarMl * FILL
}
