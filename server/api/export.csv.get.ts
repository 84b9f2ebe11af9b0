import { exportCsv } from '#server/services/exportLog'

export default route((event, context) => {
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="dulse-log.csv"')
  return exportCsv(context)
})
