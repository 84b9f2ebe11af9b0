/** Moisture that warm-air drying ends in when the room is not known, dry basis. From memory of isotherms at 50–60 °C and 5–15 % RH. */
export const DEFAULT_EQUILIBRIUM = { mean: 0.025, sd: 0.01 }

/**
 * What the estimator believes of its own means. The figures were set on simulated runs of one population of bodies and held
 * against others (`tests/support`, `docs/method.md`), so that the 80 % window holds 8 of 10 finishes.
 */
export const MODEL = {
  /** Error of one weighing by handling: food stuck to fingers, a tray not quite centred. */
  handling: 0.005,
  /** No load follows a body's curve: variance of ln φ that comes up while ln φ falls by one. */
  wander: 0.007,
  /** Share of weights that are mistakes: a tray left out, a figure mistyped. */
  wildShare: 0.02,
  /**
   * Share of loads whose hours have nothing to do with the card's, and the spread of the logarithm of those. A single weight tells a
   * slow load from a dry one by the solids alone: then the card is believed less, rather than the food dry.
   */
  offCard: { share: 0.6, shareOnce: 0.75, sd: 0.65 },
  /** Share of loads whose weight at loading is off (a tray's weight not taken off), and by how much of it. */
  startOff: { share: 0.06, sd: 0.05 },
}
