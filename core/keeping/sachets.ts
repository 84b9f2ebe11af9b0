import { ZERO_C, GAS_J_MOL_K, saturationKPa, type Air } from '../air'
import { InputError, problem } from '../errors'

/** Sizes of oxygen absorbers that are sold, cm³ of oxygen. */
const ABSORBERS_CC = [50, 100, 300, 500, 1000, 2000] as const
const OXYGEN_SHARE = 0.21
/** Density of dry food without its pores, g/mL (common practice). */
const SOLID_G_ML = 1.4

export interface Absorber {
  /** Air in the jar, mL, and the oxygen in it. */
  airMl: number
  oxygenMl: number
  /** The next size up, and how many of it where one is not enough. */
  sizeCc: number
  count: number
}

/**
 * The oxygen absorber for a jar: (volume − what the solids take) × 0.21, the next size up.
 * @throws InputError for a volume that the food does not fit in
 */
export function oxygenAbsorber(jarMl: number, dryG: number): Absorber {
  const airMl = jarMl - dryG / SOLID_G_ML
  if (!(jarMl > 0 && dryG >= 0 && airMl > 0))
    throw new InputError([problem('jarMl', 'does-not-fit', '{dryG} does not fit into {jarMl}', { dryG, jarMl })])
  const oxygenMl = airMl * OXYGEN_SHARE
  const largest = ABSORBERS_CC.at(-1)!
  const sizeCc = ABSORBERS_CC.find(size => size >= oxygenMl) ?? largest
  return { airMl, oxygenMl, sizeCc, count: Math.ceil(oxygenMl / sizeCc) }
}

/** Water that silica gel holds at a humidity, g a gram: about as its isotherm at 25 °C (makers' sheets, from memory). */
const SILICA: readonly [humidity: number, share: number][] = [
  [0, 0],
  [0.1, 0.06],
  [0.2, 0.11],
  [0.3, 0.17],
  [0.4, 0.22],
  [0.5, 0.26],
  [0.6, 0.29],
  [0.8, 0.33],
]

/** What a gram of silica gel takes up before the air beside it is as humid as that, g. */
export function silicaHolds(humidity: number): number {
  const above = SILICA.findIndex(([at]) => at >= humidity)
  if (above < 0) return SILICA.at(-1)![1]
  if (above === 0) return 0
  const [from, to] = [SILICA[above - 1]!, SILICA[above]!]
  return from[1] + ((to[1] - from[1]) * (humidity - from[0])) / (to[0] - from[0])
}

/**
 * Silica gel for a jar: for the vapour in its air, and what gets in over the months, at the humidity wanted.
 * It keeps the air above a powder dry; it does not dry a damp powder.
 * @param ingressG water that the package lets in meanwhile, g
 * @throws InputError for a humidity outside 5 to 60 %
 */
export function desiccantG(input: { airMl: number; filledIn: Air; wanted: number; ingressG: number }): number {
  if (!(input.wanted >= 0.05 && input.wanted <= 0.6))
    throw new InputError([{ field: 'wanted', code: 'out-of-range', message: 'must be between 5 and 60 % humidity' }])
  // Vapour in the air closed in, by the gas law; water is 18.015 g/mol.
  const vapourG =
    ((saturationKPa(input.filledIn.celsius) * input.filledIn.humidity * 1000 * input.airMl * 1e-6) /
      (GAS_J_MOL_K * (input.filledIn.celsius + ZERO_C))) *
    18.015
  return (vapourG + Math.max(0, input.ingressG)) / silicaHolds(input.wanted)
}

/** The two never go together without a word: an absorber needs some moisture to work. */
export const NOT_BOTH = 'An oxygen absorber needs a little moisture to work, and silica gel takes it away: one or the other, not both.'
