import { USUAL_ROOM, type Air } from '../air'
import type { Food } from '../foods'
import { dryBasis } from '../mass'
import { equilibriumIn, equilibriumUnknown, isothermOf, lowestMoisture } from '../sorption'
import { normalCdf, type Interval } from '../stats'
import { goesByRoom, WAYS, type WayKey } from '../ways'

/** Water that a load comes to at last and no lower, dry basis. */
interface LastWater {
  mean: number
  sd: number
}

/** Under vacuum hardly any water is left at last (freeze-dried food of 1 to 3 %, common practice). */
const VACUUM_X: LastWater = { mean: 0.01, sd: 0.005 }

/**
 * What a load can come to in a heat and in its room; under vacuum neither counts.
 * @param atC heat of the food's air, °C
 * @param measured air of the room. Without heat the room decides all: the usual one, where nobody measured it.
 */
export function lastWaterOf(food: Food, way: WayKey, atC: number, measured?: Air): LastWater {
  if (WAYS[way].underVacuum) return VACUUM_X
  const isotherm = isothermOf(food)
  const room = measured ?? (goesByRoom(way) ? USUAL_ROOM : undefined)
  return room ? equilibriumIn(isotherm, room, atC) : equilibriumUnknown(isotherm, atC)
}

/** How dry food can become in a heat and a room, against what is wanted. */
export interface Reach {
  /** Chance that what it comes to at last lies at or below the target. */
  chance: number
  /** Whether the target is out of reach, in doubt, or within it, in 9 of 10 cases. */
  verdict: 'cannot' | 'may-not' | 'can'
  /** The least water that it may come to, wet basis. */
  lowest: Interval
  /** Water that is wanted, wet basis. */
  target: number
  /** Somebody measured the room, or it does not count. */
  known: boolean
}

/** In nine of ten cases it is so. */
const SURE = 0.9

/**
 * @param target water that is wanted, wet basis
 * @param atC heat of the food's air, °C
 * @param measured air of the room
 */
export function reachIn(food: Food, way: WayKey, target: number, atC: number, measured?: Air): Reach {
  const last = lastWaterOf(food, way, atC, measured)
  const chance = normalCdf((dryBasis(target) - last.mean) / last.sd)
  return {
    chance,
    verdict: chance < 1 - SURE ? 'cannot' : chance < SURE ? 'may-not' : 'can',
    lowest: lowestMoisture(last),
    target,
    known: measured !== undefined || WAYS[way].underVacuum,
  }
}
