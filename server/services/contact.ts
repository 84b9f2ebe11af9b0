import { givenBy, inForce, ofKind, type BatchState, type Entry } from '#core/log'
import { tracesOf } from '#core/foods'
import { WAYS } from '#core/ways'
import { allergensKept, groundBefore, loadedBefore, usedAfter } from '#server/db/contact'
import { batchIdsOfRun, findBatch } from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import { findMachine } from '#server/db/settings'
import type { Context } from './context'

/**
 * Allergens that may have come along: of what was in the mill and on the trays before, until a wash was logged (a brush leaves dust
 * enough; common practice), and of what lay beside it in warm air. Only what those contain for certain is passed on.
 */
export function tracesIn(context: Context, batchId: string, entries: readonly Entry[], followed: readonly string[] = []): string[] {
  const { db } = context
  const log = inForce(entries)
  const others = new Set<string>()
  // What a part was taken from brings along what had come to it.
  const came = ofKind(log, 'intake').flatMap(({ body }) => givenBy(body).map(part => part.batchId))
  // What points at itself is not followed.
  const path = [...followed, batchId]
  const before = came.flatMap(id => (path.includes(id) ? [] : tracesIn(context, id, entriesOfBatch(db, id), path)))
  for (const { at, body } of ofKind(log, 'grind')) {
    if (body.cleaned === 'washed') continue
    for (const earlier of groundBefore(db, body.grinderId, at)) {
      others.add(earlier.batch_id)
      if (earlier.washed) break
    }
  }
  for (const { at, body } of ofKind(log, 'load')) {
    const kind = findMachine(db, body.machineId)?.kind
    if (!kind || !WAYS[kind].underVacuum) for (const mate of batchIdsOfRun(db, body.runId)) others.add(mate)
    for (const earlier of loadedBefore(db, body, at)) {
      if (earlier.washed) break
      others.add(earlier.batch_id)
    }
  }
  others.delete(batchId)
  return [...new Set([...before, ...[...others].flatMap(id => tracesOf(allergensKept(db, id).allergens))])].sort()
}

/** Batches that may have taken something along from this one. */
export function touchedBy({ db }: Context, batchId: string, { grinds, run, earlierRuns, intake }: BatchState): string[] {
  const runs = [...earlierRuns, ...(run ? [run] : [])]
  const after = usedAfter(
    db,
    { grinders: [...new Set(grinds.map(({ body }) => body.grinderId))], machines: [...new Set(runs.map(({ machineId }) => machineId))] },
    intake.at,
  )
  const touched = new Set([batchId, ...after, ...runs.flatMap(({ runId }) => batchIdsOfRun(db, runId))])
  // And what was taken from any of them since, as a batch of its own.
  for (const id of touched)
    for (const { body } of ofKind(inForce(entriesOfBatch(db, id)), 'split')) if (body.to && findBatch(db, body.to)) touched.add(body.to)
  touched.delete(batchId)
  return [...touched]
}
