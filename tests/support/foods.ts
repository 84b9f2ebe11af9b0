import { foodBook } from '#core/foods'
import { reference } from '#reference'

/** The reference, without foods of a household's own. */
export const BOOK = foodBook(reference)
export const FOODS = BOOK.foods
export const findFood = BOOK.find
