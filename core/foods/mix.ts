import type { FindFood } from './book'
import { PURPOSES, type Food, type Purpose, type Spread } from './types'

/** Kinds are named up to here; beyond, they are counted. */
const NAMED = 3

/**
 * Several kinds in one basket as one food: water, trim and density by weight, and for the rest the strictest of them. Heat on the tongue,
 * allergens, gloves and cautions are those of whatever is in it; cards and drying heat are those of the first.
 * @param parts the other kinds, with what each weighs of `weightG` in all
 * @returns the first food as it is, where nothing else is known to be in it
 */
export function mixedFood(first: Food, weightG: number, parts: readonly { foodKey: string; weightG: number }[], find: FindFood): Food {
  if (first.mixOf) return first
  const others = parts.flatMap(part => {
    const food = find(part.foodKey)
    return food && food.key !== first.key ? [{ food, share: Math.min(1, part.weightG / weightG) }] : []
  })
  if (others.length === 0) return first
  const rest = Math.max(0, 1 - others.reduce((sum, { share }) => sum + share, 0))
  const all = [{ food: first, share: rest }, ...others]
  const foods = all.map(({ food }) => food)
  const blend = (of: (food: Food) => Spread): Spread => {
    const mean = all.reduce((sum, { food, share }) => sum + share * of(food).mean, 0)
    // Kinds differ each by itself.
    return { mean, sd: Math.sqrt(all.reduce((sum, { food, share }) => sum + (share * of(food).sd) ** 2, 0)) }
  }
  const strictest = (of: (food: Food, purpose: Purpose) => number) =>
    Object.fromEntries(PURPOSES.map(purpose => [purpose, Math.min(...foods.map(food => of(food, purpose)))])) as Record<Purpose, number>
  const shortest = foods.reduce((a, b) => (b.keepsMonths.powder.high < a.keepsMonths.powder.high ? b : a))
  const hottest = foods.filter(food => food.heatUnits).sort((a, b) => b.heatUnits!.value.high - a.heatUnits!.value.high)[0]
  const union = <T>(of: (food: Food) => readonly T[]) => [...new Set(foods.flatMap(of))]
  const cautions = foods.flatMap(food => food.cautions)
  return {
    ...first,
    name: nameOf(foods),
    mixOf: all.map(({ food, share }) => ({ key: food.key, name: food.name, share })),
    rawMoisture: { ...first.rawMoisture, value: blend(food => food.rawMoisture.value) },
    trimShare: { ...first.trimShare, value: blend(food => food.trimShare.value) },
    powderDensity: { ...first.powderDensity, value: blend(food => food.powderDensity.value) },
    fat: all.reduce((sum, { food, share }) => sum + share * food.fat, 0),
    saltShare: all.reduce((sum, { food, share }) => sum + share * (food.saltShare ?? 0), 0),
    freshDays: { ...first.freshDays, value: Math.min(...foods.map(food => food.freshDays.value)) },
    target: strictest((food, purpose) => food.target[purpose]),
    keepsMonths: shortest.keepsMonths,
    keepsReason: shortest.keepsReason,
    ...(hottest && { heatUnits: hottest.heatUnits }),
    allergens: union(food => food.allergens),
    traits: union(food => food.traits),
    cautions: cautions.filter((caution, i) => cautions.findIndex(other => other.text === caution.text) === i),
    schools: union(food => food.schools),
    forbids: foods.reduce((sum, food) => ({ ...sum, ...food.forbids }), {}),
  }
}

function nameOf(foods: readonly Food[]): string {
  const names = foods.map(({ name }, i) => (i === 0 ? name : name.toLowerCase()))
  if (names.length > NAMED) return `${names[0]!} and ${names.length - 1} more kinds`
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`
}
