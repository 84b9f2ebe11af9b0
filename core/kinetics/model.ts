/** Moisture that warm-air drying ends in when the room is not known, dry basis. From memory of isotherms at 50–60 °C and 5–15 % RH. */
export const DEFAULT_EQUILIBRIUM = { mean: 0.025, sd: 0.01 }

/**
 * What the working model believes of itself. The rate curve is not the physics of a tray, so its own
 * error is carried beside the scale's. The figures were set on simulated runs of diffusion models
 * (`tests/support/dryingRuns.ts`, `docs/method.md`) so that the 80 % window holds 8 of 10 finishes.
 */
export const MODEL = {
  /** ln c of the rate curve. */
  falling: { mean: Math.log(1.2), sd: 1.4 },
  /** q of the rate curve. */
  tail: { mean: 0.105, sd: 0.03 },
  /** Error of one weighing by handling: food stuck to fingers, a tray not quite centred. */
  handling: 0.005,
  /**
   * Error of the curve as a share of the water left: for the newest weighing; more while the food is
   * wet, since that tells little of the tail; and more for each finish time of age. Neighbouring
   * weighings share it: about so many count as independent.
   */
  error: { base: 0.006, wet: 0.11, perAge: 0.19, independent: 2 },
  /** Doubt of the remaining time beyond the fit, standard deviation of its logarithm: at the end, and more with the whole run ahead. */
  remaining: { last: 0.037, ahead: 0.065 },
}
