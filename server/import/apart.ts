import { setImmediate as nextTurn } from 'node:timers/promises'
import { openBeside } from '#server/db/file'
import type { Context } from '#server/services/context'
import { openFoodBook } from '#server/services/foods'
import { Live } from '#server/services/live'

/** How far long work is. */
export interface Progress {
  phase: string
  done: number
  of: number
}

/** Stopped by whoever asked for it: nothing was written. */
export class Stopped extends Error {}

/** Work goes on for so long before the server looks after others, ms. */
const SLICE_MS = 15
const TELL_MS = 100

/**
 * Long work on the logbook, all or nothing. It is done on a connection of its own in one transaction, so that
 * pages see the logbook as it was until the end; it pauses every few milliseconds for whoever asks meanwhile, and
 * what others want to write waits for its end.
 * @param work yields where it is; what it returns is the answer
 * @param keep whether the answer is to be written at all; otherwise the logbook stays as it was
 * @throws Stopped when the signal says so
 */
export async function allOrNothing<Answer>(
  context: Context,
  work: (apart: Context) => Generator<Progress, Answer>,
  keep: (answer: Answer) => boolean,
  tell: (progress: Progress) => void = () => {},
  signal?: AbortSignal,
): Promise<Answer> {
  while (context.busy) await context.busy
  let free = () => {}
  context.busy = new Promise<void>(resolve => {
    free = resolve
  })
  let own = context.db
  try {
    if (!own.memory) own = openBeside(own.name)
    const apart: Context = { ...context, db: own, foods: openFoodBook(own), live: new Live() }
    own.exec('BEGIN IMMEDIATE')
    const answer = await inSlices(work(apart), tell, signal)
    own.exec(keep(answer) ? 'COMMIT' : 'ROLLBACK')
    if (keep(answer)) {
      context.foods = openFoodBook(context.db)
      context.live.changed()
    }
    return answer
  } finally {
    try {
      if (own.inTransaction) own.exec('ROLLBACK')
      if (own !== context.db) own.close()
    } finally {
      context.busy = undefined
      free()
    }
  }
}

async function inSlices<Answer>(
  steps: Generator<Progress, Answer>,
  tell: (progress: Progress) => void,
  signal?: AbortSignal,
): Promise<Answer> {
  let told = 0
  let since = performance.now()
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value
    const now = performance.now()
    if (now - told > TELL_MS) {
      told = now
      tell(step.value)
    }
    if (now - since < SLICE_MS) continue
    await nextTurn()
    since = performance.now()
    if (signal?.aborted) throw new Stopped('Stopped: nothing was written.')
  }
}
