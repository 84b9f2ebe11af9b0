import { isDeepStrictEqual } from 'node:util'
import { uuidv7 } from 'uuidv7'
import { checkEntry, damperOf, foldBatch, iceOf, placesAfter } from '#core/batch'
import {
  givenBy,
  inForce,
  isOfRun,
  kindOf,
  meanwhile,
  ofKind,
  targetField,
  targetOf,
  type Entry,
  type EntryOf,
  type TrayMove,
} from '#core/log'
import { InputError, problem, refuse } from '#core/errors'
import { stopsUnheated } from '#core/safety'
import { listItem } from '#core/ways'
import { waterOf } from '#core/water'
import type { Written } from '#shared/api'
import type { NewBatch, NewEntry, NewJarEntry, NewRunEntry, NewTogether } from '#shared/contracts'
import { batchIdsOfRun, batchView, dryingViews, findBatch, insertBatch } from '#server/db/batches'
import { entriesOfBatch, entriesOfJar, entriesOfRun, findEntry, insertEntry, type EntryPlace } from '#server/db/entries'
import { ensureJar, findJar, jarView } from '#server/db/jars'
import { findMachine, findRun, insertRun } from '#server/db/settings'
import { findTool } from '#server/db/tools'
import { hasPicture } from '#server/pictures/store'
import { withBeliefs, withoutBeliefs } from './beliefs'
import type { Context } from './context'
import { checkJarsFor, jarsTouched, projectJars } from './jars'
import { project, projectTouched } from './projections'
import { projectRun } from './runFacts'
import { Conflict, NotFound } from './refusals'

/** Starts a batch with its intake. Sent again, it answers what was written the first time. */
export function startBatch(context: Context, input: NewBatch): Written & { number: number } {
  return write(
    context,
    { batchId: input.id },
    input.entry,
    () => {
      if (findBatch(context.db, input.id)) throw new Conflict('There is a batch with this id already.')
      const entry = complete(context, input.entry)
      checkEntry([], entry, { now: context.now(), find: context.foods.find })
      checkJarsFor(context, { ...entry, batchId: input.id })
      checkSameFood(context, input)
      checkCup(context, entry.body)
      if (entry.body.kind === 'intake' && entry.body.machineId !== undefined && !findMachine(context.db, entry.body.machineId))
        refuse('entry.body.machineId', 'no-such-machine', 'There is no such machine: choose one of the set-up, or leave it out.')
      insertBatch(context.db, input.id, context.now())
    },
    () => ({ number: findBatch(context.db, input.id)!.number }),
  )
}

/** Adds an entry to a batch's log, or corrects or voids one. */
export function logEntry(context: Context, batchId: string, input: NewEntry): Written {
  const { db } = context
  const alone = !db.inTransaction
  const written = db
    .transaction(() => {
      const one = writeEntry(context, batchId, input)
      if (!one.repeated) followPart(context, batchId, one.entry)
      return one
    })
    .immediate()
  if (alone && !written.repeated) context.live.changed('log')
  return written
}

function writeEntry(context: Context, batchId: string, input: NewEntry): Written {
  const { db } = context
  return write(context, { batchId }, input, () => {
    if (!findBatch(db, batchId)) throw new NotFound('batchId', 'There is no such batch.')
    const entry = complete(context, input)
    const { body } = entry
    if (body.kind === 'grind' && body.grinderId !== undefined && findTool(db, body.grinderId)?.kind !== 'grinder')
      refuse('grinderId', 'unknown-grinder', 'There is no such grinder. Choose one from the set-up, or leave it out.')
    checkPicture(context, body)
    checkOwn(context, targetOf(input))
    checkPart(context, batchId, input)
    checkMeanwhile(entriesOfBatch(db, batchId), entry)
    checkEntry(entriesOfBatch(db, batchId), entry, {
      now: context.now(),
      find: context.foods.find,
      machine: body.kind === 'load' ? machineFor(context, batchId, body) : undefined,
    })
    checkJarsFor(context, { ...entry, batchId })
    if (body.kind === 'load') joinRun(context, body)
  })
}

/** What a part weighs stands where it came in: with it the word in the log that it left is put right, or taken back. */
function followPart(context: Context, batchId: string, { at, body, replaces }: Entry): void {
  const { db } = context
  const target = targetOf({ body, replaces })
  const before = target === undefined ? undefined : findEntry(db, target)?.entry.body
  if (before?.kind !== 'intake') return
  for (const { batchId: from } of givenBy(before)) {
    const part = batchView(db, from) && ofKind(inForce(entriesOfBatch(db, from)), 'split').find(item => item.body.to === batchId)
    if (!part) continue
    const input = { id: uuidv7(), at }
    const weightG = body.kind === 'intake' ? givenBy(body).find(given => given.batchId === from)?.weightG : undefined
    if (body.kind === 'void' || (body.kind === 'intake' && weightG === undefined))
      writeEntry(context, from, {
        ...input,
        body: { kind: 'void', target: part.id, reason: body.kind === 'void' ? body.reason : undefined },
      })
    else if (body.kind === 'intake' && weightG !== part.body.weightG)
      writeEntry(context, from, {
        ...input,
        at: part.at,
        replaces: part.id,
        body: { ...part.body, weightG: weightG!, weightSdG: body.with ? undefined : body.weightSdG },
      })
  }
}

/** A part that is a batch of its own is taken back, or weighs otherwise, where that batch came in: else it would be there twice. */
function checkPart({ db }: Context, batchId: string, input: NewEntry): void {
  const target = targetOf(input)
  const before = target === undefined ? undefined : findEntry(db, target)?.entry.body
  const begun = before?.kind === 'split' && before.to !== undefined ? batchView(db, before.to) : undefined
  if (!begun) return
  const intake = ofKind(inForce(entriesOfBatch(db, begun.batch_id)), 'intake')[0]
  const given = intake && givenBy(intake.body).find(part => part.batchId === batchId)
  if (input.body.kind === 'split' && input.body.to === begun.batch_id && input.body.weightG === given?.weightG) return
  if (input.body.kind === 'void' && !given) return
  refuse(
    targetField(input),
    'part-begun',
    'Batch {number} was begun with this part: correct or remove what came in there, and this follows.',
    {
      number: begun.number,
    },
  )
}

/** Adds an entry to a jar's own log, or corrects or voids one. */
export function logOnJar(context: Context, jarId: string, input: NewJarEntry): Written {
  const { db } = context
  return write(context, { jarId }, input, () => {
    const { body } = input
    if (body.kind !== 'fill' && body.kind !== 'stock' && !findJar(db, jarId)) throw new NotFound('jarId', 'There is no such jar.')
    if ('jarId' in body && body.jarId !== jarId)
      throw new InputError([{ field: 'body.jarId', code: 'of-another-jar', message: 'This belongs to another jar.' }])
    const target = targetOf(input)
    const found = target === undefined ? undefined : findEntry(db, target)
    if (found?.batchId)
      throw new InputError([
        {
          field: 'target',
          code: 'of-a-batch',
          message: `This stands in the log of a batch: correct it by /api/batches/${found.batchId}/entries.`,
        },
      ])
    if (target !== undefined && (!found || found.jarId !== jarId))
      throw new InputError([
        {
          field: targetField(input),
          code: 'no-such-entry',
          message: 'There is no such entry in this jar’s log.',
        },
      ])
    checkPicture(context, body)
    const entry = complete(context, input)
    checkMeanwhile(entriesOfJar(db, jarId), entry)
    checkJarsFor(context, entry)
  })
}

/** Writes several entries of whatever logs, in their order: all of them, or none where one is refused. */
export function logTogether(context: Context, { entries }: NewTogether): Written[] {
  const written = context.db
    .transaction(() =>
      entries.map((item, i) => {
        try {
          if ('begin' in item) return startBatch(context, item.begin)
          if ('batchId' in item) return logEntry(context, item.batchId, item.entry)
          if ('runId' in item) return logOnRun(context, item.runId, item.entry)
          return logOnJar(context, item.jarId, item.entry)
        } catch (error) {
          if (!(error instanceof InputError)) throw error
          throw new InputError(error.problems.map(problem => ({ ...problem, field: `entries.${i}.${problem.field}` })))
        }
      }),
    )
    .immediate()
  context.live.changed('log')
  return written
}

/** What could not be taken is kept beside the log only where another wrote in it meanwhile: else it is a slip, to be put right by whoever made it. */
function checkMeanwhile(entries: readonly Entry[], entry: Entry): void {
  if (entry.body.kind === 'unsettled' && !meanwhile(inForce(entries), entry as EntryOf<'unsettled'>))
    refuse('wroteAt', 'nothing-meanwhile', 'Nobody else logged here meanwhile: put the entry right and send it again.')
}

/** Its bytes come first: a line of the log never names a picture that nobody has. */
function checkPicture({ db }: Context, body: Entry['body']): void {
  if (body.kind !== 'picture') return
  if (body.about !== undefined && !findEntry(db, body.about))
    refuse('body.about', 'no-such-entry', 'There is no such entry for the picture to go with: log it first, or leave it out.')
  if (!hasPicture(db, body.picture))
    refuse('body.picture', 'no-such-picture', 'There is no such picture here: send its bytes first, to /api/pictures.')
}

/** What shares a cup is as dry as the rest of it, and heated where it has to be once it is dry. */
function checkCup({ db, foods }: Context, body: Entry['body']): void {
  if (body.kind !== 'intake' || !body.with) return
  const shares = givenBy(body).map(({ batchId }) => {
    const state = foldBatch(entriesOfBatch(db, batchId), foods.find)
    if (!state) refuse('entry.body.with', 'no-such-batch', 'There is no such batch to share a cup.')
    const [unheated] = stopsUnheated(state.card, state.choices, state.heated)
    if (unheated) refuse('entry.body.with', 'stop-heat-after', unheated.message)
    return { number: findBatch(db, batchId)!.number, water: waterOf(state).moisture, target: state.food.target.powder }
  })
  const damper = damperOf(
    shares.map(share => share.water),
    Math.min(...shares.map(share => share.target)),
  )
  if (!damper?.certain) return
  const { number, water } = shares[damper.at]!
  refuse(
    'entry.body.with',
    'damper-in-cup',
    'Batch {number} holds {isShare} water at the least, more than the driest may at the most: dry it on before it shares a cup.',
    { number, isShare: water.p10 },
  )
}

/** What is begun again from jars is what stood in them. */
function checkSameFood({ db }: Context, { entry: { body } }: NewBatch): void {
  for (const [i, { jarId }] of (body.fromJars ?? []).entries()) {
    const view = jarView(db, jarId)
    if (view && view.food_key !== body.foodKey)
      throw new InputError([{ field: `entry.body.fromJars.${i}.jarId`, code: 'other-food', message: 'This jar holds another food.' }])
  }
  const drawnG = (body.fromJars ?? []).reduce((sum, source) => sum + source.weightG, 0)
  if (body.fromJars && Math.abs(drawnG - body.weightG) > 1)
    throw new InputError([
      problem('entry.body.weightG', 'jars-sum-otherwise', 'The jars give {drawnG}, not {saidG}.', { drawnG, saidG: body.weightG }),
    ])
}

/** What concerns a whole run is corrected on the run: a batch alone must not think otherwise of it than its neighbours. */
function checkOwn({ db }: Context, target: string | undefined): void {
  const found = target === undefined ? undefined : findEntry(db, target)
  if (found?.jarId)
    throw new InputError([
      {
        field: 'target',
        code: 'of-a-jar',
        message: `This stands in a jar’s own log: correct it by /api/jars/${found.jarId}/entries.`,
      },
    ])
  if (found?.runId)
    throw new InputError([
      {
        field: 'target',
        code: 'of-a-run',
        message: `This belongs to the run and all its batches: correct it by /api/runs/${found.runId}/entries.`,
      },
    ])
}

/** Logs the heat of a run, the air about it or its trays' moves; it concerns every batch in the machine. */
export function logOnRun(context: Context, runId: string, input: NewRunEntry): Written {
  const { db } = context
  return write(context, { runId }, input, () => {
    const run = findRun(db, runId)
    if (!run) throw new NotFound('runId', 'There is no such run.')
    const entry = complete(context, input)
    const { body } = entry
    if ('runId' in body && body.runId !== runId)
      throw new InputError([{ field: 'body.runId', code: 'of-another-run', message: 'This belongs to another run.' }])
    if (body.kind === 'heat') {
      const machine = findMachine(db, run.machine_id)!
      if (body.setC !== null && (body.setC < machine.lowC || body.setC > machine.highC)) {
        const { name, lowC, highC } = machine
        refuse('body.setC', 'beyond-its-range', '{name} goes from {lowC} to {highC}.', { name, lowC, highC })
      }
    }
    const batches = batchIdsOfRun(db, runId)
    if (batches.length === 0) throw new InputError([{ field: 'runId', code: 'nothing-loaded', message: 'Nothing is loaded in this run.' }])
    const ofRun = new Set(entriesOfRun(db, runId).map(item => item.id))
    const logs = batches.map(batchId => entriesOfBatch(db, batchId).filter(item => !isOfRun(item.body.kind) || ofRun.has(item.id)))
    if (body.kind === 'tick' && !listItem(findMachine(db, run.machine_id)!.kind, body.list, body.item))
      throw new InputError([{ field: 'body.item', code: 'unknown-task', message: `“${body.item}” is not on this machine’s list.` }])
    if (body.kind === 'move') checkMove(context, findMachine(db, run.machine_id)!, logs, entry, body.trays)
    // What was before a batch came in concerns those that were there.
    const there = logs.filter(log => log.some(item => item.body.kind === 'intake' && item.at <= entry.at))
    for (const log of there.length > 0 ? there : logs) checkEntry(log, entry, { now: context.now(), find: context.foods.find })
  })
}

/** Trays move only from places that carry one, to places that exist and are then free. */
function checkMove(
  { foods }: Context,
  machine: { name: string; trays: number },
  logs: readonly Entry[][],
  entry: Entry,
  moves: readonly TrayMove[],
): void {
  const taken = logs.flatMap(log => {
    const run = foldBatch(
      log.filter(item => item.id !== entry.replaces && item.at <= entry.at),
      foods.find,
    )?.run
    return run ? run.present.map(tray => run.places.placeAt(tray, entry.at)) : []
  })
  const problems = moves.flatMap(({ from, to }, i) => {
    if (!taken.includes(from))
      return [
        {
          field: `body.trays.${i}.from`,
          code: 'no-such-tray',
          message: `No tray stands at ${from}: taken are ${taken.sort((a, b) => a - b).join(', ')}.`,
        },
      ]
    return to > machine.trays
      ? [
          {
            field: `body.trays.${i}.to`,
            code: 'no-such-place',
            message: `${machine.name} has places 1 to ${machine.trays}; there is no ${to}.`,
          },
        ]
      : []
  })
  const after = placesAfter(taken, moves)
  const twice = after.find((place, i) => after.indexOf(place) < i)
  if (problems.length === 0 && twice !== undefined)
    problems.push({
      field: 'body.trays',
      code: 'place-taken-twice',
      message: `Two trays would stand at ${twice}: move the other one too.`,
    })
  if (problems.length > 0) throw new InputError(problems)
}

/**
 * The one way into the log: a transaction that checks, adds the row and works out what follows. A row
 * that is there already with the same content is answered again, with other content refused.
 */
function write<More extends object>(
  context: Context,
  place: EntryPlace,
  input: NewEntry | NewRunEntry | NewJarEntry,
  prepare: () => void,
  more?: () => More,
): Written & More {
  const { db } = context
  const written = db
    .transaction(() => {
      const known = findEntry(db, input.id)
      if (known) {
        const same =
          known.batchId === place.batchId &&
          known.runId === place.runId &&
          known.jarId === place.jarId &&
          known.entry.at === input.at &&
          isDeepStrictEqual(plain(withoutBeliefs(known.entry.body, input.body)), plain(input.body)) &&
          known.entry.replaces === input.replaces
        if (!same) throw new Conflict('There is an entry with this id and other content. Send the change with an id of its own.')
        return { entry: known.entry, repeated: true, ...(more?.() as More) }
      }
      prepare()
      const entry = complete(context, { ...input, body: withBeliefs(context, place.batchId, input) })
      const touched = jarsTouched(context, entry)
      for (const jarId of touched) ensureJar(db, jarId)
      const seq = insertEntry(db, place, entry, touched)
      const added = more?.() as More
      for (const batchId of batchesOf(context, place)) project(context, batchId)
      if (leavesTraces(entry)) for (const batchId of batchesOf(context, place)) projectTouched(context, batchId)
      projectJars(context, touched)
      for (const runId of runsTouched(context, place, entry)) projectRun(context, runId)
      return { entry: { ...entry, seq }, repeated: false, ...added }
    })
    .immediate()
  // Of several that are written together the last word is the whole transaction's.
  if (!written.repeated && !db.inTransaction) context.live.changed('log')
  return written
}

const tells = ({ body }: Entry, what: 'machine' | 'traces') => kindOf(body.kind).tells?.includes(what) ?? false
const leavesTraces = (entry: Entry) => tells(entry, 'traces') || entry.replaces !== undefined

const batchesOf = ({ db }: Context, place: EntryPlace) =>
  place.batchId ? [place.batchId] : place.runId ? batchIdsOfRun(db, place.runId) : []

/** Runs whose facts an entry may change. */
function runsTouched(context: Context, place: EntryPlace, entry: Entry): string[] {
  if (!tells(entry, 'machine')) return []
  if (place.runId) return [place.runId]
  if (place.jarId) return []
  return runsOfBatch(context, place.batchId!)
}

const runsOfBatch = ({ db }: Context, batchId: string): string[] => [
  ...new Set(entriesOfBatch(db, batchId).flatMap(({ body }) => (body.kind === 'load' ? [body.runId] : []))),
]

/** The content as the log holds it: without fields that are undefined. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value))

function complete(context: Context, input: Omit<NewEntry | NewRunEntry | NewJarEntry, 'body'> & { body: Entry['body'] }): Entry {
  return {
    id: input.id,
    seq: Number.MAX_SAFE_INTEGER,
    at: input.at,
    recordedAt: context.now(),
    writer: context.writer,
    replaces: input.replaces,
    body: input.body,
  }
}

/** The machine of a load, with the trays that other batches stand on. */
function machineFor({ db, foods }: Context, batchId: string, body: Extract<Entry['body'], { kind: 'load' }>) {
  const machine = findMachine(db, body.machineId)
  if (!machine) return undefined
  const others = dryingViews(db).filter(view => view.machine_id === machine.id && view.batch_id !== batchId)
  const taken = others.flatMap(view => JSON.parse(view.trays) as number[])
  const iceTakenG =
    machine.iceG === undefined
      ? undefined
      : others.reduce((sum, view) => sum + iceOf(foldBatch(entriesOfBatch(db, view.batch_id), foods.find)), 0)
  return {
    name: machine.name,
    kind: machine.kind,
    trays: machine.trays,
    lowC: machine.lowC,
    highC: machine.highC,
    iceG: machine.iceG,
    taken,
    iceTakenG,
  }
}

/** A machine that runs has one heat: a batch loaded into it joins its run. */
function joinRun(context: Context, body: Extract<Entry['body'], { kind: 'load' }>): void {
  const { db } = context
  const running = dryingViews(db).find(view => view.machine_id === body.machineId && view.run_id !== body.runId)
  if (running) {
    throw new InputError([
      {
        field: 'body.runId',
        code: 'machine-in-use',
        message: `Batch ${running.number} is drying in this machine: load into its run.`,
      },
    ])
  }
  const known = findRun(db, body.runId)
  if (known && known.machine_id !== body.machineId)
    throw new InputError([{ field: 'body.runId', code: 'of-another-machine', message: 'This run belongs to another machine.' }])
  if (!known) insertRun(db, body.runId, body.machineId, context.now())
}

/** Whether a batch is known and in force; for pages. */
export function requireBatch({ db }: Context, batchId: string): { number: number } {
  const batch = findBatch(db, batchId)
  if (!batch || !batchView(db, batchId)) throw new NotFound('batchId', 'There is no such batch. It may have been voided.')
  return batch
}
