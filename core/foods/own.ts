import { parseSpread, spreadText } from './amounts'
import type { CardSource, FoodSource } from './source'

/** What a food of a family usually is: to begin an own one with. All of it is to be put right by who knows better. */
export type UsualFood = Pick<FoodSource, 'water' | 'uncooked' | 'trim' | 'waits' | 'colour' | 'traits' | 'allergens' | 'fat' | 'forms'>

const FORMS_GIVEN = 2

/**
 * The middle of a family's foods, with a doubt that holds them all: how they differ among one another, and each from basket to basket.
 * @throws Error for a family without foods, or an amount that was not checked
 */
export function usualOfFamily(foods: readonly FoodSource[]): UsualFood {
  if (foods.length === 0) throw new Error('a family without foods')
  const raw = foods.flatMap(({ uncooked }) => uncooked ?? [])
  const fat = foods.map(food => food.fat ?? 0)
  const shared = (count: number) => count > foods.length / 2
  const allergens = [...new Set(foods.flatMap(food => food.allergens ?? []))]
  const common = allergens.filter(name => shared(foods.filter(food => food.allergens?.includes(name)).length))
  const some = foods.filter(food => food.allergens?.length).length > foods.length / 4
  const middle = byMiddle(foods, food => parseSpread(food.water)!.mean)
  return {
    water: pooled(foods.map(food => food.water)),
    ...(shared(raw.length) && { uncooked: pooled(raw) }),
    trim: pooled(foods.map(food => food.trim)),
    waits: byMiddle(foods, food => food.waits).waits,
    colour: middle.colour,
    // Of animals the strictest heat inside holds until somebody says which.
    ...(foods.some(food => food.traits?.includes('poultry')) && { traits: ['poultry', 'perishable', 'oil'] }),
    ...(common.length > 0 ? { allergens: common } : some && { allergens: ['unknown: say which'] }),
    ...(shared(fat.filter(share => share > 10).length) && { fat: Math.round(fat.reduce((sum, share) => sum + share, 0) / fat.length) }),
    forms: usualForms(foods),
  }
}

function pooled(texts: readonly string[]): string {
  const spreads = texts.map(text => parseSpread(text)!)
  const mean = spreads.reduce((sum, spread) => sum + spread.mean, 0) / spreads.length
  const variance = spreads.reduce((sum, spread) => sum + spread.sd ** 2 + (spread.mean - mean) ** 2, 0) / spreads.length
  const tenth = (value: number) => Math.round(10 * value) / 10
  return spreadText({ mean: tenth(mean), sd: Math.max(0.5, tenth(Math.sqrt(variance))) })
}

function byMiddle(foods: readonly FoodSource[], of: (food: FoodSource) => number): FoodSource {
  return [...foods].sort((a, b) => of(a) - of(b))[Math.floor(foods.length / 2)]!
}

/** The forms in which most of them are dried, by the card of the food that has it in the middle. */
function usualForms(foods: readonly FoodSource[]): Record<string, string | CardSource> {
  const cards = new Map<string, (string | CardSource)[]>()
  for (const food of foods)
    for (const [form, card] of Object.entries(food.forms))
      // What a card says of one food alone, its name or its raw state, is not the family's.
      if (typeof card === 'string' || (!card.raw && !card.water && !card.steps && !card.name))
        cards.set(form, [...(cards.get(form) ?? []), card])
  const most = [...cards].sort((a, b) => b[1].length - a[1].length).slice(0, FORMS_GIVEN)
  if (most.length === 0) return foods[0]!.forms
  return Object.fromEntries(most.map(([form, list]) => [form, list[Math.floor(list.length / 2)]!]))
}
