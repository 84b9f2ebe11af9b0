import { logbookSchema } from '#server/openapi/logbookSchema'

export default route(event => {
  setResponseHeader(event, 'content-type', 'application/schema+json; charset=utf-8')
  return JSON.stringify(logbookSchema(), undefined, 2)
})
