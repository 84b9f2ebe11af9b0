import { homedir } from 'node:os'
import { join } from 'node:path'
import { openLogbook } from '#server/services/logbook'
import type { Context } from '#server/services/context'

let logbook: Context | undefined

/**
 * The logbook of this server. Its folder is `DULSE_DATA`, or `dulse` in the user's data folder; the
 * file in it is `logbook.sqlite`.
 */
export function useLogbook(): Context {
  logbook ??= openLogbook(logbookPath())
  return logbook
}

/** The logbook's file. */
export const logbookPath = () => join(dataFolder(), 'logbook.sqlite')

function dataFolder(): string {
  return process.env.DULSE_DATA ?? join(process.env.XDG_DATA_HOME ?? join(homedir(), '.local/share'), 'dulse')
}
