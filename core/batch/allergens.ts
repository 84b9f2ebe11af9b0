import { allergensOfLot } from '../foods'
import type { BatchState } from '../log'

/** Allergens of a batch by their usual names: its food's own, sulphites where it was dipped in them, and what was said of it. */
export function allergensOf(state: Pick<BatchState, 'food' | 'prep' | 'contains'>): string[] {
  const own = isSulphited(state) ? [...state.food.allergens, 'sulphites'] : state.food.allergens
  return allergensOfLot(own, state.contains?.allergens, state.contains?.all)
}

/** Whether it was dipped in sulphite, by what was logged. */
export function isSulphited({ prep }: Pick<BatchState, 'prep'>): boolean {
  return prep.some(({ body }) => body.step === 'dip' && body.school === 'sulphite')
}
