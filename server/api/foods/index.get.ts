import { foodList } from '#server/services/foods'

export default route((_event, context) => foodList(context))
