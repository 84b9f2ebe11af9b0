import { labelQuery } from '#shared/contracts'
import { labelPdf } from '#server/labels/pdf'
import { templateNamed } from '#server/labels/request'
import { jarLabel } from '#server/labels/words'

export default route(async (event, context) => {
  const template = templateNamed(readQuery(event, labelQuery).template)
  const label = jarLabel(context, idParam(event, 'jarId'), getRequestURL(event).origin)
  const pdf = await labelPdf(label, await useLabelFonts(), template)
  setResponseHeader(event, 'content-type', 'application/pdf')
  setResponseHeader(event, 'content-disposition', `inline; filename="jar-${label.jarNumber}.pdf"`)
  return pdf
})
