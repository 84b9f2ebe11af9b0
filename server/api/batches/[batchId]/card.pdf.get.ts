import { batchCardPdf } from '#server/labels/batchCard'

export default route(async (event, context) => {
  const pdf = await batchCardPdf(context, idParam(event, 'batchId'), await useLabelFonts(), getRequestURL(event).origin)
  setResponseHeader(event, 'content-type', 'application/pdf')
  setResponseHeader(event, 'content-disposition', 'inline; filename="batch-card.pdf"')
  return pdf
})
