import type { PlanBasket, PlanWish } from '#core/plan'
import type { PlanBook } from '#shared/contracts'
import { DAY } from '#core/time'
import { shelfByForm } from '#server/db/plan'
import { householdOf, type Context } from '../context'
import { dayAt } from './book'

/** What is wished for and does not stand on the shelf yet; of two wishes of one kind the earlier has the shelf first. */
export function wishesOf(context: Context, { wishes }: PlanBook, baskets: readonly PlanBasket[]): PlanWish[] {
  const { timeZone } = householdOf(context)
  const left = new Map(shelfByForm(context.db).map(row => [`${row.food_key}/${row.purpose}`, row.left_g]))
  return [...wishes]
    .sort((a, b) => a.by.localeCompare(b.by))
    .flatMap((wish): PlanWish[] => {
      const food = context.foods.find(wish.foodKey)
      const key = `${wish.foodKey}/${wish.purpose}`
      const have = Math.min(wish.grams, left.get(key) ?? 0)
      left.set(key, (left.get(key) ?? 0) - have)
      // By the end of its day.
      const by = dayAt(wish.by, timeZone) + DAY
      if (!food || wish.grams - have <= 0 || by < context.now()) return []
      // What no basket in sight is for is the year's matter, not this plan's.
      if (!baskets.some(basket => basket.foodKey === wish.foodKey && basket.purpose === wish.purpose)) return []
      return [{ id: wish.id, title: food.name, foodKey: wish.foodKey, purpose: wish.purpose, grams: wish.grams - have, by }]
    })
}
