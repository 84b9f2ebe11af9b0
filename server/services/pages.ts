import { STANDARD_WAY, WAYS } from '#core/ways'
import { inForce, ofKind, type Stage, STAGES } from '#core/log'
import { assess, foldBatch, iceOf } from '#core/batch'
import { mixedFood, PURPOSES, questionsOf, type Food, type FoodBook } from '#core/foods'
import { foodSearch } from '#core/foods/search'
import { REST_DAYS } from '#core/dryness'
import { USE_FIRST_DAYS } from '#core/keeping'
import { COOKING_STEPS, SAFETY_RULES } from '#core/safety'
import type { BatchAnswer, BatchSummary, FoundItem, NowAnswer, RackAnswer, StageCount, TodoCleared } from '#shared/contracts'
import { dryingViews, findBatchViews, listBatchViews, stageSums, type BatchViewRow } from '#server/db/batches'
import { entriesOfBatch, entriesOfRun, isWeighed, newestAir, unsettledJars } from '#server/db/entries'
import { findJarViews, jarsHolding, jarsOfBatch, jarsToUse, shelfSums } from '#server/db/jars'
import { listTools } from '#server/db/tools'
import { acceptedCautions } from '#server/db/foods'
import { findMachine, listMachines } from '#server/db/settings'
import { plannedFor } from '#server/db/plan'
import { clearTodo, countTodos } from '#server/db/todos'
import { familyOf } from './flow'
import type { ProductFacts } from './jars'
import type { Context } from './context'
import { todosFor } from './todos'
import { matesOf } from './cycle'
import { hoursInMachine } from './learning'
import { reviewsFor } from './insight'
import { toJarSummary } from './shelf'
import { NotFound } from './refusals'
import { requireBatch } from './writeLog'
import { DAY, MINUTE } from '#core/time'

const TODOS_SHOWN = 60
const JARS_TO_USE_SHOWN = 6
const PAGE = 60
/** Jars to be topped up or to seed from: more than these nobody looks through. */
const JARS_AT_HAND = 12

/** The stage band. */
export function stageBand(context: Context): StageCount[] {
  const sums = new Map(stageSums(context.db, context.now(), REST_DAYS * DAY).map(row => [row.stage, row]))
  return STAGES.map((stage): StageCount => {
    if (stage === 'shelf') {
      const shelf = shelfSums(context.db)
      return { stage, count: shelf.count, weightG: shelf.grams, share: shelf.count > 0 ? 1 : 0 }
    }
    const row = sums.get(stage)
    return { stage, count: row?.count ?? 0, weightG: row?.grams ?? 0, share: row ? (row.share ?? 1) : 0 }
  })
}

/** What needs hands, the machines, and the jars whose time ends. */
export function nowPage(context: Context): NowAnswer {
  const { db } = context
  const at = context.now()
  return {
    at,
    todos: todosFor(context, TODOS_SHOWN).map(row => ({
      batchId: row.batch_id,
      batchNumber: row.number,
      batchTitle: row.batch_title,
      kind: row.kind,
      from: row.from_at,
      to: row.to_at ?? undefined,
      title: row.title,
      why: row.why,
    })),
    todoCount: countTodos(db, at),
    racks: racks(context),
    useFirst: jarsToUse(db, at + USE_FIRST_DAYS * DAY, JARS_TO_USE_SHOWN).map(row => toJarSummary(context, row)),
    stages: stageBand(context),
    unsettledJars: unsettledJars(db),
  }
}

/** What is late and need not be done. @throws NotFound where nothing of it is asked for any more */
export function clearLate(context: Context, todo: TodoCleared): NowAnswer {
  if (!clearTodo(context.db, todo, context.now())) throw new NotFound('kind', 'That is not asked for any more: look at Now again.')
  return nowPage(context)
}

/** Water of a batch in a machine: how much of what it was loaded with is gone, and how much is in the food, wet basis. */
interface WaterNow {
  gone: number
  moisture: number
}

/** Water by now. What is kept follows from the log; a rack that is off, or that nobody has weighed, has moved water since. */
function waterNow(context: Context, view: BatchViewRow, guessed = !isWeighed(context.db, view.batch_id)): WaterNow {
  return view.off_from === null && !guessed ? { gone: view.water_gone ?? 0, moisture: view.moisture } : waterBy(context, view)
}

/** The same by the curve, to the minute. */
function waterBy(context: Context, view: BatchViewRow): WaterNow {
  const known = drifts.get(context) ?? new Map<string, Drifted>()
  drifts.set(context, known)
  const minute = Math.floor(context.now() / MINUTE)
  const { batch_id: id, touched_at: touchedAt, water_gone: asKept } = view
  const last = known.get(id)
  if (last?.minute === minute && last.touchedAt === touchedAt && last.asKept === asKept) return last.water
  const state = foldBatch(entriesOfBatch(context.db, id), context.foods.find)!
  const assessed = assess(state, minute * MINUTE)!
  const water = { gone: assessed.waterGone.p50, moisture: assessed.estimate.moistureNow.p50 }
  known.set(id, { minute, touchedAt, asKept, water })
  return water
}

/** Of racks that are off, by the minute: everybody who looks asks for the same. */
interface Drifted {
  minute: number
  touchedAt: number
  asKept: number | null
  water: WaterNow
}
const drifts = new WeakMap<Context, Map<string, Drifted>>()

function racks(context: Context): RackAnswer[] {
  const { db, foods } = context
  const drying = dryingViews(db)
  return listMachines(db).map((machine): RackAnswer => {
    const views = drying.filter(view => view.machine_id === machine.id)
    const runId = views[0]?.run_id ?? undefined
    const byTray = new Map(
      views.flatMap(view => {
        const guessed = !isWeighed(db, view.batch_id)
        const { gone, moisture } = waterNow(context, view, guessed)
        const target = (JSON.parse(view.product ?? '{}') as Partial<ProductFacts>).dryAt
        return (JSON.parse(view.trays) as number[]).map(
          position => [position, { view, waterLeft: 1 - gone, moisture, target, guessed }] as const,
        )
      }),
    )
    return {
      machine,
      runId,
      setC: runId ? heatOf({ db }, runId) : undefined,
      trays: Array.from({ length: machine.trays }, (_, i) => {
        const there = byTray.get(i + 1)
        return there
          ? {
              position: i + 1,
              batchId: there.view.batch_id,
              batchNumber: there.view.number,
              title: foods.find(there.view.food_key)?.name,
              waterLeft: there.waterLeft,
              moisture: there.moisture,
              target: there.target,
              guessed: there.guessed ? (true as const) : undefined,
            }
          : { position: i + 1 }
      }),
      finishes: views.map(view => ({
        batchId: view.batch_id,
        batchNumber: view.number,
        title: foods.find(view.food_key)?.name ?? view.title,
        from: view.finish_from ?? undefined,
        to: view.finish_to ?? undefined,
      })),
    }
  })
}

/** Temperature set in a run now; null while off. */
function heatOf({ db }: Pick<Context, 'db'>, runId: string): number | null {
  return ofKind(inForce(entriesOfRun(db, runId)), 'heat').at(-1)?.body.setC ?? null
}

export function batchList(context: Context, filter: { stage?: Stage; before?: number }): { batches: BatchSummary[]; more: boolean } {
  const rows = listBatchViews(context.db, { ...filter, limit: PAGE + 1 })
  return {
    batches: rows
      .slice(0, PAGE)
      .map(row => toBatchSummary(row.stage === 'drying' ? { ...row, water_gone: waterNow(context, row).gone } : row)),
    more: rows.length > PAGE,
  }
}

/** A batch's whole log: the page works out the rest with the same core functions. */
export function batchPage(context: Context, batchId: string): BatchAnswer {
  const { db } = context
  const batch = requireBatch(context, batchId)
  const taken: BatchAnswer['taken'] = {}
  for (const view of dryingViews(db)) {
    if (!view.machine_id || !view.run_id || view.batch_id === batchId) continue
    const there = (taken[view.machine_id] ??= { runId: view.run_id, positions: [], setC: heatOf(context, view.run_id) })
    there.positions.push(...(JSON.parse(view.trays) as number[]))
  }
  const air = newestAir(db)
  const entries = entriesOfBatch(db, batchId)
  const machines = listMachines(db)
  const state = foldBatch(entries, context.foods.find)!
  const { weightG, mix } = state.intake.body
  return {
    batchId,
    number: batch.number,
    // With its own targets: what is tried or written next may be another cut.
    food: mixedFood(context.foods.find(state.food.key)!, weightG, mix ?? [], context.foods.find),
    accepted: acceptedCautions(db, CARES),
    schools: questionsOf(context.foods.schools, state.food, { card: state.card, purpose: state.purpose, way: state.run?.way.way }),
    others: othersIn(context, batchId),
    mates: matesOf(context, batchId, state),
    lastAir:
      air?.body.kind === 'air' && air.body.roomC !== undefined
        ? { at: air.at, roomC: air.body.roomC, roomHumidity: air.body.roomHumidity! }
        : undefined,
    entries,
    machines,
    learned: Object.fromEntries(machines.map(machine => [machine.id, hoursInMachine(context, machine.id, state)])),
    reviews: reviewsFor(context, state.food.key, state.card.key, batchId),
    shelf: PURPOSES.flatMap(form => jarsHolding(db, state.food.key, form, JARS_AT_HAND)).map(row => toJarSummary(context, row)),
    tools: listTools(db),
    jars: jarsOfBatch(db, batchId).map(jar => ({ jarId: jar.id, number: jar.number })),
    taken,
    family: familyOf(context, batchId, state),
    planned: state.run ? undefined : plannedFor(db, batchId),
    stages: stageBand(context),
  }
}

/** Rules that are accepted once. */
const CARES = SAFETY_RULES.filter(rule => rule.severity === 'care').map(rule => rule.key)

/** Foods that stand in each machine now, for what a mixed load does to them. */
function othersIn(context: Context, batchId: string): BatchAnswer['others'] {
  const { db, foods } = context
  const others: BatchAnswer['others'] = {}
  for (const view of dryingViews(db)) {
    const food = foods.find(view.food_key)
    if (!view.machine_id || !food || view.batch_id === batchId) continue
    const other = foldBatch(entriesOfBatch(db, view.batch_id), foods.find)
    const cooked = other?.prep.some(({ body }) => COOKING_STEPS.includes(body.step))
    // Only in a freeze dryer it matters whether it went in frozen, and how much ice it makes.
    const run = WAYS[findMachine(db, view.machine_id)?.kind ?? STANDARD_WAY].underVacuum ? other?.run : undefined
    const frozen = run && run.frozen.length === run.positions.length
    const waterG = run && iceOf(other)
    ;(others[view.machine_id] ??= []).push({ food, cardKey: view.card_key, cooked, frozen, waterG })
  }
  return others
}

/** The search of a book is made once. */
const searches = new WeakMap<FoodBook, ReturnType<typeof foodSearch<Food>>>()
function searchOf(book: FoodBook): (words: string) => Food[] {
  const search = searches.get(book) ?? foodSearch(book.foods)
  searches.set(book, search)
  return search
}
const FOODS_FOUND = 8

/** Batches, jars and foods that the words fit. */
export function findAnything(context: Context, words: string): FoundItem[] {
  const wanted = words.trim().toLowerCase()
  if (wanted === '') return []
  const foods = searchOf(context.foods)(wanted).slice(0, FOODS_FOUND)
  return [
    ...findBatchViews(context.db, wanted.replace(/^batch #?(?=\d+$)/, ''), 8).map((row): FoundItem => ({
      kind: 'batch',
      id: row.batch_id,
      title: row.title,
      detail: `Batch ${row.number}`,
    })),
    ...findJarViews(
      context.db,
      wanted.replace(/^jar #?(?=\d+$)/, ''),
      foods.map(food => food.key),
      8,
    ).map((row): FoundItem => ({
      kind: 'jar',
      id: row.jar_id,
      title: `${row.name ?? context.foods.product(row.food_key)?.name ?? row.food_key}, ${row.purpose}`,
      detail: `Jar ${row.number}, ${row.place}`,
    })),
    ...foods.map((food): FoundItem => ({ kind: 'food', id: food.key, title: food.name, detail: 'In the reference' })),
  ]
}

function toBatchSummary(row: BatchViewRow): BatchSummary {
  return {
    batchId: row.batch_id,
    number: row.number,
    title: row.title,
    foodKey: row.food_key,
    stage: row.stage,
    purpose: row.purpose,
    startedAt: row.started_at,
    touchedAt: row.touched_at,
    rawG: row.raw_g,
    loadedG: row.loaded_g ?? undefined,
    dryG: row.dry_g ?? undefined,
    powderG: row.powder_g ?? undefined,
    waterGone: row.water_gone ?? undefined,
    finishFrom: row.finish_from ?? undefined,
    finishTo: row.finish_to ?? undefined,
  }
}
