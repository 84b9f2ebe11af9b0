import { effectsOfChoices, saltWhenDry } from '../foods'
import { finestThrough } from '../grinding'
import type { BatchState, Lot } from '../log'
import { isCookedThrough, stopsUnheated } from '../safety'
import { waterOf } from '../water'
import { WAYS } from '../ways'

/** Heat that pasteurises milk at once, °C (Codex, from memory: 72 °C for 15 seconds). */
const PASTEURISED_C = 72

/** Raw once it has its water back: dried raw, or animal food from a freeze dryer whose cooking nobody measured. */
export function isRaw({
  food,
  card,
  prep,
  run,
  choices,
  heated,
}: Pick<BatchState, 'food' | 'card' | 'prep' | 'run' | 'choices' | 'heated'>): boolean {
  if (card.raw || stopsUnheated(card, choices, heated).length > 0) return true
  if (choices.milk === 'raw' && food.traits.includes('dairy') && !prep.some(({ body }) => (body.coreC ?? 0) >= PASTEURISED_C)) return true
  if (!run || !WAYS[run.way.way].underVacuum) return false
  return !isCookedThrough(
    food,
    prep.map(({ body }) => body),
  )
}

/** What a batch gave, g: dry pieces, or powder with the pieces that were not ground; undefined before there is any. */
export function productOf({ purpose, dryG, powderG, had }: Pick<BatchState, 'purpose' | 'dryG' | 'powderG' | 'had'>): number | undefined {
  if (purpose === 'pieces' && powderG === 0) return dryG
  return powderG > 0 ? powderG + (had.pieces ?? 0) : undefined
}

/** How long it is said to keep, where a school was chosen that says so and it is dry enough for that. */
export function keepsOf(state: BatchState): Lot['keeps'] {
  if (state.choices.keepsHow === 'extension') return { months: state.food.keepsMonths[state.purpose], guidance: true }
  const { months, packages, mostWater = 1 } = effectsOfChoices(state.food, state.choices)
  return months && waterOf(state).moisture.p50 <= mostWater ? { months, packages } : undefined
}

/** Share of salt in the dry product, 0–1: what the food came with, brined or cured, and what seasoning gave it. Trimming takes it along. */
export function saltShareOf(state: BatchState): number {
  const saltG = state.prep.reduce((sum, { body }) => sum + (body.effect === 'added' ? (body.added?.saltG ?? 0) : 0), 0)
  const dryG = state.dryG ?? state.run?.loadedG
  const ofFood = saltWhenDry(state.food, waterOf(state).moisture.p50)
  return Math.min(1, ofFood + (dryG === undefined || dryG <= 0 ? 0 : saltG / dryG))
}

/** The finest sieve that what was ground has been through, µm; undefined where none was used. */
export const sieveReached = (state: Pick<BatchState, 'grinds'>) => finestThrough(state.grinds.flatMap(({ body }) => body.passes ?? []))
