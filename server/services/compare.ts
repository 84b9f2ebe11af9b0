import { foldBatch, outlineOf } from '#core/batch'
import type { ComparedRun } from '#shared/contracts'
import { finishedOf } from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import { listMachines } from '#server/db/settings'
import type { Context } from './context'

/** Runs laid side by side: more are a tangle. */
const MOST = 12

/** The newest finished runs of a food (and of one of its cards), oldest first. */
export function comparedRuns({ db, foods }: Context, query: { food: string; card?: string }): ComparedRun[] {
  const machines = new Map(listMachines(db).map(machine => [machine.id, machine.name]))
  return finishedOf(db, query.food, query.card, MOST)
    .flatMap((view): ComparedRun[] => {
      const state = foldBatch(entriesOfBatch(db, view.batch_id), foods.find)
      const outline = state && outlineOf(state)
      return outline
        ? [
            {
              ...outline,
              batchId: view.batch_id,
              number: view.number,
              title: view.title,
              machineName: machines.get(view.machine_id ?? '') ?? 'a machine that is gone',
            },
          ]
        : []
    })
    .reverse()
}
