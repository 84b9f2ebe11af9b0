import { uncapital } from '#core/text'
import { whatThereIs } from '#core/flow'
import {
  allergensOf,
  assess,
  assessTrays,
  dangerZoneOf,
  foldBatch,
  isRaw,
  keepsOf,
  productOf,
  saltShareOf,
  sieveReached,
  taughtBy,
  withMates,
  type Assessment,
  type Taught,
} from '#core/batch'
import { conflictsOf, inForce, ofKind, type BatchState, type Entry } from '#core/log'
import { batchInsight } from '#core/insight'
import { overallYields } from '#core/mass'
import { evennessOf, swapsWorthMaking, type PlacePace } from '#core/machines'
import { agendaOf, type Todo } from '#core/planning'
import { toldAtUse } from '#core/safety'
import { plainly, tracesOf } from '#core/foods'
import { sdLogOf } from '#core/stats'
import { offSince, targetOfRun, waterOf } from '#core/water'
import { WAYS } from '#core/ways'
import {
  allBatchIds,
  batchView,
  dropBatchView,
  dryingViews,
  findBatch,
  putBatchView,
  type BatchViewRow,
  batchIdsOfRun,
} from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import { replaceAccepted } from '#server/db/foods'
import { allergensKept } from '#server/db/contact'
import { allJarIds, jarsOfBatch } from '#server/db/jars'
import { allRunIds, replaceTrayPaces, trayPacesOf } from '#server/db/runs'
import { readMeta, writeMeta } from '#server/db/settings'
import { plannedFor } from '#server/db/plan'
import { replaceTodos } from '#server/db/todos'
import { householdOf, type Context } from './context'
import { matesOf } from './cycle'
import { touchedBy, tracesIn } from './contact'
import { projectJars, type ProductFacts } from './jars'
import { TRAYS_LEARNED_FROM, type TaughtFacts } from './learning'
import { projectRun } from './runFacts'

/** Raise this when what is worked out from the log changes: the next start makes all of it anew. */
const PROJECTION_VERSION = '22'

/**
 * Works out what follows from a batch's log and keeps it beside the log: its line in the lists, what
 * it needs next. Its jars follow where what they go by has changed. Called in the transaction of every write.
 * @param alone without those that share its cycle: they are being worked out already
 */
export function project(context: Context, batchId: string, alone = false): void {
  const { db } = context
  const entries = entriesOfBatch(db, batchId)
  const state = foldBatch(entries, context.foods.find)
  const before = batchView(db, batchId)
  if (!state) {
    dropBatchView(db, batchId)
    replaceTodos(db, batchId, [])
    replaceAccepted(db, batchId, [])
    projectJars(
      context,
      jarsOfBatch(db, batchId).map(jar => jar.id),
    )
    return
  }
  // What is kept follows from the log alone: as of its last entry. What the hours since did is worked out for whoever asks.
  const last = entries.reduce((latest, entry) => Math.max(latest, entry.at), 0)
  const mates = state.stage === 'drying' ? matesOf(context, batchId, state) : []
  const assessed = state.stage === 'drying' || state.stage === 'resting' ? withMates(state, assess(state, last), mates) : undefined
  const touched = entries.reduce((latest, entry) => Math.max(latest, entry.recordedAt), 0)
  const { number } = findBatch(db, batchId)!
  const view = viewOf(batchId, number, state, assessed, touched, entries, tracesIn(context, batchId, entries))
  putBatchView(db, view)
  replaceAccepted(db, batchId, state.accepted)
  const planned = state.stage === 'intake' || state.stage === 'prep' ? plannedFor(db, batchId) : undefined
  replaceTodos(db, batchId, [
    ...settleTodo(entries),
    ...agendaOf(state, assessed, householdOf(context), () => swapsFor(context, state), planned, { number, mates }),
  ])
  replaceTrayPaces(db, batchId, state.run?.machineId, state.stage === 'shelf' ? trayPaces(state) : [])
  // One chamber, one end: what is known of one tells of all.
  if (!alone && state.run && WAYS[state.run.way.way].underVacuum)
    for (const id of batchIdsOfRun(db, state.run.runId)) if (id !== batchId) project(context, id, true)
  // What it holds may have gone along to those that came after it.
  if (!alone && before && (containsOf(before) !== containsOf(view) || before.run_id !== view.run_id))
    for (const id of touchedBy(context, batchId, state)) project(context, id, true)
  if (state.jars.length > 0 && before && LOT_FACTS.some(fact => before[fact] !== view[fact]))
    projectJars(
      context,
      jarsOfBatch(db, batchId).map(jar => jar.id),
    )
}

/** Whether a line tells of other traces than mill and dryer left it, as far as is known now. */
const tracesAreOld = (context: Context, batchId: string): boolean =>
  tracesIn(context, batchId, entriesOfBatch(context.db, batchId)).join() !== allergensKept(context.db, batchId).traces.join()

/** A wash that is logged or taken back, a grinding that is: those that came after may have taken something else along. */
export function projectTouched(context: Context, batchId: string): void {
  const state = foldBatch(entriesOfBatch(context.db, batchId), context.foods.find)
  for (const id of state ? touchedBy(context, batchId, state) : []) if (tracesAreOld(context, id)) project(context, id, true)
}

/** What a line says that it contains for certain; what it may contain it does not pass on. */
const containsOf = ({ product }: Pick<BatchViewRow, 'product'>) =>
  tracesOf((JSON.parse(product ?? '{}') as Partial<ProductFacts>).allergens ?? []).join()

/** Two that did not know of each other logged what cannot both be: somebody who was there says which. */
function settleTodo(entries: readonly Entry[]): Todo[] {
  const [first] = conflictsOf(entries)
  if (!first) return []
  const from = first.kind === 'weights' ? first.second.at : first.late.at
  return [
    {
      kind: 'settle',
      from,
      title: 'Say which is right',
      why:
        first.kind === 'weights'
          ? 'Two weights of the same stand at the same minute, by two devices.'
          : `${first.late.writer?.name ?? 'A device'} logged out of reach what the log could not take as well.`,
    },
  ]
}

/** What jars go by of a batch's line. */
const LOT_FACTS = ['food_key', 'purpose', 'rested', 'moisture', 'product'] as const

/** Trays of the batch's machine that should change places halfway. */
function swapsFor({ db }: Context, state: BatchState): { from: number; to: number }[] {
  const { run } = state
  if (state.stage !== 'drying' || !run) return []
  const taken = dryingViews(db)
    .filter(view => view.machine_id === run.machineId)
    .flatMap(view => JSON.parse(view.trays) as number[])
  return swapsWorthMaking(evennessOf(trayPacesOf(db, run.machineId, TRAYS_LEARNED_FROM)), taken)
}

/** Paces of trays that stood in one place throughout and were weighed alone at least twice. */
function trayPaces(state: BatchState): PlacePace[] {
  const { run } = state
  if (!run || state.earlierRuns.length > 0 || run.trayWeights.length < 2 * run.positions.length) return []
  return (assessTrays(state) ?? []).flatMap((tray): PlacePace[] => {
    const stayed = run.places.placeAt(tray.position, Infinity) === tray.position
    return stayed ? [{ place: tray.position, lnPace: Math.log(tray.pace.p50), sd: sdLogOf(tray.pace) }] : []
  })
}

/** Makes every view anew: after an update of the rules, and in tests to show that nothing else is kept in them. */
export function rebuildProjections(context: Context): void {
  context.db.transaction(() => [...rebuildInSteps(context)].length).immediate()
}

/** The same, telling where it is, for work that others wait for; in a transaction of the caller. */
export function* rebuildInSteps(context: Context): Generator<{ phase: string; done: number; of: number }> {
  const batches = allBatchIds(context.db)
  for (const [i, id] of batches.entries()) {
    yield { phase: 'working out batches', done: i, of: batches.length }
    project(context, id)
  }
  // What came along from others is known once all of them are.
  for (const id of batches) if (tracesAreOld(context, id)) project(context, id, true)
  yield* jarsInSteps(context)
  for (const id of allRunIds(context.db)) projectRun(context, id)
  writeMeta(context.db, 'projection', PROJECTION_VERSION)
}

function* jarsInSteps(context: Context): Generator<{ phase: string; done: number; of: number }> {
  const jars = allJarIds(context.db)
  const done = new Set<string>()
  for (const [i, id] of jars.entries()) {
    if (done.has(id)) continue
    yield { phase: 'working out jars', done: i, of: jars.length }
    for (const tied of projectJars(context, [id])) done.add(tied)
  }
}

/** Every jar anew: where they stand has changed. In a transaction of the caller. */
export function projectAllJars(context: Context): void {
  for (const _ of jarsInSteps(context));
}

export function bringProjectionsUpToDate(context: Context): void {
  if (readMeta(context.db, 'projection') !== PROJECTION_VERSION) rebuildProjections(context)
}

/** "Beetroot, 3 mm slices". */
export function titleOf(state: BatchState): string {
  return `${state.food.name}, ${uncapital(state.cutName)}`
}

function viewOf(
  batchId: string,
  number: number,
  state: BatchState,
  assessed: Assessment | undefined,
  touchedAt: number,
  entries: readonly Entry[],
  traces: readonly string[],
): BatchViewRow {
  const { run } = state
  const { moisture } = waterOf(state)
  const first = state.earlierRuns[0] ?? run
  const instant = (at: number | undefined) => (at !== undefined && Number.isFinite(at) ? Math.round(at) : null)
  const yields = overallYields({
    rawG: state.intake.body.weightG,
    loadedG: first?.loadedG,
    // A weight of a wetter hour would teach a ratio that is none.
    dryG: state.stage === 'shelf' && state.dryWeighed ? state.dryG : undefined,
    groundG: state.piecesInG || undefined,
    powderG: state.powderG || undefined,
  })
  const drying = state.stage === 'drying' ? assessed : undefined
  const taught = taughtBy(state, inForce(entries))
  return {
    batch_id: batchId,
    number,
    food_key: state.food.key,
    title: titleOf(state),
    stage: state.stage,
    purpose: state.purpose,
    card_key: state.card.key,
    started_at: state.intake.at,
    touched_at: touchedAt,
    machine_id: run?.machineId ?? null,
    run_id: run?.runId ?? null,
    raw_g: state.intake.body.weightG,
    loaded_g: first?.loadedG ?? null,
    dry_g: state.dryG ?? null,
    powder_g: state.powderG || null,
    product_g: productOf(state) ?? null,
    stage_g: gramsInStage(state, touchedAt),
    water_gone: drying?.waterGone.p50 ?? null,
    off_from: (run && offSince(run)) ?? null,
    rest_from: state.rest?.startedAt ?? null,
    finish_from: instant(drying?.finish.from),
    finish_to: instant(drying?.finish.to),
    prep_yield: yields.prep ?? null,
    drying_ratio: yields.dryingRatio ?? null,
    recovery: yields.powderRecovery ?? null,
    pace: taught.hours ? Math.exp(taught.hours.log) : null,
    pace_doubt: taught.hours?.doubt ?? null,
    cut_by: state.cutBy ?? null,
    trays: JSON.stringify(run ? run.present.map(tray => run.places.placeAt(tray, Infinity)) : []),
    // What comes out of a vacuum is packed at once: no rest is missing.
    rested: state.rest?.startedAt === undefined && !(state.run && WAYS[state.run.way.way].underVacuum) ? 0 : 1,
    moisture: moisture.p50,
    insight: state.stage === 'shelf' ? JSON.stringify(batchInsight(state, entries)) : null,
    review: reviewOf(entries),
    product: JSON.stringify({
      allergens: plainly([...allergensOf(state), ...traces]),
      traces: [...traces],
      whole: true,
      saltShare: saltShareOf(state),
      raw: isRaw(state),
      warm: wasWarm(state, entries),
      told: toldAtUse(state.food, { raw: isRaw(state) }),
      driest: moisture.p10,
      wettest: moisture.p90,
      keeps: keepsOf(state),
      // A mix bites as the hottest in it.
      heat: state.food.mixOf && state.food.heatUnits?.value,
      sievedUm: sieveReached(state),
      dryAt: run && targetOfRun(state, run),
    } satisfies ProductFacts),
    taught: isTaught(taught) ? JSON.stringify(taughtFacts(state, taught)) : null,
    left_out: state.leftOut ?? null,
    loaded_at: first?.loadedAt ?? null,
  }
}

/** Whether it stood too long in the warm, by all that was logged; missing where it did not. */
const wasWarm = (state: BatchState, entries: readonly Entry[]) =>
  dangerZoneOf(state, Math.max(...entries.map(entry => entry.at)))?.over || undefined

/** Grams of it in the stage where it stands: what there is, as the batch's own page says it. */
function gramsInStage(state: BatchState, at: number): number {
  switch (state.stage) {
    case 'intake':
      return state.intake.body.weightG
    case 'prep':
      return state.balance.weightG.p50
    case 'drying':
      return state.run!.loadedG
    case 'resting':
    case 'grinding':
      return whatThereIs(state, at).reduce((sum, lot) => sum + lot.weightG.p50, 0)
    default:
      return state.packedG
  }
}

const isTaught = ({ solids, prep, dry, recovery }: Taught) => Boolean(solids ?? prep ?? dry ?? recovery)

/** What is kept of what a batch taught, with what it is compared by. Its hours stand in columns of their own. */
function taughtFacts({ card, purpose, intake }: BatchState, { solids, prep, dry, recovery, path }: Taught): TaughtFacts {
  const { cultivar, source } = intake.body
  return { solids, prep, dry, recovery, path, card: card.key, purpose, cultivar, source }
}

/** The newest word for next time, as JSON. */
function reviewOf(entries: readonly Entry[]): string | null {
  const review = ofKind(inForce(entries), 'review').at(-1)
  return review ? JSON.stringify({ at: review.at, ...review.body }) : null
}
