import { InputError, type Problem } from '#core/errors'
import { startOfDay } from '#core/planning'
import { DAY } from '#core/time'
import type { PlanBook, PlanBookAnswer, Weather } from '#shared/contracts'
import { broughtInByMonth, readPlanBook, shelfByForm, writePlanBook } from '#server/db/plan'
import { usesSince } from '#server/db/jars'
import { findMachine } from '#server/db/settings'
import { householdOf, type Context } from '../context'
import { Conflict } from '../refusals'

/** Three hours a day, as fast as is usual, and nothing more is known. */
const EMPTY: PlanBook = { handsMinutes: 180, pace: 1, away: [], meals: [], prices: [], harvests: [], wishes: [] }
const YEAR = 365 * DAY

export const planBookOf = ({ db }: Pick<Context, 'db'>): PlanBook => readPlanBook(db)?.book ?? EMPTY

/** What the household says of its days and its garden, and what its own log says beside. */
export function planBookPage(context: Context): PlanBookAnswer {
  const { db } = context
  return {
    book: planBookOf(context),
    version: readPlanBook(db)?.version ?? 0,
    ownYears: ownYears(context),
    usedLastYear: Object.fromEntries(
      usesSince(db, context.now() - YEAR).reduce(
        (sums, use) => sums.set(use.food_key, (sums.get(use.food_key) ?? 0) + use.grams),
        new Map<string, number>(),
      ),
    ),
    shelf: shelfByForm(db).map(row => ({ foodKey: row.food_key, purpose: row.purpose, leftG: row.left_g })),
  }
}

/**
 * Writes the document anew.
 * @throws InputError where a food, a machine or a date does not go; Conflict where it was changed elsewhere meanwhile
 */
export function savePlanBook(context: Context, { version, ...book }: PlanBook & { version: number }): PlanBookAnswer {
  const { db } = context
  checkBook(context, book)
  return db
    .transaction(() => {
      const known = readPlanBook(db)
      if ((known?.version ?? 0) !== version && JSON.stringify(known?.book) !== JSON.stringify(book))
        throw new Conflict('What is planned with was changed elsewhere meanwhile: look at it again.', [
          { field: 'version', code: 'now', message: `It is ${known?.version ?? 0} now.` },
        ])
      if ((known?.version ?? 0) === version) writePlanBook(db, book)
      return planBookPage(context)
    })
    .immediate()
}

/** What the sky is to be takes the place of what was said before. */
export function saveWeather(context: Context, weather: Weather): PlanBookAnswer {
  writePlanBook(context.db, { ...planBookOf(context), weather })
  return planBookPage(context)
}

function checkBook(context: Context, { harvests, wishes, meals }: PlanBook): void {
  const { timeZone } = householdOf(context)
  const today = startOfDay(context.now(), timeZone)
  const problems: Problem[] = []
  const say = (field: string, code: string, message: string) => problems.push({ field, code, message })
  const known = new Map(planBookOf(context).harvests.map(line => [line.id, line.to]))
  harvests.forEach(({ id, foodKey, to }, i) => {
    if (!context.foods.find(foodKey)) say(`harvests.${i}.foodKey`, 'unknown-food', `“${foodKey}” is not a food in the reference.`)
    // What was a harvest to come and is over now may stand; what is entered is to come.
    if (known.get(id) !== to && dayAt(to, timeZone) < today)
      say(`harvests.${i}.to`, 'past', 'This harvest is over: give days that are still to come, or take the line away.')
  })
  wishes.forEach(({ foodKey, by, id }, i) => {
    if (!context.foods.find(foodKey)) say(`wishes.${i}.foodKey`, 'unknown-food', `“${foodKey}” is not a food in the reference.`)
    if (!planBookOf(context).wishes.some(wish => wish.id === id && wish.by === by) && dayAt(by, timeZone) < today)
      say(`wishes.${i}.by`, 'past', 'That day is over: wish for one that is still to come.')
  })
  meals.forEach(({ machineId }, i) => {
    if (!findMachine(context.db, machineId)) say(`meals.${i}.machineId`, 'unknown-machine', 'There is no such machine any more.')
  })
  if (problems.length > 0) throw new InputError(problems)
}

/** Local midnight of a date such as 2026-09-30. */
export const dayAt = (day: string, timeZone: string) => startOfDay(Date.parse(`${day}T12:00:00Z`), timeZone)

/** The sky of a day, by its local midnight, as far as it was foretold. */
export function skyOf(context: Context): (day: number) => { sun: number; rain: number } | undefined {
  const { timeZone } = householdOf(context)
  const days = new Map(planBookOf(context).weather?.days.map(told => [dayAt(told.day, timeZone), told]))
  return day => days.get(day)
}

/** What came in of each food in each year: from when to when, how often, how much. */
function ownYears(context: Context): PlanBookAnswer['ownYears'] {
  const { timeZone } = householdOf(context)
  const dateOf = new Intl.DateTimeFormat('sv-SE', { timeZone })
  const years = new Map<string, PlanBookAnswer['ownYears'][number]>()
  for (const row of broughtInByMonth(context.db)) {
    const food = context.foods.find(row.food_key)
    if (!food || !(row.raw_g > 0)) continue
    const day = dateOf.format(row.started_at)
    const key = `${row.food_key}/${row.purpose}/${day.slice(0, 4)}`
    const known = years.get(key)
    if (known) Object.assign(known, { to: day, baskets: known.baskets + 1, weightG: known.weightG + row.raw_g })
    else
      years.set(key, {
        foodKey: row.food_key,
        foodName: food.name,
        purpose: row.purpose as PlanBook['harvests'][number]['purpose'],
        year: day.slice(0, 4),
        from: day,
        to: day,
        baskets: 1,
        weightG: row.raw_g,
      })
  }
  return [...years.values()].sort((a, b) => b.year.localeCompare(a.year) || b.weightG - a.weightG).slice(0, 60)
}
