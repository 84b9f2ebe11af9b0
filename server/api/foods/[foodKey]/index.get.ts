import { foodPage } from '#server/services/foods'

export default route((event, context) => foodPage(context, getRouterParam(event, 'foodKey') ?? ''))
