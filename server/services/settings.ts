import { isDeepStrictEqual } from 'node:util'
import { householdSettings, type HouseholdChange, type HouseholdSettings, type MachineSettings } from '#shared/contracts'
import { InputError, type Problem } from '#core/errors'
import { dryingViews, listBatchViews } from '#server/db/batches'
import { findMachine, insertMachine, updateMachine, writeHousehold, type MachineRecord } from '#server/db/settings'
import { STAGES } from '#core/log'
import { householdOf, type Context } from './context'
import { project, projectAllJars } from './projections'
import { Conflict } from './refusals'

/**
 * Changes some of the household's settings; what hangs on its clock, its nights and its pantry is worked out anew.
 * @throws ZodError where the change does not go with what stays
 */
export function changeHousehold(context: Context, change: HouseholdChange): HouseholdSettings {
  return context.db
    .transaction(() => {
      const before = householdOf(context)
      if (change.version !== before.version) {
        throw new Conflict('The settings were changed elsewhere meanwhile.', changedFields(before, change))
      }
      const after = householdSettings.parse({ ...before, ...change })
      writeHousehold(context.db, after)
      if (after.pantryC !== before.pantryC || after.pantryHumidity !== before.pantryHumidity) projectAllJars(context)
      for (const stage of STAGES) {
        if (stage === 'shelf') continue
        for (const view of listBatchViews(context.db, { stage, limit: 10_000 })) project(context, view.batch_id)
      }
      return householdOf(context)
    })
    .immediate()
}

/** Adds a machine (no version) or changes one (the version it was read at). */
export function saveMachine(context: Context, settings: MachineSettings): MachineRecord {
  const { db } = context
  return db
    .transaction(() => {
      const known = findMachine(db, settings.id)
      const { version, ...wanted } = settings
      if (!known) {
        if (version !== undefined) throw new Conflict('There is no such machine to change.')
        insertMachine(db, settings)
        return findMachine(db, settings.id)!
      }
      const { version: newest, ...stored } = known
      // The same settings sent again, after an answer that got lost.
      if (changedFields(stored, wanted).length === 0) return known
      if (version !== newest) throw new Conflict('This machine was changed elsewhere meanwhile.', changedFields(stored, wanted))
      const highest = Math.max(
        0,
        ...dryingViews(db)
          .filter(view => view.machine_id === settings.id)
          .flatMap(view => JSON.parse(view.trays) as number[]),
      )
      if (settings.trays < highest)
        throw new InputError([
          { field: 'trays', code: 'tray-in-use', message: `Tray ${highest} is in use: take it out before the machine has fewer trays.` },
        ])
      updateMachine(db, settings)
      return findMachine(db, settings.id)!
    })
    .immediate()
}

/** Fields that differ, each with what is stored now. */
export function changedFields(stored: object, sent: object): Problem[] {
  return Object.entries(stored)
    .filter(([key, value]) => key in sent && !isDeepStrictEqual((sent as Record<string, unknown>)[key], value) && key !== 'version')
    .map(([field, value]) => ({ field, code: 'now', message: `It is “${typeof value === 'object' ? JSON.stringify(value) : value}” now.` }))
}
