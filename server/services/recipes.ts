import { isDeepStrictEqual } from 'node:util'
import { InputError } from '#core/errors'
import { PRODUCTS } from '#core/using'
import type { PastRecipe, Recipe } from '#shared/contracts'
import { dropRecipe, findRecipe, listRecipes, pastRecipes, putRecipe, type RecipeRecord } from '#server/db/recipes'
import type { Context } from './context'
import { Conflict, NotFound } from './refusals'
import { changedFields } from './settings'

export function recipeList({ db }: Context): RecipeRecord[] {
  return listRecipes(db)
}

/**
 * Adds a recipe (no version) or changes one (the version it was read at).
 * @throws InputError for a food or product that nobody knows, by field
 */
export function saveRecipe(context: Context, recipe: Recipe): RecipeRecord {
  const { db, foods } = context
  const lines = recipe.kind === 'blend' ? recipe.parts : recipe.powders
  const field = recipe.kind === 'blend' ? 'parts' : 'powders'
  const problems = lines.flatMap(({ foodKey, amount }, i) => [
    ...(foods.product(foodKey)
      ? []
      : [
          {
            field: `${field}.${i}.foodKey`,
            code: 'unknown-food',
            message: `“${foodKey}” is neither a food, a bought-in good nor a blend here. Choose one from the list.`,
          },
        ]),
    ...(amount.by === 'product' && amount.product !== 'whole' && !PRODUCTS.some(product => product.key === amount.product)
      ? [
          {
            field: `${field}.${i}.amount.product`,
            code: 'no-product',
            message: `“${amount.product}” is no product: ${PRODUCTS.map(product => product.key).join(', ')} or whole.`,
          },
        ]
      : []),
  ])
  if (problems.length > 0) throw new InputError(problems)
  return db
    .transaction(() => {
      const known = findRecipe(db, recipe.id)
      if (!known && recipe.version !== undefined) throw new Conflict('There is no such recipe to change.')
      if (known) {
        const { version: newest, ...stored } = known
        const { version, ...wanted } = recipe
        if (isDeepStrictEqual(stored, wanted)) return known
        if (version !== newest) throw new Conflict('This recipe was changed elsewhere meanwhile.', changedFields(stored, wanted))
      }
      putRecipe(db, recipe, context.now())
      return findRecipe(db, recipe.id)!
    })
    .immediate()
}

/** Recipes as they were before they were changed or removed, the last first. */
export function recipesOnce({ db }: Context): PastRecipe[] {
  return pastRecipes(db)
}

export function removeRecipe({ db, now }: Context, id: string): { removed: boolean } {
  if (!db.transaction(() => dropRecipe(db, id, now())).immediate()) throw new NotFound('recipeId', 'There is no such recipe.')
  return { removed: true }
}
