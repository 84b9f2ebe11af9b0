import type { Food } from '../foods'
import { glassOf, grindBelowC, warmingK, type ClumpRisk } from '../grinding'

const { ceil, min } = Math

/** A grinder as most have one: power, grams in a cup, seconds that make a fine powder, rests of twice a run. */
const MILL = { watts: 180, cupG: 60, runS: 60, restFactor: 2 }
/** What a rest leaves of a run's warmth, and after how many runs it gets no warmer. */
const LEFT = { share: 0.33, runs: 2 }
/** So far above where it sticks within seconds it cakes, and so far below it is a little soft, K. */
const CAKES_K = 20
const SLIGHT_K = -10
/** Of what is soft in the mill so much sticks to the cup; dust goes besides (common practice). */
const STUCK: Record<ClumpRisk, number> = { none: 0.02, slight: 0.05, sticky: 0.2, cakes: 0.5 }
const DUST = 0.02

/** What a mill makes of dry food that goes in at a warmth, in runs of so many seconds. */
export function milled(food: Food, load: { moisture: number; grams: number; startC: number }, burstS: number) {
  const runs = ceil(MILL.runS / burstS)
  const rise = warmingK(MILL.watts, min(burstS, MILL.runS), MILL.cupG)
  const celsius = load.startC + rise * (1 + LEFT.share * min(LEFT.runs, runs - 1))
  const over = celsius - grindBelowC(glassOf(food), load.moisture)
  const clumps: ClumpRisk = over > CAKES_K ? 'cakes' : over > 0 ? 'sticky' : over > SLIGHT_K ? 'slight' : 'none'
  return {
    clumps,
    celsius,
    lostShare: STUCK[clumps] + DUST,
    hours: (ceil(load.grams / MILL.cupG) * runs * burstS * (1 + MILL.restFactor)) / 3600,
  }
}
