import { isDeepStrictEqual } from 'node:util'
import { checkEntry, RUN_KINDS, type Entry } from '#core/batch'
import { InputError } from '#core/errors'
import type { NewBatch, NewEntry, NewRunEntry } from '#shared/contracts'
import { batchIdsOfRun, batchView, dryingViews, findBatch, insertBatch } from '#server/db/batches'
import { entriesOfBatch, entriesOfRun, findEntry, insertEntry, type EntryPlace } from '#server/db/entries'
import { ensureJar, findJar } from '#server/db/jars'
import { findMachine, findRun, insertRun } from '#server/db/settings'
import type { Context } from './context'
import { project } from './projections'
import { Conflict, NotFound } from './refusals'

/** What a write answers: the entry as it stands in the log, and whether it was there already. */
export interface Written { entry: Entry, repeated: boolean }

/** Starts a batch with its intake. Sent again, it answers what was written the first time. */
export function startBatch(context: Context, input: NewBatch): Written & { number: number } {
  return write(context, { batchId: input.id }, input.entry, () => {
    if (findBatch(context.db, input.id)) throw new Conflict('There is a batch with this id already.')
    const entry = complete(context, input.entry)
    checkEntry([], entry, { now: context.now() })
    insertBatch(context.db, input.id, context.now())
  }, () => ({ number: findBatch(context.db, input.id)!.number }))
}

/** Adds an entry to a batch's log, or corrects or voids one. */
export function logEntry(context: Context, batchId: string, input: NewEntry): Written {
  const { db } = context
  return write(context, { batchId }, input, () => {
    if (!findBatch(db, batchId)) throw new NotFound('batchId', 'There is no such batch.')
    const entry = complete(context, input)
    const { body } = entry
    checkEntry(entriesOfBatch(db, batchId), entry, { now: context.now(), machine: body.kind === 'load' ? machineFor(context, batchId, body) : undefined })
    if (body.kind === 'load') joinRun(context, body)
    if (body.kind === 'pack') {
      const known = findJar(db, body.jarId)
      if (known && known.batch_id !== batchId) throw new Conflict('This jar belongs to another batch.')
    }
  }, () => {
    if (input.body.kind === 'pack') ensureJar(db, input.body.jarId, batchId)
    return {}
  })
}

/** Logs the heat of a run or the air about it; every batch in the machine feels it. */
export function logOnRun(context: Context, runId: string, input: NewRunEntry): Written {
  const { db } = context
  return write(context, { runId }, input, () => {
    const run = findRun(db, runId)
    if (!run) throw new NotFound('runId', 'There is no such run.')
    const entry = complete(context, input)
    const { body } = entry
    if ('runId' in body && body.runId !== runId) throw new InputError([{ field: 'body.runId', message: 'This belongs to another run.' }])
    if (body.kind === 'heat') {
      const machine = findMachine(db, run.machine_id)!
      if (body.setC !== null && (body.setC < machine.lowC || body.setC > machine.highC)) {
        throw new InputError([{ field: 'body.setC', message: `${machine.name} goes from ${machine.lowC} to ${machine.highC} °C.` }])
      }
    }
    const batches = batchIdsOfRun(db, runId)
    if (batches.length === 0) throw new InputError([{ field: 'runId', message: 'Nothing is loaded in this run.' }])
    checkEntry(entriesOfBatch(db, batches[0]!).filter(item => !RUN_KINDS.includes(item.body.kind) || entriesOfRun(db, runId).some(own => own.id === item.id)), entry, { now: context.now() })
  })
}

/**
 * The one way into the log: a transaction that checks, adds the row and works out what follows. A row
 * that is there already with the same content is answered again, with other content refused.
 */
function write<More extends object>(context: Context, place: EntryPlace, input: NewEntry | NewRunEntry, prepare: () => void, more?: () => More): Written & More {
  const { db } = context
  return db.transaction(() => {
    const known = findEntry(db, input.id)
    if (known) {
      const same = known.batchId === place.batchId && known.runId === place.runId && known.entry.at === input.at
        && isDeepStrictEqual(plain(known.entry.body), plain(input.body)) && known.entry.replaces === input.replaces
      if (!same) throw new Conflict('There is an entry with this id and other content. Send the change with an id of its own.')
      return { entry: known.entry, repeated: true, ...(more?.() as More) }
    }
    prepare()
    const entry = complete(context, input)
    const seq = insertEntry(db, place, entry)
    const added = more?.() as More
    for (const batchId of place.batchId ? [place.batchId] : batchIdsOfRun(db, place.runId!)) project(context, batchId)
    return { entry: { ...entry, seq }, repeated: false, ...added }
  }).immediate()
}

/** The content as the log holds it: without fields that are undefined. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value))

function complete(context: Context, input: NewEntry | NewRunEntry): Entry {
  return { id: input.id, seq: Number.MAX_SAFE_INTEGER, at: input.at, recordedAt: context.now(), replaces: input.replaces, body: input.body }
}

/** The machine of a load, with the trays that other batches stand on. */
function machineFor({ db }: Context, batchId: string, body: Extract<Entry['body'], { kind: 'load' }>) {
  const machine = findMachine(db, body.machineId)
  if (!machine) return undefined
  const taken = dryingViews(db)
    .filter(view => view.machine_id === machine.id && view.batch_id !== batchId)
    .flatMap(view => JSON.parse(view.trays) as number[])
  return { name: machine.name, trays: machine.trays, lowC: machine.lowC, highC: machine.highC, taken }
}

/** A machine that runs has one heat: a batch loaded into it joins its run. */
function joinRun(context: Context, body: Extract<Entry['body'], { kind: 'load' }>): void {
  const { db } = context
  const running = dryingViews(db).find(view => view.machine_id === body.machineId && view.run_id !== body.runId)
  if (running) {
    throw new InputError([{ field: 'body.runId', message: `Batch ${running.number} is drying in this machine: load into its run.` }])
  }
  const known = findRun(db, body.runId)
  if (known && known.machine_id !== body.machineId) throw new InputError([{ field: 'body.runId', message: 'This run belongs to another machine.' }])
  if (!known) insertRun(db, body.runId, body.machineId, context.now())
}

/** Whether a batch is known and in force; for pages. */
export function requireBatch({ db }: Context, batchId: string): { number: number } {
  const batch = findBatch(db, batchId)
  if (!batch || !batchView(db, batchId)) throw new NotFound('batchId', 'There is no such batch. It may have been voided.')
  return batch
}
