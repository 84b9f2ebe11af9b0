import { uuidv7 } from 'uuidv7'
import { assess, foldBatch } from '#core/batch'
import { cardOf } from '#core/foods'
import { randomSource, type RandomSource } from '#core/stats'
import { entriesOfBatch } from '#server/db/entries'
import { hoursInMachine } from '#server/services/learning'
import { HOUR, MORNING, testBook, type TestBook } from './logbook'

/** What a household and its loads really are, and what it writes down. Physics of its own: Page's curve, hours that multiply. */
export interface LotTruth {
  foodKey: string
  cardKey: string
  purpose?: 'powder' | 'pieces'
  /** Share of solids of the raw food. */
  solids: number
  /** True hours over the card's, with the dial as it stands. */
  hours: number
  /** Page's power: above 1 it is slow at first. */
  power?: number
  /** How much hotter the machine runs than its dial, °C, and how often that is measured. */
  dialC?: number
  measured?: number
  /** Shares of its true hours at which it is weighed; the last one is the taking out. */
  weighedAt?: readonly number[]
  /** Share of the dry weight that is eaten at taking out. */
  tasted?: number
  /** Prepared over raw. */
  prep?: number
  cultivar?: string
  /** Hours by which the logged start lies after the true one. */
  lateStart?: number
  /** Not packed, not even rested. */
  open?: boolean
  /** Hygrometer in the jar. */
  jarAir?: boolean
}

const XE = 0.03

export interface Dried {
  batchId: string
  /** True hours by the dial, and what was said of them at loading. */
  hours: number
  said: { low: number; high: number }
  /** True weight at the target, and what was said of it at loading and at half. */
  targetG: number
  atHalf: { targetG: { p10: number; p50: number; p90: number }; hours: { p10: number; p50: number; p90: number } }
}

/** Dries one lot as a household would log it, from `from` hours after the morning on. */
export function dryLot(book: TestBook, lot: LotTruth, from: number, source: RandomSource): Dried {
  const { context, machineId } = book
  const food = context.foods.find(lot.foodKey)!
  const card = cardOf(food, lot.cardKey)
  const purpose = lot.purpose ?? 'powder'
  const rawG = 2000
  const loadedG = Math.round(rawG * (lot.prep ?? 0.9))
  const solidsG = loadedG * lot.solids
  const targetX = food.target[purpose] / (1 - food.target[purpose])
  const { low, high } = card.usualHours.value
  const hours = Math.sqrt(low * high) * lot.hours
  const n = lot.power ?? 1.1
  const startX = 1 / lot.solids - 1
  const y = Math.log((startX - XE) / (targetX - XE))
  const weightAt = (at: number) => solidsG * (1 + XE + (startX - XE) * Math.exp(-y * (Math.max(0, at) / hours) ** n))
  const scale = (grams: number) => Math.max(1, Math.round(grams * (1 + 0.002 * source.normal())))

  const batchId = book.begin({ foodKey: lot.foodKey, cardKey: card.key, purpose, weightG: rawG, cultivar: lot.cultivar }, from)
  book.log(batchId, from + 0.3, { kind: 'prep', step: 'trim', effect: 'waste', weightG: rawG - loadedG })
  const runId = uuidv7()
  const start = from + 1
  const late = lot.lateStart ?? 0
  book.log(batchId, start + late, { kind: 'load', runId, machineId, positions: [1, 2, 3, 4, 5], totalG: loadedG })
  book.heat(runId, start + late, card.temperatureC)
  const state = () => foldBatch(entriesOfBatch(context.db, batchId), context.foods.find)!
  const believed = state().run!.usualHours ?? hoursInMachine(context, machineId, state())
  // A chance of its own, so that measuring changes nothing else.
  const thermometer = randomSource(from + 7)
  const seen = lot.measured ?? 0
  for (let i = 0; i < seen; i++)
    book.air(runId, start + late + 1 + 0.5 * i, { chamberC: Math.round(card.temperatureC + (lot.dialC ?? 0) + 1.5 * thermometer.normal()) })
  const weighedAt = lot.weighedAt ?? [0.2, 0.5, 0.8, 1, 1.12]
  let atHalf: Dried['atHalf'] | undefined
  const half = () => {
    const { estimate } = assess(state(), MORNING + (start + late + hours / 2) * HOUR)!
    // Hours on the clock of the machine: what was measured in it counts.
    const { clock, loadedAt } = state().run!
    const real = (equivalent: number) => (clock.instantAt(equivalent) - loadedAt) / HOUR
    const { p10, p50, p90 } = estimate.hoursToTarget
    return { targetG: estimate.targetWeightG, hours: { p10: real(p10), p50: real(p50), p90: real(p90) } }
  }
  const last = weighedAt.length - 1
  weighedAt.forEach((share, i) => {
    if (!atHalf && share > 0.51) atHalf = half()
    const at = start + Math.max(late + 0.01, share * hours)
    const grams = scale(weightAt(share * hours))
    if (i < last) return book.log(batchId, at, { kind: 'weigh', totalG: grams })
    book.log(batchId, at - 0.05, {
      kind: 'feel',
      check: { form: card.feelForm, answers: FELT[card.feelForm]!, cooled: true, places: 3 },
    })
    const outG = Math.round(grams * (1 - (lot.tasted ?? 0)))
    book.log(batchId, at, { kind: 'unload', weightG: grams })
    if (lot.open) return
    book.log(batchId, at + 0.2, { kind: 'rest', container: '1.5 L jar' })
    book.log(batchId, at + 30, { kind: 'look', saw: 'dry' })
    book.log(batchId, at + 170, { kind: 'restEnd', weightG: outG })
    if (purpose === 'powder') book.log(batchId, at + 171, { kind: 'grind', dryInG: outG, powderOutG: Math.round(0.95 * outG) })
    const leftG = purpose === 'powder' ? Math.round(0.95 * outG) : outG
    book.log(batchId, at + 172, { kind: 'pack', jarId: uuidv7(), netG: leftG, packageKey: 'screw-jar', place: 'Top board', sizeMl: 500 })
  })
  return { batchId, hours: hours - late, said: believed, targetG: solidsG * (1 + targetX), atHalf: atHalf ?? half() }
}

const FELT: Record<string, Record<string, string>> = {
  pieces: { bend: 'snaps', middle: 'even' },
  leaves: { crush: 'crumbles' },
  sheet: { peel: 'brittle' },
  shreds: { crunch: 'crunches', mesh: 'fall' },
}

/** A household that dries so many lots, one after the other; what was said of each. */
export function years(count: number, lotOf: (i: number) => LotTruth, source: RandomSource): { book: TestBook; dried: Dried[] } {
  const book = testBook()
  const dried: Dried[] = []
  for (let i = 0; i < count; i++) dried.push(dryLot(book, lotOf(i), i * 400, source))
  return { book, dried }
}
