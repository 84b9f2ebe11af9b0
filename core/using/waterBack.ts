import { InputError, type Problem } from '../errors'
import type { Interval } from '../stats'

/** What a powder is turned back into, by the share of solids that it then has. */
export interface Product {
  key: string
  name: string
  solids: { low: number; high: number }
  source: string
}

/** Purée and paste by 21 CFR 155.191 (soluble solids, which a tomato's nearly all are); the others common practice. */
export const PRODUCTS: readonly Product[] = [
  { key: 'juice', name: 'Juice', solids: { low: 0.05, high: 0.07 }, source: 'common practice' },
  { key: 'broth', name: 'Broth', solids: { low: 0.02, high: 0.05 }, source: 'common practice' },
  { key: 'sauce', name: 'Sauce', solids: { low: 0.08, high: 0.14 }, source: 'common practice' },
  { key: 'puree', name: 'Purée', solids: { low: 0.08, high: 0.24 }, source: '21 CFR 155.191' },
  { key: 'paste', name: 'Paste', solids: { low: 0.24, high: 0.4 }, source: '21 CFR 155.191' },
]

export interface WaterBack {
  powderG: number
  waterG: number
  totalG: number
  /** Held back at first and added as wanted: a tenth of the water. */
  holdBackG: number
}

const HOLD_BACK = 0.1

/**
 * Powder and water for a product, by mass balance: the solids stay.
 * @param ask.moisture of the powder, wet basis; `target`: of the product, wet basis
 * @param ask.wantedG of the product, or `powderG` that there is: one of the two
 * @throws InputError for a product drier than the powder, weights that are not above zero, both or neither amount
 */
export function waterBack(ask: { moisture: number; target: number; wantedG?: number; powderG?: number }): WaterBack {
  const problems: Problem[] = []
  for (const field of ['moisture', 'target'] as const)
    if (!(ask[field] >= 0 && ask[field] < 1)) problems.push({ field, code: 'not-a-fraction', message: 'must be a share from 0 to below 1' })
  if ((ask.wantedG === undefined) === (ask.powderG === undefined))
    problems.push({ field: 'wantedG', code: 'amount-missing', message: 'give what is wanted, or the powder that there is' })
  for (const field of ['wantedG', 'powderG'] as const)
    if (ask[field] !== undefined && !(ask[field]! > 0)) problems.push({ field, code: 'not-above-zero', message: 'must be above zero' })
  if (problems.length === 0 && ask.target <= ask.moisture)
    problems.push({ field: 'target', code: 'drier-than-powder', message: 'must hold more water than the powder does' })
  if (problems.length > 0) throw new InputError(problems)
  const powderG = ask.powderG ?? (ask.wantedG! * (1 - ask.target)) / (1 - ask.moisture)
  const totalG = (powderG * (1 - ask.moisture)) / (1 - ask.target)
  const waterG = totalG - powderG
  return { powderG, waterG, totalG, holdBackG: HOLD_BACK * waterG }
}

/**
 * Where a school's ratio by volume lands: the share of solids in one part of powder and so many of water. The
 * density decides, and it is seldom known, so the answer is a range.
 * @param parts of water by volume for one of powder
 * @param densityGMl of the powder as spooned
 */
export function solidsOfRatio(parts: number, moisture: number, densityGMl: Interval): Interval {
  if (!(parts > 0)) throw new InputError([{ field: 'parts', code: 'not-above-zero', message: 'must be above zero' }])
  const solids = (density: number) => (density * (1 - moisture)) / (density + parts)
  return { p10: solids(densityGMl.p10), p50: solids(densityGMl.p50), p90: solids(densityGMl.p90) }
}

/** Back to what it was: milk to milk, pieces to what was cut. */
export const WHOLE = { key: 'whole', name: 'As it was', source: 'the food’s own water' } as const

/**
 * Share of solids to aim at for a product: the geometric middle of its range; of the whole, what the raw food had.
 * @param raw water of the raw food, wet basis
 * @throws InputError for a product that nobody knows
 */
export function solidsFor(product: string, raw: number): number {
  if (product === WHOLE.key) return 1 - raw
  const found = PRODUCTS.find(item => item.key === product)
  if (!found)
    throw new InputError([
      { field: 'product', code: 'none', message: `“${product}” is none of ${PRODUCTS.map(item => item.key).join(', ')}, ${WHOLE.key}` },
    ])
  return Math.sqrt(found.solids.low * found.solids.high)
}

/** The product that a share of solids makes, the first that it falls in from paste down. */
export function productOf(solids: number): Product | undefined {
  return (
    [...PRODUCTS].reverse().find(product => solids >= product.solids.low && solids < product.solids.high) ??
    (solids >= 0.4 ? PRODUCTS.at(-1) : undefined)
  )
}
