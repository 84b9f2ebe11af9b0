import { assess, foldBatch } from '#core/batch'
import { ofKind, inForce } from '#core/log'
import {
  batchInsight,
  learningCurve,
  summarise,
  toldAgainst,
  trialDifferences,
  worthOf,
  yieldAgainst,
  type BatchInsight,
  type FinishedBatch,
  type HoursTold,
  type Summary,
} from '#core/insight'
import { cardOf } from '#core/foods'
import { referenceYields } from '#core/planning'
import type { InsightAnswer, ReviewAnswer, TrialAnswer } from '#shared/contracts'
import { batchView, finishedViews, reviewsOf, type BatchViewRow } from '#server/db/batches'
import { entriesOfBatch, jarReviewsOf } from '#server/db/entries'
import { picturesOfBatch } from '#server/db/pictures'
import { findMachine } from '#server/db/settings'
import { listWishes } from '#server/db/wishes'
import { householdOf, type Context } from './context'
import { pictureAnswers } from './pictures'
import { NotFound } from './refusals'
import { DAY } from '#core/time'

export type InsightBy = 'food' | 'card' | 'purpose' | 'machine'

/** What finished batches taught, gathered by food, cut, purpose or machine. */
export function insightPage(context: Context, query: { by: InsightBy; food?: string; days?: number }): InsightAnswer {
  const { db, foods } = context
  const household = householdOf(context)
  const wishes = listWishes(db)
  const rows = finishedViews(db, {
    foodKey: query.food,
    since: query.days === undefined ? undefined : context.now() - query.days * DAY,
  })
  const groups = new Map<string, BatchViewRow[]>()
  for (const row of rows) {
    const key = { food: row.food_key, card: `${row.food_key}/${row.card_key}`, purpose: row.purpose, machine: row.machine_id ?? '' }[
      query.by
    ]
    groups.set(key, [...(groups.get(key) ?? []), row])
  }
  const finished = (list: readonly BatchViewRow[]) => list.map(row => toFinished(context, row))
  const worth = (summary: Summary, foodKey: string | undefined) =>
    worthOf(summary, {
      kWh: household.kwhPrice,
      hour: household.hourWorth,
      shopPerKg: foodKey === undefined ? undefined : (wishes.get(foodKey)?.shop_per_kg ?? undefined),
    })
  return {
    groups: [...groups]
      .map(([key, list]) => {
        const summary = summarise(finished(list))
        const first = list[0]!
        const food = query.by === 'food' || query.by === 'card' ? foods.find(first.food_key) : undefined
        return {
          key,
          name: nameOf(context, query.by, first),
          summary,
          reference: food && referenceYields(food, cardOf(food, first.card_key), first.purpose),
          worth: worth(summary, food?.key),
        }
      })
      .sort((a, b) => b.summary.batches - a.summary.batches || a.name.localeCompare(b.name)),
    all: summarise(finished(rows)),
    learning: learningCurve(rows.flatMap(toldOf).sort((a, b) => a.at - b.at)),
    told: rows
      .flatMap(row => toldOf(row).map(({ at, ...told }) => ({ batchId: row.batch_id, number: row.number, at, ...toldAgainst(told) })))
      .sort((a, b) => a.at - b.at),
    yields: rows.flatMap(row => yieldOf(context, row)).sort((a, b) => a.at - b.at),
  }
}

/** What came of a basket, beside what the reference gives. */
function yieldOf({ foods }: Context, row: BatchViewRow): InsightAnswer['yields'] {
  const food = foods.find(row.food_key)
  const productG = row.product_g ?? undefined
  const found = yieldAgainst(row.raw_g, productG, food && referenceYields(food, cardOf(food, row.card_key), row.purpose))
  if (!found) return []
  const { batch_id: batchId, number, started_at: at, food_key: foodKey } = row
  return [{ batchId, number, at, foodKey, name: food?.name ?? foodKey, ...found }]
}

/** What was said of a batch's hours when it went in. */
function toldOf({ insight, loaded_at, started_at }: BatchViewRow): (HoursTold & { at: number })[] {
  const told = insight === null ? undefined : (JSON.parse(insight) as BatchInsight).told
  return told ? [{ ...told, at: loaded_at ?? started_at }] : []
}

function nameOf({ db, foods }: Context, by: InsightBy, row: BatchViewRow): string {
  const food = foods.find(row.food_key)
  switch (by) {
    case 'food':
      return food?.name ?? row.food_key
    case 'card':
      return food ? `${food.name}, ${cardOf(food, row.card_key).name.toLowerCase()}` : row.card_key
    case 'machine':
      return (row.machine_id && findMachine(db, row.machine_id)?.name) || 'A machine that is gone'
    default:
      return row.purpose
  }
}

/** Electricity of its heat: rated power times the share of the time that a thermostat draws it. */
export function toFinished({ db }: Pick<Context, 'db'>, row: BatchViewRow): FinishedBatch {
  const insight = row.insight === null ? undefined : (JSON.parse(row.insight) as BatchInsight)
  const kWh = (insight?.heat ?? []).reduce((sum, { machineId, fullPowerH }) => {
    return sum + ((findMachine(db, machineId)?.watts ?? 0) / 1000) * fullPowerH
  }, 0)
  return {
    rawG: row.raw_g,
    loadedG: row.loaded_g ?? undefined,
    dryG: row.dry_g ?? undefined,
    productG: row.product_g ?? undefined,
    insight,
    kWh,
  }
}

const REVIEWS_SHOWN = 6
type Said = Pick<ReviewAnswer, 'again' | 'colour' | 'taste' | 'text'>

/** Words for next time on batches of a food and on their jars, those of the same card first, then the newest. */
export function reviewsFor({ db }: Context, foodKey: string, cardKey = '', except = ''): ReviewAnswer[] {
  const ofBatches = reviewsOf(db, foodKey, cardKey, except, REVIEWS_SHOWN).map(({ batch_id, number, card_key, review }): ReviewAnswer => {
    const { at, again, colour, taste, text } = JSON.parse(review) as Said & { at: number }
    return { batchId: batch_id, number, cardKey: card_key, at, again, colour, taste, text }
  })
  const ofJars = jarReviewsOf(db, foodKey, REVIEWS_SHOWN).map((row): ReviewAnswer => {
    const { again, colour, taste, text } = JSON.parse(row.body) as Said
    return {
      batchId: row.batch_id,
      number: row.number,
      cardKey: row.card_key,
      jar: { jarId: row.jar_id, number: row.jar_number },
      at: row.at,
      again,
      colour,
      taste,
      text,
    }
  })
  const same = (review: ReviewAnswer) => Number(review.cardKey === cardKey)
  return [...ofBatches, ...ofJars].sort((a, b) => same(b) - same(a) || b.at - a.at).slice(0, REVIEWS_SHOWN)
}

/** Pictures of a batch beside another's: the newest. */
const PICTURES_BESIDE = 4

/**
 * Two batches beside each other.
 * @throws NotFound where one of them is not there
 */
export function trialPage(context: Context, batchIds: readonly [string, string]): TrialAnswer {
  const sides = batchIds.map((batchId): TrialAnswer['sides'][number] => {
    const entries = entriesOfBatch(context.db, batchId)
    const state = foldBatch(entries, context.foods.find)
    const view = batchView(context.db, batchId)
    if (!state || !view) throw new NotFound('batches', 'One of the two batches is not there. It may have been voided.')
    const { run } = state
    const review = ofKind(inForce(entries), 'review').at(-1)?.body
    const hours =
      run?.unloadedAt === undefined || run.weighings.length === 0 ? undefined : assess(state, run.unloadedAt)!.estimate.hoursToTarget
    return {
      batchId,
      number: view.number,
      title: view.title,
      rawG: view.raw_g,
      loadedG: view.loaded_g ?? undefined,
      dryG: view.dry_g ?? undefined,
      productG: view.product_g ?? undefined,
      hoursToDry: hours && Number.isFinite(hours.p90) ? hours : undefined,
      handsMinutes: batchInsight(state, entries).handsMinutes,
      colour: review?.colour,
      taste: review?.taste,
      pictures: pictureAnswers(picturesOfBatch(context.db, batchId, PICTURES_BESIDE)),
      method: {
        machine: run && findMachine(context.db, run.machineId)?.name,
        cut: state.cutName,
        setC: run?.clock.spells[0]?.setC,
        thicknessMm: state.thicknessMm,
        purpose: state.purpose,
        rested: state.rest?.startedAt !== undefined,
      },
    }
  })
  return { sides, differences: trialDifferences(sides[0]!, sides[1]!) }
}
