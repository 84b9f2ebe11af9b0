import { jarLabel } from '#server/services/label'
import { labelSvg } from '#server/services/labelSvg'

export default route(async (event, context) => {
  const label = jarLabel(context, idParam(event, 'jarId'), getRequestURL(event).origin)
  const svg = labelSvg(label, await useLabelFonts())
  setResponseHeader(event, 'content-type', 'image/svg+xml; charset=utf-8')
  return svg
})
