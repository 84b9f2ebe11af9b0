import { expandFood, PRACTICE } from './expand'
import { expandGoods } from './goods'
import { questionsFrom } from './schools'
import type { FoodSource, OwnCardSource, ReferenceSource } from './source'
import type { CardWay, Food, MethodCard, Purpose, SchoolQuestion } from './types'
import { hoursFactor, WAYS, type WayKey } from '../ways'

/** Gives a food by its key; undefined for one that it does not know. */
export type FindFood = (key: string) => Food | undefined

/** The foods of a household: those of the reference and its own. */
export interface FoodBook {
  /** By name. */
  foods: readonly Food[]
  find: FindFood
  /** What is bought in dry, by name: never dried here. */
  goods: readonly Food[]
  /** What may stand on a shelf: a food, a good that was bought in, or a blend of the household. */
  product: FindFood
  schools: readonly SchoolQuestion[]
  /** As its file has it, for copying. */
  sourceOf: (key: string) => FoodSource | undefined
}

/** Opens the reference together with the household's own foods and cards. */
export function foodBook(
  reference: ReferenceSource,
  own: { foods?: readonly FoodSource[]; cards?: readonly OwnCardSource[] } = {},
): FoodBook {
  const cardsOf = (key: string) => (own.cards ?? []).filter(card => card.food === key)
  const sources = new Map([...reference.foods, ...(own.foods ?? [])].map(food => [food.key, food]))
  const ownKeys = new Set((own.foods ?? []).map(food => food.key))
  const foods = [...sources.values()]
    .map(food => expandFood(food, reference, { own: ownKeys.has(food.key), ownCards: cardsOf(food.key) }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en'))
  const byKey = new Map(foods.map(food => [food.key, food]))
  const goods = reference.goods.map(expandGoods).sort((a, b) => a.name.localeCompare(b.name, 'en'))
  const goodsByKey = new Map(goods.map(good => [good.key, good]))
  return {
    foods,
    find: key => byKey.get(key),
    goods,
    product: key => byKey.get(key) ?? goodsByKey.get(key),
    sourceOf: key => sources.get(key),
    schools: questionsFrom(reference.schools),
  }
}

/** The food as it is cut: some cuts stop at another water than their food. */
export const asCut = (food: Food, card: Pick<MethodCard, 'target'>): Food =>
  card.target ? { ...food, target: { ...food.target, ...card.target } } : food

/** The card with this key, or the food's first where the key is missing or unknown. */
export function cardOf(food: Food, key?: string): MethodCard {
  return food.cards.find(card => card.key === key) ?? food.cards[0]!
}

/** Freeze-dried food is taken to 1 to 4 % whatever it is: it is packed at once, for years, without air (common practice). */
const VACUUM_TARGET = 0.04

/** Water at which a food is dry for a purpose, wet basis: its own, drier where it is dried under vacuum. */
export function targetIn({ target }: Pick<Food, 'target'>, purpose: Purpose, way?: WayKey): number {
  return way && WAYS[way].underVacuum ? Math.min(VACUUM_TARGET, target[purpose]) : target[purpose]
}

/** Salt in a food once it holds no more water than this, as a share: a bought-in good has it as it is. */
export function saltWhenDry(
  { saltShare = 0, group, rawMoisture }: Pick<Food, 'saltShare' | 'group' | 'rawMoisture'>,
  moisture: number,
): number {
  return group === 'goods' ? saltShare : Math.min(1, (saltShare * (1 - moisture)) / (1 - rawMoisture.value.mean))
}

/** To powder over to pliable pieces: five in a hundred of water instead of sixteen (common practice: 1.4 to 1.8). */
const CRISP_OVER_PLIABLE = 1.6

/**
 * Hours for a purpose over the card's: those of fruit and berries are until they are pliable, as drying guides give them. A freeze
 * dryer's cycle is one for all.
 */
export function purposeFactor({ pliable, target }: Pick<Food, 'pliable' | 'target'>, purpose: Purpose, way?: WayKey): number {
  return pliable && target[purpose] < target.pieces && !(way && WAYS[way].underVacuum) ? CRISP_OVER_PLIABLE : 1
}

/**
 * How a card is dried in a way. Where the reference has no such way for it, heat and hours are
 * reckoned by the rule of the way; without one it is the card's usual way.
 */
export function wayOf(card: MethodCard, key: WayKey | undefined): CardWay {
  const main = card.ways[0]!
  const known = key === undefined ? main : card.ways.find(way => way.way === key)
  if (known) return known
  const way = WAYS[key!]
  const { low, high } = main.usualHours.value
  const share = way.hours.from === 'form' ? 1 : hoursFactor(way) / hoursFactor(WAYS[main.way])
  const value = way.hours.from === 'pass' ? { low: way.hours.low, high: way.hours.high } : { low: low * share, high: high * share }
  return {
    way: way.key,
    temperatureC: way.celsius?.value ?? main.temperatureC,
    temperatureReason: way.reason || main.temperatureReason,
    usualHours: { value, source: `${PRACTICE}, reckoned from its usual way` },
    ...(way.partOnly && { partOnly: true }),
  }
}
