import { batchPage } from '#server/services/pages'

export default route((event, context) => batchPage(context, idParam(event, 'batchId')))
