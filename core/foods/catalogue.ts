import { apple, hotChili, parsley, strawberry, sweetPepper, tomato } from './fruit'
import { beetroot, carrot, celery, garlic, kale, mushroom, onion, pumpkin, zucchini } from './vegetables'
import type { Food, MethodCard } from './types'

/** Every food that Dulse knows, by name. */
export const FOODS: readonly Food[] = [
  apple, beetroot, carrot, celery, garlic, hotChili, kale, mushroom, onion, parsley, pumpkin, strawberry,
  sweetPepper, tomato, zucchini,
].sort((a, b) => a.name.localeCompare(b.name, 'en'))

const byKey = new Map(FOODS.map(food => [food.key, food]))

/** The food with this key, or undefined. */
export function findFood(key: string): Food | undefined {
  return byKey.get(key)
}

/** The card with this key, or the food's first where the key is missing or unknown. */
export function cardOf(food: Food, key?: string): MethodCard {
  return food.cards.find(card => card.key === key) ?? food.cards[0]!
}
