import { assess, cycleMate, foldBatch, type CycleMate } from '#core/batch'
import type { BatchState } from '#core/log'
import { WAYS } from '#core/ways'
import { batchIdsOfRun, findBatch } from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import type { Context } from './context'

/** The other batches in the chamber of a freeze dryer, as of their last entries: none for any other machine. */
export function matesOf({ db, foods }: Pick<Context, 'db' | 'foods'>, batchId: string, { run }: BatchState): CycleMate[] {
  if (!run || !WAYS[run.way.way].underVacuum) return []
  return batchIdsOfRun(db, run.runId)
    .filter(id => id !== batchId)
    .flatMap(id => {
      const entries = entriesOfBatch(db, id)
      const state = foldBatch(entries, foods.find)
      const last = entries.reduce((latest, entry) => Math.max(latest, entry.at), 0)
      return (state && cycleMate(state, assess(state, last), findBatch(db, id)!.number)) ?? []
    })
}
