import { targetIn } from '#core/foods'
import { hoursOf, hoursOfRun } from '#core/hours'
import { foldBatch } from '#core/batch'
import { targetWeight } from '#core/mass'
import { formatTemperature, formatWeight } from '#core/units'

import { entriesOfBatch } from '#server/db/entries'
import { findMachine } from '#server/db/settings'
import { householdOf, type Context } from '#server/services/context'
import { requireBatch } from '#server/services/writeLog'
import type { LabelFonts } from './fonts'
import { codeBars } from './layout'
import { bytesOf, drawBars, drawLine, newDocument, points } from './pdf'

/** Blank rows for weighings: two a page's hand width, enough for a long run. */
const ROWS = 14
const PAGE = { width: 210, height: 297 }
const LEFT = 14

/**
 * A card for the wall: what the batch is, what it should weigh when dry, and blank rows to write on beside
 * the machine. Its figures are typed in later.
 * @param origin address under which the household reaches this server; goes into the code
 */
export function batchCardPdf(context: Context, batchId: string, fonts: LabelFonts, origin: string): Promise<Buffer> {
  const { number } = requireBatch(context, batchId)
  const state = foldBatch(entriesOfBatch(context.db, batchId), context.foods.find)!
  const household = householdOf(context)
  const weight = (grams: number) => formatWeight(grams, household.weightUnit)
  const { food, run } = state
  const machine = run && findMachine(context.db, run.machineId)
  const way = run?.way ?? state.card.ways[0]!
  const date = new Intl.DateTimeFormat(household.locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: household.timeZone })
  const loadedG = run?.loadedG ?? state.balance.weightG.p50
  const { mean, sd } = state.balance.solids
  const hours = run ? hoursOfRun(state, run) : hoursOf({ ...state, way: way.way })
  const dry = [mean - sd, mean + sd].map(solids => targetWeight(loadedG * Math.max(0.005, solids), targetIn(food, state.purpose, way.way)))
  const document = newDocument(fonts, { size: [points(PAGE.width), points(PAGE.height)], info: { Title: `Batch ${number}: ${food.name}` } })
  const say = (text: string, x: number, y: number, sizeMm: number, bold = false) => drawLine(document, { text, x, y, sizeMm, bold })
  const rule = (x1: number, y: number, x2: number, thick = 0.2) =>
    document.moveTo(points(x1), points(y)).lineTo(points(x2), points(y)).lineWidth(points(thick)).stroke('#000')
  const upright = (x: number, y1: number, y2: number) =>
    document.moveTo(points(x), points(y1)).lineTo(points(x), points(y2)).lineWidth(points(0.2)).stroke('#000')

  say(`Batch ${number}`, LEFT, 20, 5)
  say(food.name, LEFT, 31, 10, true)
  say(`${state.cutName}, for ${state.purpose}; ${state.intake.body.source}, ${date.format(state.intake.at)}`, LEFT, 38.5, 4)
  say(
    `${weight(loadedG)} ${run ? 'loaded' : 'to load'}${machine ? `, ${machine.name}, ${run.positions.length} trays` : ''}, ${formatTemperature(way.temperatureC, household.temperatureUnit)}`,
    LEFT,
    46,
    4.4,
  )
  say(
    `Dry at about ${weight(Math.min(...dry))} to ${weight(Math.max(...dry))}; usually ${Math.round(hours.low)} to ${Math.round(hours.high)} hours`,
    LEFT,
    53,
    4.4,
    true,
  )
  drawBars(document, codeBars(`${origin}/b/${number}`, 34, { x: PAGE.width - LEFT - 34, y: 12 }))

  const columns = [
    ['Day, time', 44],
    ['Weight', 38],
    ['Heat', 24],
    ['Feel, trays moved, note', 76],
  ] as const
  const top = 62
  const rowMm = 10.4
  let x: number = LEFT
  for (const [name, width] of columns) {
    say(name, x + 1.5, top + 6, 3.4, true)
    upright(x, top, top + (ROWS + 1) * rowMm)
    x += width
  }
  upright(x, top, top + (ROWS + 1) * rowMm)
  for (let row = 0; row <= ROWS + 1; row++) rule(LEFT, top + row * rowMm, x, row < 2 ? 0.4 : 0.2)

  let y = top + (ROWS + 1) * rowMm + 11
  say('Rest', LEFT, y, 4.4, true)
  for (let day = 1; day <= 7; day++) {
    const left = LEFT + 24 + (day - 1) * 22.5
    document
      .rect(points(left), points(y - 6), points(20), points(10))
      .lineWidth(points(0.2))
      .stroke('#000')
    say(`day ${day}`, left + 1.2, y - 3, 2.4)
  }
  y += 10
  say('d dry   h hung, fell when knocked   s sticking   b beads   m mould', LEFT + 24, y, 3.2)
  y += 11
  for (const [name, at] of [
    ['Ground: in', LEFT],
    ['out', LEFT + 70],
    ['sieve', LEFT + 120],
  ] as const) {
    say(name, at, y, 4)
    rule(at + (name === 'Ground: in' ? 22 : 13), y + 0.8, at + (name === 'Ground: in' ? 62 : 50))
  }
  y += 11
  for (let jar = 0; jar < 3; jar++) {
    say('Jar', LEFT + jar * 60, y, 4)
    rule(LEFT + jar * 60 + 9, y + 0.8, LEFT + jar * 60 + 52)
  }
  return bytesOf(document)
}
