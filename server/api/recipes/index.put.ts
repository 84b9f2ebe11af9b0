import { recipe } from '#shared/contracts'
import { saveRecipe } from '#server/services/recipes'

export default route(async (event, context) => saveRecipe(context, await readInput(event, recipe)))
