import type { Purpose } from '../foods'

/** How full a jar is filled. */
export const FILL = 0.9
/** How much looser than its powder a form lies (common practice). */
const LOOSENESS: Record<Purpose, number> = { powder: 1, flakes: 0.6, pieces: 0.35 }

/** Freeze-dried pieces do not shrink: they take some two and a half times the room of those dried in air (common practice). */
const UNSHRUNK = 0.4

/**
 * Density of a form as it lies, g/mL: broken pieces far looser than their powder.
 * @param unshrunk dried under vacuum
 */
export function looseGMl(powderDensityGMl: number, purpose: Purpose, unshrunk = false): number {
  return powderDensityGMl * LOOSENESS[purpose] * (unshrunk && purpose === 'pieces' ? UNSHRUNK : 1)
}

/**
 * Grams that a jar takes.
 * @param powderDensityGMl density of the food's powder, g/mL
 * @param unshrunk dried under vacuum
 */
export function jarTakesG(powderDensityGMl: number, purpose: Purpose, jarMl: number, unshrunk = false): number {
  return looseGMl(powderDensityGMl, purpose, unshrunk) * jarMl * FILL
}
