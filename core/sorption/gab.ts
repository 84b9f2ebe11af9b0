import { GAS_J_MOL_K, ZERO_C } from '../air'
/**
 * A sorption isotherm of Guggenheim, Anderson and de Boer (GAB): how much water food holds in air of a
 * given humidity, X = Xm·C·K·a / ((1 − K·a)(1 − K·a + C·K·a)). Temperature acts on C and K by
 * Arrhenius, from 25 °C.
 */
export interface Isotherm {
  /** Xm, dry basis. */
  monolayer: number
  /** C and K at 25 °C. */
  c: number
  k: number
  /** Heats in J/mol; a positive one makes the constant fall as it gets warmer. */
  heatC: number
  heatK: number
}

const REFERENCE_K = 298.15

function at(isotherm: Isotherm, celsius: number): { xm: number; c: number; k: number } {
  const shift = (1 / (celsius + ZERO_C) - 1 / REFERENCE_K) / GAS_J_MOL_K
  return { xm: isotherm.monolayer, c: isotherm.c * Math.exp(isotherm.heatC * shift), k: isotherm.k * Math.exp(isotherm.heatK * shift) }
}

/** Moisture in balance with a water activity 0–1, dry basis. */
export function moistureAt(isotherm: Isotherm, activity: number, celsius: number): number {
  const { xm, c, k } = at(isotherm, celsius)
  const a = Math.min(0.99, Math.max(0, activity)) * k
  // Close to saturation the formula has a pole for K near 1; beyond it food is simply wet.
  const left = Math.max(1e-3, 1 - a)
  return (xm * c * a) / (left * (left + c * a))
}

/** Water activity 0–1 of food with a dry-basis moisture: the isotherm turned round (a quadratic). */
export function activityAt(isotherm: Isotherm, x: number, celsius: number): number {
  return activityCurve(isotherm, celsius)(x)
}

/** The same at one temperature for many moistures: what warmth does to the constants is worked out once. */
export function activityCurve(isotherm: Isotherm, celsius: number): (x: number) => number {
  const { xm, c, k } = at(isotherm, celsius)
  // a/X = α·a² + β·a + γ, the usual form for fitting GAB.
  const alpha = (k / xm) * (1 / c - 1)
  const gamma = 1 / (xm * c * k)
  return x => {
    if (x <= 0) return 0
    const beta = (1 - 2 / c) / xm - 1 / x
    if (Math.abs(alpha) < 1e-12) return Math.min(1, -gamma / beta)
    const root = Math.sqrt(Math.max(0, beta * beta - 4 * alpha * gamma))
    const [low, high] = [(-beta - root) / (2 * alpha), (-beta + root) / (2 * alpha)]
    const [lowFits, highFits] = [low > 0 && low * k < 1, high > 0 && high * k < 1]
    return Math.min(1, lowFits ? (highFits ? Math.min(low, high) : low) : highFits ? high : 1)
  }
}
