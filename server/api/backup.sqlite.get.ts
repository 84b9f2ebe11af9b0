import { createReadStream } from 'node:fs'
import { backUp, forget } from '#server/export/backup'

export default route(async (event, context) => {
  const path = await backUp(context)
  const day = new Date(context.now()).toISOString().slice(0, 10)
  setResponseHeader(event, 'content-type', 'application/vnd.sqlite3')
  setResponseHeader(event, 'content-disposition', `attachment; filename="dulse-${day}.sqlite"`)
  const stream = createReadStream(path)
  stream.once('close', () => forget(path))
  return sendStream(event, stream)
})
