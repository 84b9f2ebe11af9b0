import { isDeepStrictEqual } from 'node:util'
import type { ToolSettings } from '#shared/contracts'
import { findTool, putTool, type ToolRecord } from '#server/db/tools'
import type { Context } from './context'
import { Conflict } from './refusals'
import { changedFields } from './settings'

/**
 * Adds a grinder or a sieve (no version) or changes one.
 * @throws Conflict for a stale version, or a change of kind
 */
export function saveTool({ db }: Context, settings: ToolSettings): ToolRecord {
  return db
    .transaction(() => {
      const known = findTool(db, settings.id)
      const { version, ...wanted } = settings
      if (!known && version !== undefined) throw new Conflict('There is no such tool to change.')
      if (known) {
        const { version: newest, ...stored } = known
        if (isDeepStrictEqual(stored, wanted)) return known
        if (known.kind !== settings.kind) throw new Conflict('A grinder does not become a sieve: add a new one.')
        if (version !== newest) throw new Conflict('This was changed elsewhere meanwhile.', changedFields(stored, wanted))
      }
      putTool(db, settings)
      return findTool(db, settings.id)!
    })
    .immediate()
}
