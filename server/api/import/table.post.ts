import { importQuery, tableImport } from '#shared/contracts'
import { importTable } from '#server/import/table'

/** Some hundred thousand lines. */
const MOST_KB = 32 * 1024

/** Weigh-ins or an inventory from a file, all of it or nothing. */
export default route(async (event, context) => {
  const { check, leaveOut } = readQuery(event, importQuery)
  const input = await readInput(event, tableImport, MOST_KB)
  return workInLines(
    event,
    context,
    apart => importTable(apart, input),
    answer => !check && answer.kept > 0 && (leaveOut || answer.errors.length === 0),
  )
})
