import { openApiDocument } from '#server/openapi/document'

export default route(event => {
  setResponseHeader(event, 'content-type', 'application/json; charset=utf-8')
  return JSON.stringify(openApiDocument(), undefined, 2)
})
