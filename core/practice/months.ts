import { saturationKPa, type Air } from '../air'
import type { Food } from '../foods'
import { glassOf, stickyAboveC } from '../grinding'
import type { JarSight } from '../log'
import { activityAt, isothermOf } from '../sorption'
import { wetBasis } from '../mass'
import { mouldAnHour } from './mould'

const { max, min } = Math

/** Silica gel holds so much of its weight, and a small bag weighs so much, g (common practice). */
const GEL = { grams: 5, holds: 0.2 }
/** Of what the food holds above this, dry basis, the gel takes such a share a day. */
const GEL_ABOVE_X = 0.03
const GEL_A_DAY = 0.0075
const LEAST_X = 0.005
/** So far above where it sticks it cakes, K; less is packed hard after some days. */
const CAKES_K = 10
const PACKED_DAYS = 10
export const MONTH_DAYS = 30.4

/** A jar that is closed and left. */
export interface LeftJar {
  food: Food
  powder: boolean
  solidsG: number
  /** Dry basis. */
  x: number
  gPerDayKPa: number
  gel: boolean
  pantry: Air
  months: number
  /** Share of the way to visible mould, and whether it caked in the mill. */
  mould: number
  caked: boolean
}

/** What is in it when it is opened: day by day what passes the lid, what the gel takes, whether it is a glass still, and mould. */
export function afterMonths({ food, powder, solidsG, gPerDayKPa, gel, pantry, months, ...jar }: LeftJar) {
  const isotherm = isothermOf(food)
  const glass = glassOf(food)
  const perDay = gPerDayKPa * saturationKPa(pantry.celsius)
  let { x, mould } = jar
  let free = gel ? GEL.grams * GEL.holds : 0
  let sight: JarSight = jar.caked ? 'clumps' : 'loose'
  for (let day = 0; day < months * MONTH_DAYS; day++) {
    const activity = activityAt(isotherm, x, pantry.celsius)
    const inG = perDay * (pantry.humidity - activity)
    const toGel = min(free, max(0, inG) + GEL_A_DAY * solidsG * max(0, x - GEL_ABOVE_X))
    free -= toGel
    x = max(LEAST_X, x + (inG - toGel) / solidsG)
    const soft = pantry.celsius - stickyAboveC(glass, wetBasis(x))
    if (powder && soft > CAKES_K) sight = 'clumps'
    else if (powder && sight === 'loose' && soft > 0 && day > PACKED_DAYS) sight = 'packed'
    mould += 24 * mouldAnHour(activity, pantry.celsius)
  }
  return { x, mould, sight: mould >= 1 ? ('mould' as const) : sight }
}
