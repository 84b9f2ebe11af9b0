import { foldBatch, heatHours } from '#core/batch'
import { inForce, ofKind, type Entry } from '#core/log'
import type { HeatSeen } from '#core/machines'
import { batchIdsEverIn } from '#server/db/batches'
import { entriesOfBatch, entriesOfRun } from '#server/db/entries'
import { putRunView } from '#server/db/runs'
import { findRun } from '#server/db/settings'
import type { Context } from './context'
import { MINUTE } from '#core/time'

/** A dial is compared with a thermometer once the machine has had so long to get there. */
const SETTLED_MS = 30 * MINUTE

/** Works out what a run says of its machine: the hours of heat, and set against measured temperature. */
export function projectRun(context: Context, runId: string): void {
  const { db } = context
  const run = findRun(db, runId)
  if (!run) return
  const log = inForce(entriesOfRun(db, runId))
  const spells = batchIdsEverIn(db, runId).flatMap(batchId => {
    const state = foldBatch(entriesOfBatch(db, batchId), context.foods.find)
    return [...(state?.earlierRuns ?? []), ...(state?.run ? [state.run] : [])].filter(item => item.runId === runId)
  })
  if (spells.length === 0) return putRunView(db, { runId, machineId: run.machine_id, heatHours: 0, heatSeen: [] })
  const open = spells.some(spell => spell.unloadedAt === undefined)
  // A run that is on counts up to what was last logged of its heat, so that the view follows from the log alone.
  const told = log.filter(({ body }) => body.kind === 'heat' || body.kind === 'air')
  const endAt = Math.max(
    ...(open ? [...told.map(item => item.at), ...spells.map(spell => spell.loadedAt)] : spells.map(spell => spell.unloadedAt!)),
  )
  const startedAt = Math.min(...spells.map(spell => spell.loadedAt))
  putRunView(db, { runId, machineId: run.machine_id, heatHours: heatHours(log, startedAt, endAt), heatSeen: heatSeenIn(log) })
}

function heatSeenIn(log: readonly Entry[]): HeatSeen[] {
  const heats = ofKind(log, 'heat')
  return ofKind(log, 'air').flatMap(({ at, body }): HeatSeen[] => {
    const heat = heats.findLast(entry => entry.at <= at)
    return body.chamberC === undefined || !heat || heat.body.setC === null || at - heat.at < SETTLED_MS
      ? []
      : [{ setC: heat.body.setC, measuredC: body.chamberC }]
  })
}
