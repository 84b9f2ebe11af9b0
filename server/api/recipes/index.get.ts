import { recipeList } from '#server/services/recipes'

export default route((_event, context) => recipeList(context))
