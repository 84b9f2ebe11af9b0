import { join } from 'node:path'
import { openLogbook } from '#server/services/logbook'
import type { Context } from '#server/services/context'

let logbook: Context | undefined

/**
 * The logbook of this server. Its folder is `DULSE_DATA`, or `.data/own` where the server was started;
 * the file in it is `logbook.sqlite`.
 */
export function useLogbook(): Context {
  logbook ??= openLogbook(join(process.env.DULSE_DATA ?? join(process.cwd(), '.data/own'), 'logbook.sqlite'))
  return logbook
}
