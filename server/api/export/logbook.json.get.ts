import { Readable } from 'node:stream'
import { logbookSnapshot } from '#server/export/logbook'

export default route((event, context) => {
  setResponseHeader(event, 'content-type', 'application/json; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="dulse-logbook.json"')
  return sendStream(event, Readable.from(logbookSnapshot(context)))
})
