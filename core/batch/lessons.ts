import { assess, type FinishWindow } from './assess'
import { inForce, type Entry } from '../log'
import { foldBatch } from './state'
import { waterOf } from '../water'
import type { FindFood } from '../foods'

/** What one weighing taught: the finish window as it stood right after it, and what the weights since have made of its water. */
export interface Lesson {
  /** The last entry of the weighing. */
  entryId: string
  finish: FinishWindow
  /** Where the figure that was said then has moved: moisture then, and of that hour by all that is known since. */
  revised?: { saidThen: number; knownSince: number }
}

/** Moved by less than this, or within what was said then, nobody was told wrong. */
const WORTH_SAYING = 0.01

/**
 * The finish windows after each weighing of the present run, oldest first: what every weight changed.
 * Corrections count as if the right figure had been there from the start.
 * @param entries the batch's own entries together with the heat entries of its runs
 */
export function lessonsOf(entries: readonly Entry[], find: FindFood): Lesson[] {
  const log = inForce(entries)
  const state = foldBatch(log, find)
  const run = state?.run
  // What was weighed at taking out has no finish ahead.
  const weighings = run?.weighings.filter(weighing => weighing.at < (run.unloadedAt ?? Infinity)) ?? []
  return weighings.flatMap(({ at, entryIds }): Lesson[] => {
    const then = foldBatch(
      log.filter(entry => entry.at <= at),
      find,
    )
    const assessed = then && assess(then, at)
    if (!assessed) return []
    const said = assessed.estimate.moistureNow
    const knownSince = waterOf(state!, at).moisture.p50
    const moved = Math.abs(knownSince - said.p50) >= WORTH_SAYING && (knownSince < said.p10 || knownSince > said.p90)
    return [{ entryId: entryIds.at(-1)!, finish: assessed.finish, revised: moved ? { saidThen: said.p50, knownSince } : undefined }]
  })
}
