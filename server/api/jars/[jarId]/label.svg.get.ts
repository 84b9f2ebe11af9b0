import { labelQuery } from '#shared/contracts'
import { templateNamed } from '#server/labels/request'
import { labelSvg } from '#server/labels/svg'
import { jarLabel } from '#server/labels/words'

export default route(async (event, context) => {
  const template = templateNamed(readQuery(event, labelQuery).template)
  const label = jarLabel(context, idParam(event, 'jarId'), getRequestURL(event).origin)
  const svg = labelSvg(label, await useLabelFonts(), template)
  setResponseHeader(event, 'content-type', 'image/svg+xml; charset=utf-8')
  return svg
})
