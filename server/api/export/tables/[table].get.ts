import { tableQuery } from '#shared/contracts'
import { tableCsv } from '#server/export/tables'

/** `/api/export/tables/batches.csv`, and so each of the tables. */
export default route((event, context) => {
  const { table } = tableQuery.parse({ table: getRouterParam(event, 'table')?.replace(/\.csv$/, '') })
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="dulse-${table}.csv"`)
  return tableCsv(context, table)
})
