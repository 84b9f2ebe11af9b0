import { jarPage } from '#server/services/pages'

export default route((event, context) => jarPage(context, idParam(event, 'jarId')))
