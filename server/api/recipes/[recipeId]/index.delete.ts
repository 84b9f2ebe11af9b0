import { removeRecipe } from '#server/services/recipes'

export default route((event, context) => removeRecipe(context, idParam(event, 'recipeId')))
