import { kitchenPage } from '#server/services/kitchen'

export default route((_event, context) => kitchenPage(context))
