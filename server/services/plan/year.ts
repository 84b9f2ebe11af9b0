import { desiccantG, jarTakesG, oxygenAbsorber } from '#core/keeping'
import { startOfDay } from '#core/planning'
import { countBack, placeNights, type PlanOption, type YearLine } from '#core/plan'
import { SUN_HOURS, WAYS } from '#core/ways'
import { DAY } from '#core/time'
import type { PlanBook, PlanYearAnswer } from '#shared/contracts'
import { shelfByForm } from '#server/db/plan'
import { listMachines } from '#server/db/settings'
import { householdOf, type Context } from '../context'
import { dayAt, planBookOf } from './book'
import { optionsOf, type Machines } from './options'

const MONTHS = 12
/** Of the air over a powder that keeps, with a little silica gel. */
const WANTED_HUMIDITY = 0.2
const kindOf = ({ foodKey, purpose }: { foodKey: string; purpose: string }) => `${foodKey}/${purpose}`

/** The coming twelve months: what the calendar brings against the nights of the machines and the hours of hands, wishes, and what to buy. */
export async function planYear(context: Context): Promise<PlanYearAnswer> {
  const household = householdOf(context)
  const { timeZone, jarMl, pantryC, pantryHumidity } = household
  const pantry = { celsius: pantryC, humidity: pantryHumidity }
  const book = planBookOf(context)
  const machines = listMachines(context.db)
  const months = monthsFrom(context.now(), timeZone)
  const lines: (YearLine & { foodKey: string; purpose: PlanBook['harvests'][number]['purpose']; lowKg: number; highKg: number })[] = []
  for (const harvest of book.harvests) {
    const line = lineOf(context, harvest, months, machines, book.pace)
    if (line) lines.push(line)
    await new Promise(setImmediate)
  }
  const jarsByKind = lines.map(line => {
    const grams = line.kg.reduce((sum, kg) => sum + kg, 0) * line.productGKg
    const density = context.foods.find(line.foodKey)!.powderDensity.value.mean
    const takes = jarTakesG(density, line.purpose, jarMl)
    return { line, grams, jars: Math.ceil(grams / takes), eachG: Math.min(grams, takes) }
  })
  const filled = jarsByKind.filter(item => item.jars > 0).map(item => ({ ...oxygenAbsorber(jarMl, item.eachG), jars: item.jars }))
  return {
    problem: {
      nights: months.slice(0, MONTHS).map((from, i) => Math.round((months[i + 1]! - from) / DAY)),
      machines: machines.map(({ id, name, trays }) => ({ id, name, places: trays })),
      handsMinutesADay: book.handsMinutes,
      lines: lines.map(({ id, title, kg, handsMinutesKg, productGKg, ways }) => ({ id, title, kg, handsMinutesKg, productGKg, ways })),
    },
    months: months.slice(0, MONTHS),
    lines: jarsByKind.map(({ line, grams, jars }) => ({
      id: line.id,
      title: line.title,
      purpose: line.purpose,
      lowKg: line.lowKg,
      highKg: line.highKg,
      productG: grams,
      jars,
    })),
    wishes: book.wishes.map(wish => wishBack(context, wish, { lines, machines, book, timeZone })),
    shopping: {
      jarMl,
      jars: jarsByKind.reduce((sum, item) => sum + item.jars, 0),
      sachetCc: filled[0]?.sizeCc,
      sachets: filled.reduce((sum, item) => sum + item.count * item.jars, 0),
      // The most that the air of one jar asks for.
      silicaG: Math.max(0, ...filled.map(({ airMl }) => desiccantG({ airMl, filledIn: pantry, wanted: WANTED_HUMIDITY, ingressG: 0 }))),
    },
  }
}

/** Local midnights of the first of this month and of twelve to come. */
function monthsFrom(now: number, timeZone: string): number[] {
  const found: number[] = []
  const date = new Intl.DateTimeFormat('sv-SE', { timeZone }).format(now)
  const [year, month] = date.split('-').map(Number) as [number, number, number]
  for (let i = 0; i <= MONTHS; i++) {
    const of = new Date(Date.UTC(year, month - 1 + i, 1)).toISOString().slice(0, 10)
    found.push(dayAt(of, timeZone))
  }
  return found
}

type Harvest = PlanBook['harvests'][number]

function lineOf(context: Context, harvest: Harvest, months: readonly number[], machines: Machines, pace: number) {
  const food = context.foods.find(harvest.foodKey)
  if (!food) return undefined
  const { timeZone } = householdOf(context)
  const weightG = (harvest.lowG + harvest.highG) / 2
  const kg = Array.from({ length: MONTHS }, () => 0)
  let pickings = 0
  const [first, last] = [dayAt(harvest.from, timeZone), dayAt(harvest.to, timeZone)]
  for (let i = 0; ; i += harvest.everyDays) {
    const day = startOfDay(first, timeZone, i)
    if (day > last) break
    const month = months.findIndex((from, k) => day >= from && day < (months[k + 1] ?? -Infinity))
    if (month < 0 || day < startOfDay(context.now(), timeZone)) continue
    kg[month]! += weightG / 1000
    pickings++
  }
  const options = partOptions(context, harvest, weightG, machines, pace)
  const hands = options[0] ? (options[0].option.handsMinutes + options[0].option.afterMinutes) / options[0].kg : 0
  return {
    id: harvest.id,
    title: food.name,
    foodKey: harvest.foodKey,
    purpose: harvest.purpose,
    kg,
    lowKg: (pickings * harvest.lowG) / 1000,
    highKg: (pickings * harvest.highG) / 1000,
    handsMinutesKg: hands,
    productGKg: options[0] ? options[0].option.productG / options[0].kg : 0,
    ways: options.map(({ option, kg: each, machineId, kind }) => ({
      machineId,
      placeNightsKg: placeNights(option.places, elapsedIn(kind, option, 'p50')) / each,
      kWhKg: option.kWh / each,
    })),
  }
}
/** Outdoors the hours of an option are of sun: so many a day in its season. */
const elapsedIn = (kind: Machines[number]['kind'], { hours }: PlanOption, p: keyof PlanOption['hours']) =>
  WAYS[kind].outdoors ? (24 * hours[p]) / SUN_HOURS : hours[p]

/** The way of each machine that takes the fewest place-nights, by a picking or by a quarter of it. */
function partOptions(
  context: Context,
  { foodKey, purpose }: Pick<Harvest, 'foodKey' | 'purpose'>,
  weightG: number,
  machines: Machines,
  pace: number,
) {
  const food = context.foods.find(foodKey)!
  return machines.flatMap(machine => {
    for (const parts of [1, 2, 4, 8]) {
      const options = optionsOf(
        context,
        { food, purpose, weightG: weightG / parts, handG: weightG / parts },
        [machine],
        context.now(),
        pace,
      )
      const nights = (option: PlanOption) => placeNights(option.places, elapsedIn(machine.kind, option, 'p50'))
      const best = options.sort((a, b) => nights(a) - nights(b))[0]
      if (best) return [{ option: best, kg: weightG / parts / 1000, machineId: machine.id, kind: machine.kind }]
    }
    return []
  })
}

/** A wish counted back: what is missing, the basket that gives it, and the last day on which that may go in. */
function wishBack(
  context: Context,
  wish: PlanBook['wishes'][number],
  {
    lines,
    machines,
    book,
    timeZone,
  }: { lines: readonly (YearLine & { foodKey: string; purpose: string })[]; machines: Machines; book: PlanBook; timeZone: string },
): PlanYearAnswer['wishes'][number] {
  const food = context.foods.find(wish.foodKey)
  const haveG = shelfByForm(context.db)
    .filter(row => kindOf({ foodKey: row.food_key, purpose: row.purpose }) === kindOf(wish))
    .reduce((sum, row) => sum + row.left_g, 0)
  const missingG = Math.max(0, wish.grams - haveG)
  const by = dayAt(wish.by, timeZone) + DAY
  const told = { id: wish.id, title: food?.name ?? wish.foodKey, purpose: wish.purpose, grams: wish.grams, haveG, missingG, by }
  if (!food || missingG === 0) return told
  const [way] = partOptions(context, wish, 2000, machines, book.pace).sort((a, b) => a.option.hours.p50 - b.option.hours.p50)
  if (!way) return { ...told, impossible: 'no-machine' }
  const { option, kg, kind, machineId } = way
  const machine = machines.find(item => item.id === machineId)!
  const { productG, places, restDays } = option
  const { needsKg, loads, loadBy } = countBack(
    missingG,
    by,
    { kg, productG, places, restDays, hours: elapsedIn(kind, option, 'p90') },
    machine.trays,
  )
  const comingKg = lines
    .filter(line => kindOf(line) === kindOf(wish))
    .reduce((sum, line) => sum + line.kg.reduce((all, value) => all + value, 0), 0)
  return {
    ...told,
    needsKg,
    comingKg,
    machineName: machine.name,
    loads,
    loadBy,
    impossible: loadBy < context.now() ? 'no-time' : undefined,
  }
}
