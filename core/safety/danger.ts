import type { Food } from '../foods'

/**
 * The danger clock's arithmetic, one for the log, the night, what-if and practice: where things grow, how fast, and for whom it runs.
 * From here on food of animals, pulses and rice is kept hot, °C (USDA, from memory: 140 °F); vegetables that were cooked are dried from
 * where the last of what harms stops growing (52 °C, FDA hazards guide, from memory).
 */
const HOT_ENOUGH_C = { perishable: 60, cooked: 52 }
/** Up to here nothing grows, °C (USDA, from memory: 40 °F). */
export const COLD_ENOUGH_C = 4
/** Above 90 °F it grows twice as fast (USDA, from memory). */
export const WARM_C = 32
/** Two hours in all, one above 32 °C (USDA, from memory). */
export const DANGER_LIMIT_H = 2
/** At or below this water activity food is not one that time and temperature are kept for (FDA Food Code, from memory). */
export const SAFE_ACTIVITY = 0.85
/** Sour or dry by nature: what is cooked of these does not spoil so (common practice). */
const SOUR: readonly string[] = ['orchard', 'berry', 'citrus', 'wateryFruit', 'dried', 'seaweed']
/** Steps after which low-acid food is perishable. */
export const COOKING_STEPS: readonly string[] = ['cook', 'boil', 'roast', 'puree', 'thicken']

/**
 * From which heat on the clock stands still for a food, °C; undefined where none runs.
 * @param cooked it was cooked or puréed, or will be before it is dried
 */
export function dangerHotC({ traits, group }: Pick<Food, 'traits' | 'group'>, cooked: boolean): number | undefined {
  if (traits.includes('perishable')) return HOT_ENOUGH_C.perishable
  return cooked && (!SOUR.includes(group) || traits.includes('lowAcid')) ? HOT_ENOUGH_C.cooked : undefined
}

/** Hours on the danger clock for an hour at a warmth: none in the cold and in the heat, two where it is warm. */
export function dangerRate(celsius: number, hotC: number): number {
  return celsius <= COLD_ENOUGH_C || celsius >= hotC ? 0 : celsius > WARM_C ? 2 : 1
}
