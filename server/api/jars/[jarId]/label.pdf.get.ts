import { jarLabel } from '#server/services/label'
import { labelPdf } from '#server/services/labelPdf'

export default route(async (event, context) => {
  const label = jarLabel(context, idParam(event, 'jarId'), getRequestURL(event).origin)
  const pdf = await labelPdf(label, await useLabelFonts())
  setResponseHeader(event, 'content-type', 'application/pdf')
  setResponseHeader(event, 'content-disposition', `inline; filename="jar-${label.jarNumber}.pdf"`)
  return pdf
})
