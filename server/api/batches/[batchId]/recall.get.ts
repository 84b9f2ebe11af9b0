import { recallPage } from '#server/services/shelf'
import { requireBatch } from '#server/services/writeLog'

export default route((event, context) => {
  const batchId = idParam(event, 'batchId')
  requireBatch(context, batchId)
  return recallPage(context, batchId)
})
