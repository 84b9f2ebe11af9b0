import { recipesOnce } from '#server/services/recipes'

export default route((_event, context) => recipesOnce(context))
