import { EXPORT_TABLES } from '#shared/contracts'

export default route(async (event, context) => {
  // Large, and seldom asked for: it is loaded then.
  const { spreadsheet } = await import('#server/export/spreadsheet')
  setResponseHeader(event, 'content-type', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="dulse-logbook.xlsx"')
  return spreadsheet(context, EXPORT_TABLES)
})
