import { InputError } from '#core/errors'
import { foldBatch } from '#core/batch'
import type { BatchState } from '#core/log'
import { contentOf, jarBest, jarDamp, jarWater } from '#core/jars'
import { bestByWindow, MONTH_MS, strengthOf, type Damp } from '#core/keeping'
import { portionOf } from '#core/using'
import type { BasketAnswer, JarAnswer, JarSummary, PacketAnswer, RecallAnswer, FoodWish, ShelfAnswer, StockAnswer } from '#shared/contracts'
import { batchOfNumber, batchView } from '#server/db/batches'
import { entriesOfBatch, entriesOfJar, smellsOf, stockOfJar, warmthOf } from '#server/db/entries'
import {
  findJar,
  jarsHolding,
  jarsOnShelf,
  jarOfNumber,
  jarsWithLot,
  jarView,
  partsOfJar,
  placesInUse,
  shelfSums,
  stockByFood,
  usesSince,
  type JarViewRow,
} from '#server/db/jars'
import { listWishes, putWish } from '#server/db/wishes'
import { householdOf, pantryOf, type Context } from './context'
import { jarsNow } from './jars'
import { titleOf } from './projections'
import { NotFound } from './refusals'
import { DAY } from '#core/time'

const YEAR_MS = 365.25 * DAY
/** Less than so many months' use is low. */
const LOW_MONTHS = 2
/** What lasts so many months says nothing of a habit. */
const LEAST_HABIT_MS = 45 * DAY
/** Other jars of the same that may be poured over. */
const OTHERS_SHOWN = 12

/** The whole shelf: every jar with something in it, what there is by food, and what was eaten in a year. */
export function shelfPage(context: Context): ShelfAnswer {
  const { db } = context
  const sums = shelfSums(db)
  const jars = jarsOnShelf(db)
  const keys = [...new Set(jars.map(jar => jar.foodKey))]
  const foods = Object.fromEntries(
    keys.map(key => [key, { name: context.foods.product(key)?.name ?? key, colour: context.foods.product(key)?.powderColour ?? PLAIN }]),
  )
  return {
    jars,
    foods,
    count: sums.count,
    totalG: sums.grams,
    places: [...new Set(jars.map(jar => jar.place))],
    stock: stockOf(context),
    usedByMonth: usedByMonth(context),
  }
}

function stockOf(context: Context): StockAnswer[] {
  const { db, foods } = context
  const now = context.now()
  const wishes = listWishes(db)
  return stockByFood(db, now - YEAR_MS)
    .map((row): StockAnswer => {
      const food = foods.product(row.food_key)
      // A food that came to the shelf in spring has not had a year to be eaten.
      const spanMs = Math.min(YEAR_MS, Math.max(LEAST_HABIT_MS, now - (row.first_at ?? now)))
      const monthsLeft = row.used_g > 0 ? row.left_g / (row.used_g / (spanMs / MONTH_MS)) : undefined
      const leastG = wishes.get(row.food_key)?.least_g ?? undefined
      return {
        foodKey: row.food_key,
        foodName: food?.name ?? row.food_key,
        colour: food?.powderColour ?? PLAIN,
        leftG: row.left_g,
        jars: row.jars,
        usedYearG: row.used_g,
        monthsLeft,
        leastG,
        low: leastG === undefined ? monthsLeft !== undefined && monthsLeft < LOW_MONTHS : row.left_g < leastG,
      }
    })
    .filter(item => item.leftG > 0 || item.usedYearG > 0 || item.low)
    .sort((a, b) => a.foodName.localeCompare(b.foodName))
}

function usedByMonth(context: Context): ShelfAnswer['usedByMonth'] {
  const month = new Intl.DateTimeFormat('sv-SE', { year: 'numeric', month: '2-digit', timeZone: householdOf(context).timeZone })
  const sums = new Map<string, number>()
  for (const use of usesSince(context.db, context.now() - YEAR_MS))
    sums.set(month.format(use.at), (sums.get(month.format(use.at)) ?? 0) + use.grams)
  return [...sums].map(([name, grams]) => ({ month: name, grams }))
}

/** A jar with its months, its strength and every basket in it. */
export function jarPage(context: Context, jarId: string): JarAnswer {
  const { db, foods } = context
  const row = jarView(db, jarId)
  const food = row && foods.product(row.food_key)
  if (!row || !food) throw new NotFound('jarId', 'There is no such jar. It may have been voided.')
  const { jars, find } = jarsNow(context, [jarId])
  const jar = jars.get(jarId)!
  const pantry = pantryOf(context)
  const parts = partsOfJar(db, jarId)
  const states = new Map(parts.flatMap(part => [[part, foldBatch(entriesOfBatch(db, part.lot_id), foods.find)] as const]))
  const folded = [...states.values()].filter((state): state is BatchState => state !== undefined)
  const home = row.batch_id === null ? undefined : batchView(db, row.batch_id)
  const { from: _from, to: _to, limit, oldestAt: _oldest, ...bestBy } = jarBest(jar, find, pantry)
  const content = contentOf(jar, find)
  const months = bestByWindow({ food, purpose: row.purpose, packageKey: jar.packageKey, storageC: jar.storageC ?? pantry.celsius }).months
  return {
    ...toJarSummary(context, row),
    batchNumber: home?.number,
    cardKey: home?.card_key ?? food.cards[0]?.key ?? '',
    packageKey: row.package_key,
    sizeMl: row.size_ml ?? undefined,
    storageC: jar.storageC ?? pantry.celsius,
    filledAt: row.filled_at,
    ...jarWater(jar, find),
    bestBy,
    bestLimit: limit,
    damp: finite(jarDamp(jar, find, pantry)),
    mixed: jar.mixed,
    strength: strengthOf(
      months,
      smellsOf(db, row.food_key, row.purpose).map(({ at, smell, oldest_at }) => ({
        months: Math.max(0, at - oldest_at) / MONTH_MS,
        smell,
      })),
    ),
    allergens: content.allergens,
    saltShare: content.saltShare,
    heat: content.heat,
    portion: parts.length === 1 && folded.length === 1 ? portionOf(folded[0]!) : undefined,
    raw: content.raw,
    warm: content.warm,
    told: content.told,
    inOil: jar.inOil,
    contains: jar.contains,
    densityGMl: content.densityGMl,
    measured: content.measured,
    entries: entriesOfJar(db, jarId),
    pedigree: [...states].flatMap(([part, state]) => (state ? [basketOf(context, part, state)] : [])),
    packets: parts.flatMap(part => packetOf(context, part)),
    others: jarsHolding(db, row.food_key, row.purpose, OTHERS_SHOWN)
      .filter(other => other.jar_id !== jarId)
      .map(other => toJarSummary(context, other)),
  }
}

function basketOf(context: Context, part: { lot_id: string; ever_g: number; left_g: number }, state: BatchState): BasketAnswer {
  const { run } = state
  return {
    batchId: part.lot_id,
    number: batchView(context.db, part.lot_id)!.number,
    title: titleOf(state),
    everG: part.ever_g,
    leftG: part.left_g,
    rawG: state.intake.body.weightG,
    source: state.intake.body.source,
    cultivar: state.intake.body.cultivar,
    receivedAt: state.intake.at,
    loadedG: (state.earlierRuns[0] ?? run)?.loadedG,
    dryG: state.dryG,
    powderG: state.powderG || undefined,
    dryHours: run && [...state.earlierRuns, run].reduce((sum, item) => sum + item.clock.hoursAt(item.unloadedAt ?? context.now()), 0),
    restDays:
      state.rest?.startedAt === undefined ? undefined : Math.round(((state.rest.endedAt ?? context.now()) - state.rest.startedAt) / DAY),
    jars: new Set(state.jars.map(jar => jar.jarId)).size,
  }
}

/** What was bought in of a jar, where a part of it was. */
function packetOf({ db, foods }: Context, part: { lot_id: string; ever_g: number; left_g: number }): PacketAnswer[] {
  const stock = stockOfJar(db, part.lot_id)
  if (stock?.body.kind !== 'stock') return []
  const { name, foodKey, source, netG, price } = stock.body
  return [
    {
      jarId: part.lot_id,
      number: findJar(db, part.lot_id)!.number,
      name: name ?? foods.product(foodKey)?.name ?? foodKey,
      source,
      at: stock.at,
      netG,
      price,
      everG: part.ever_g,
      leftG: part.left_g,
    },
  ]
}

/** Every jar that a basket or packet went into, by whatever way, and what of it is eaten or gone: for a recall. */
export function recallPage(context: Context, lotId: string): RecallAnswer {
  const rows = jarsWithLot(context.db, lotId)
  return {
    jars: rows.map(row => ({ ...toJarSummary(context, row), everG: row.ever_g, partLeftG: row.part_left_g })),
    eatenG: rows.reduce((sum, row) => sum + Math.max(0, row.ever_g - row.part_left_g), 0),
  }
}

/** JSON has no infinity: beyond any shelf says the same. */
function finite(damp: Damp | undefined): Damp | undefined {
  const far = (days: number) => Math.min(days, 1e6)
  return damp && { ...damp, daysToClump: far(damp.daysToClump), daysToMould: far(damp.daysToMould) }
}

/** Colour of a powder whose food is gone from the reference. */
const PLAIN = '#C98B36'

export function toJarSummary({ foods }: Pick<Context, 'foods'>, row: JarViewRow): JarSummary {
  const food = foods.product(row.food_key)
  return {
    foodName: row.name ?? food?.name ?? row.food_key,
    colour: food?.powderColour ?? PLAIN,
    jarId: row.jar_id,
    number: row.number,
    batchId: row.batch_id ?? undefined,
    foodKey: row.food_key,
    purpose: row.purpose,
    place: row.place,
    netG: row.net_g,
    leftG: row.left_g,
    packedAt: row.packed_at,
    oldestAt: row.oldest_at,
    baskets: row.baskets,
    bestFrom: row.best_from,
    bestTo: row.best_to,
    smell: row.smell ?? undefined,
    smeltAt: row.smelt_at ?? undefined,
    saw: row.saw ?? undefined,
    warm: row.best_limit === 'warm' || undefined,
  }
}

/**
 * Keeps what the shelf should hold of a food, or what the shop asks for it.
 * @throws InputError for a food that is not in the reference
 */
export function saveWish(context: Context, wish: FoodWish): StockAnswer[] {
  if (!context.foods.product(wish.foodKey))
    throw new InputError([
      {
        field: 'foodKey',
        code: 'unknown-food',
        message: `“${wish.foodKey}” is not a food in the reference. Choose one from the list.`,
      },
    ])
  putWish(context.db, wish)
  return stockOf(context)
}

/** Places in use, with the warmth that was last logged of each. */
export function shelfPlaces({ db }: Context): { place: string; storageC?: number }[] {
  return placesInUse(db).map(place => ({ place, storageC: warmthOf(db, place) }))
}

/** The id behind the number on a label or a card. */
export function idOfNumber({ db }: Context, { kind, number }: { kind: 'jar' | 'batch'; number: number }): { id: string } {
  const id = kind === 'jar' ? jarOfNumber(db, number) : batchOfNumber(db, number)
  if (id === undefined) throw new NotFound('number', `There is no ${kind} ${number}.`)
  return { id }
}
