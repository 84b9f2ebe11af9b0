/** Density of dry food in a grain, kg/m³ (common practice). */
const GRAIN_KG_M3 = 1400
/** Viscosity of air at 20 °C, Pa·s (handbook). */
const AIR_PA_S = 1.81e-5
const GRAVITY = 9.81

/** Seconds in which a grain falls so far in still air, by Stokes. 10 µm over 10 cm: 24 s. */
export function settlingS(diameterUm: number, heightCm: number): number {
  const speed = (GRAIN_KG_M3 * GRAVITY * (diameterUm * 1e-6) ** 2) / (18 * AIR_PA_S)
  return heightCm / 100 / speed
}

/** Finest grains that a lid is kept shut for, µm: those that bite, and those that only float; of chili that is the few minutes that practice waits. */
const WAITS_FOR_UM = { chili: 3, other: 5 }

/** How long the lid stays on after the last burst, s: until the fine dust has fallen through the cup's height. */
export function lidRestS(cupHeightCm: number, chili: boolean): number {
  return Math.ceil(settlingS(chili ? WAITS_FOR_UM.chili : WAITS_FOR_UM.other, cupHeightCm) / 5) * 5
}
