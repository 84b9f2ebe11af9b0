import { intervalOf, type Interval } from '../stats'
import type { BatchInsight } from './types'

/** A finished batch as the summary takes it. */
export interface FinishedBatch {
  rawG: number
  loadedG?: number
  dryG?: number
  productG?: number
  insight?: BatchInsight
  /** Electricity of its heat, kWh. */
  kWh: number
}

/** Own ratios at a step, the batch in the middle and the spread. */
export interface StepYield {
  middle: number
  spread?: Interval
  batches: number
}

export interface Summary {
  batches: number
  rawG: number
  productG: number
  /** Prepared over raw, dry over loaded, product over dry, product over raw. */
  steps: Record<'prep' | 'drying' | 'grinding' | 'whole', StepYield | undefined>
  lost: { dustG: number; filmG: number; rejectsG: number; cleaningG: number; unknownG: number }
  kWh: number
  handsMinutes: number
  price: number
  priced: number
  windows: { runs: number; held: number; medianError?: number }
}

const median = (values: readonly number[]) => intervalOf([...values]).p50

function stepOf(pairs: readonly (readonly [number | undefined, number | undefined])[]): StepYield | undefined {
  const ratios = pairs.flatMap(([out, into]) => (out !== undefined && into !== undefined && into > 0 ? [out / into] : []))
  if (ratios.length === 0) return undefined
  return { middle: median(ratios), spread: ratios.length > 2 ? intervalOf(ratios) : undefined, batches: ratios.length }
}

/** What finished batches together say: the yield of each step, losses by cause, hands, power, and how the windows did. */
export function summarise(batches: readonly FinishedBatch[]): Summary {
  const sum = (of: (batch: FinishedBatch) => number | undefined) => batches.reduce((total, batch) => total + (of(batch) ?? 0), 0)
  const windows = batches.flatMap(batch => batch.insight?.window ?? [])
  const errors = windows.map(({ middle, actual }) => Math.abs(middle - actual) / actual)
  const lost = { dustG: 0, filmG: 0, rejectsG: 0, cleaningG: 0, unknownG: 0 }
  for (const { insight } of batches)
    for (const cause of Object.keys(lost) as (keyof typeof lost)[]) lost[cause] += insight?.lost?.[cause] ?? 0
  return {
    batches: batches.length,
    rawG: sum(batch => batch.rawG),
    productG: sum(batch => batch.productG),
    lost,
    kWh: sum(batch => batch.kWh),
    handsMinutes: sum(batch => batch.insight?.handsMinutes),
    price: sum(batch => batch.insight?.price),
    priced: batches.filter(batch => batch.insight?.price !== undefined).length,
    steps: {
      prep: stepOf(batches.map(batch => [batch.loadedG, batch.rawG])),
      drying: stepOf(batches.map(batch => [batch.dryG, batch.loadedG])),
      grinding: stepOf(batches.map(batch => [batch.productG, batch.dryG])),
      whole: stepOf(batches.map(batch => [batch.productG, batch.rawG])),
    },
    windows: {
      runs: windows.length,
      held: windows.filter(({ low, high, actual }) => actual >= low && actual <= high).length,
      medianError: errors.length > 0 ? median(errors) : undefined,
    },
  }
}

/** Whether it was worth it: what a kilogram of one's own cost, beside the shop's. */
export interface Worth {
  /** Money a kilogram: what was paid for baskets, the power, and the hands where an hour is worth something. */
  basketPerKg: number
  powerPerKg: number
  handsPerKg: number
  ownPerKg: number
  shopPerKg?: number
  /** What the whole saved against the shop; negative where the shop would have been cheaper. */
  saved?: number
  /** Minutes of hands a kilogram. */
  minutesPerKg: number
}

export function worthOf(summary: Summary, prices: { kWh: number; hour: number; shopPerKg?: number }): Worth | undefined {
  const kg = summary.productG / 1000
  if (!(kg > 0)) return undefined
  const [basketPerKg, powerPerKg, handsPerKg] = [
    summary.price / kg,
    (summary.kWh * prices.kWh) / kg,
    ((summary.handsMinutes / 60) * prices.hour) / kg,
  ]
  const ownPerKg = basketPerKg + powerPerKg + handsPerKg
  return {
    basketPerKg,
    powerPerKg,
    handsPerKg,
    ownPerKg,
    shopPerKg: prices.shopPerKg,
    saved: prices.shopPerKg === undefined ? undefined : (prices.shopPerKg - ownPerKg) * kg,
    minutesPerKg: summary.handsMinutes / kg,
  }
}

/** Money a gram of what some lots make up together; unknown where one lot's cost is. */
export function costPerG(parts: readonly { grams: number; perG: number | undefined }[]): number | undefined {
  const grams = parts.reduce((sum, part) => sum + part.grams, 0)
  if (!(grams > 0) || parts.some(part => part.perG === undefined)) return undefined
  return parts.reduce((sum, part) => sum + part.grams * part.perG!, 0) / grams
}
