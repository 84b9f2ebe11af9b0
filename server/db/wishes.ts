import type { FoodWish } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

export interface WishRow {
  food_key: string
  least_g: number | null
  shop_per_kg: number | null
}

export function listWishes(db: Db): Map<string, WishRow> {
  return new Map(
    statement<WishRow>(db, 'SELECT * FROM food_wish')
      .all()
      .map(row => [row.food_key, row]),
  )
}

/** Writes what is given of a food and leaves the rest as it is; null takes a figure back. */
export function putWish(db: Db, wish: FoodWish): void {
  const known = statement<WishRow>(db, 'SELECT * FROM food_wish WHERE food_key = ?').get(wish.foodKey)
  const leastG = wish.leastG === undefined ? (known?.least_g ?? null) : wish.leastG
  const shop = wish.shopPerKg === undefined ? (known?.shop_per_kg ?? null) : wish.shopPerKg
  statement(db, 'INSERT OR REPLACE INTO food_wish (food_key, least_g, shop_per_kg) VALUES (?, ?, ?)').run(wish.foodKey, leastG, shop)
}
