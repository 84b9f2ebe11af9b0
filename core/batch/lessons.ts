import { assess, type FinishWindow } from './assess'
import { inForce, type Entry } from '../log'
import { foldBatch } from './state'
import type { FindFood } from '../foods'

/** What one weighing taught: the finish window as it stood right after it. */
export interface Lesson {
  /** The last entry of the weighing. */
  entryId: string
  finish: FinishWindow
}

/**
 * The finish windows after each weighing of the present run, oldest first: what every weight changed.
 * Corrections count as if the right figure had been there from the start.
 * @param entries the batch's own entries together with the heat entries of its runs
 */
export function lessonsOf(entries: readonly Entry[], find: FindFood): Lesson[] {
  const log = inForce(entries)
  const run = foldBatch(log, find)?.run
  // What was weighed at taking out has no finish ahead.
  const weighings = run?.weighings.filter(weighing => weighing.at < (run.unloadedAt ?? Infinity)) ?? []
  return weighings.flatMap(({ at, entryIds }): Lesson[] => {
    const then = foldBatch(
      log.filter(entry => entry.at <= at),
      find,
    )
    const assessed = then && assess(then, at)
    return assessed ? [{ entryId: entryIds.at(-1)!, finish: assessed.finish }] : []
  })
}
