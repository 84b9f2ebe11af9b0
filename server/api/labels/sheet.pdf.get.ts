import { sheetQuery } from '#shared/contracts'
import { labelSheet } from '#server/labels/pdf'
import { labelsWanted, templateNamed } from '#server/labels/request'

export default route(async (event, context) => {
  const query = readQuery(event, sheetQuery)
  const template = templateNamed(query.template)
  const labels = labelsWanted(context, query.jars, query.copies, getRequestURL(event).origin)
  const pdf = await labelSheet(labels, await useLabelFonts(), template, { skip: query.skip, cut: query.cut })
  setResponseHeader(event, 'content-type', 'application/pdf')
  setResponseHeader(event, 'content-disposition', 'inline; filename="labels.pdf"')
  return pdf
})
