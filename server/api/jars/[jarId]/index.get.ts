import { jarPage } from '#server/services/shelf'

export default route((event, context) => jarPage(context, idParam(event, 'jarId')))
