import { InputError, refuse } from '#core/errors'
import { ROUTES } from '#shared/api'
import { readFoodFile, withLine, writeFoodFile } from '#server/foods/foodFileText'
import { exportFoods, foodHours, foodList, foodPage, foodParts, importFoods, removeOwn, saveCard, saveFood } from '#server/services/foods'
import type { Handlers } from '../utils/route'

/** The reference and the household's own foods. */
export const foods = {
  foods: ({ context }) => foodList(context),
  saveFood: ({ context, body }) => saveFood(context, body.food, body.version),
  food: ({ context, params }) => foodPage(context, params.foodKey),
  foodHours: ({ context, params }) => foodHours(context, params.foodKey),
  removeFood: ({ context, params, query }) => {
    removeOwn(context, params.foodKey, query.card)
    return { removed: true }
  },
  saveCard: ({ context, body }) => saveCard(context, body),
  foodParts: () => foodParts(),
  schools: ({ context }) => [...context.foods.schools],
  exportFoods: ({ context, event, query }) => {
    const text = writeFoodFile(exportFoods(context, query.food))
    giveFile(event, 'application/yaml; charset=utf-8', { name: 'dulse-foods.yaml' })
    return text
  },
  /** YAML or JSON as text; all of it is taken in, or nothing. */
  importFoods: async ({ context, event }) => {
    if (!/^(?:application\/(?:yaml|json)|text\/yaml)\b/i.test(getRequestHeader(event, 'content-type') ?? ''))
      refuse('content-type', 'not-yaml', 'Send a file of foods as application/yaml or application/json.')
    const { file, lineOf } = await readFoodFile(await readText(event, ROUTES.importFoods.mostKb))
    try {
      return importFoods(context, file)
    } catch (error) {
      if (error instanceof InputError) throw new InputError(error.problems.map(problem => withLine(problem, lineOf)))
      throw error
    }
  },
} satisfies Partial<Handlers>
