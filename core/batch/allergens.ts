import type { BatchState } from '../log'

/** Allergens of a batch by their usual names: its food's own, and sulphites where it was dipped in them. */
export function allergensOf(state: Pick<BatchState, 'food' | 'prep'>): string[] {
  return isSulphited(state) ? [...state.food.allergens, 'sulphites'] : [...state.food.allergens]
}

/** Whether it was dipped in sulphite, by what was logged. */
export function isSulphited({ prep }: Pick<BatchState, 'prep'>): boolean {
  return prep.some(({ body }) => body.step === 'dip' && body.school === 'sulphite')
}
