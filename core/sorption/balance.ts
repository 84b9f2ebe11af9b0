import { dryBasis, wetBasis } from '../mass'
import { heatedHumidity, type Air } from '../air'
import { intervalFromLogNormal, mapInterval, type Interval } from '../stats'
import { activityAt, moistureAt } from './gab'
import type { GroupIsotherm } from './groups'

/** How far the air in a machine stays above what heating alone gives: the load's own vapour and leaks, near the end of a run (common practice). */
const LOAD_HUMIDITY = 0.01

/**
 * The moisture that a run ends in, dry basis: in balance with the room's air, heated.
 * @param setC temperature in the machine, °C
 */
export function equilibriumIn(isotherm: GroupIsotherm, room: Air, setC: number): { mean: number; sd: number } {
  const mean = moistureAt(isotherm, heatedHumidity(room, setC) + LOAD_HUMIDITY, setC)
  return { mean, sd: isotherm.sdLog * mean }
}

/**
 * Rooms that nobody measured, as kitchens are through the year: 18 to 30 °C and 45 to 85 % (common practice). How far a load can be dried
 * hangs on them, the more the cooler it is dried.
 */
const UNKNOWN_ROOMS: readonly Air[] = [18, 22, 26, 30].flatMap(celsius =>
  [0.45, 0.55, 0.65, 0.75, 0.85].map(humidity => ({ celsius, humidity })),
)

/** The moisture that a run ends in where nobody measured the room, dry basis: over all that it may be, with the isotherm's own doubt. */
export function equilibriumUnknown(isotherm: GroupIsotherm, setC: number): { mean: number; sd: number } {
  const each = UNKNOWN_ROOMS.map(room => equilibriumIn(isotherm, room, Math.max(setC, room.celsius)))
  const mean = each.reduce((sum, one) => sum + one.mean, 0) / each.length
  const variance = each.reduce((sum, one) => sum + (one.mean - mean) ** 2 + one.sd ** 2, 0) / each.length
  return { mean, sd: Math.sqrt(variance) }
}

/** The same as water wet basis, with its doubt: the lowest that an air and a heat can reach. */
export const lowestMoisture = ({ mean, sd }: { mean: number; sd: number }): Interval =>
  mapInterval(intervalFromLogNormal(mean, sd / mean), wetBasis)

/** Moisture (dry basis) in balance with the room itself: where a switched-off rack drifts to. */
export function roomBalance(isotherm: GroupIsotherm, room: Air): number {
  return moistureAt(isotherm, room.humidity, room.celsius)
}

/**
 * What the air in a closed jar says of the food in it.
 * @param activity relative humidity read in the jar, 0–1, with its own doubt
 * @returns water wet basis
 */
export function moistureFromJarAir(isotherm: GroupIsotherm, activity: { mean: number; sd: number }, celsius: number): Interval {
  const x = moistureAt(isotherm, activity.mean, celsius)
  const slope =
    (moistureAt(isotherm, activity.mean + 0.01, celsius) - moistureAt(isotherm, Math.max(0, activity.mean - 0.01), celsius)) / 0.02
  const sdLog = Math.hypot(isotherm.sdLog, (slope * activity.sd) / Math.max(1e-6, x))
  return mapInterval(intervalFromLogNormal(x, sdLog), value => value / (1 + value))
}

/** Water activity that a moisture target (wet basis) means for this food. */
export function activityOfTarget(isotherm: GroupIsotherm, moisture: number, celsius = 20): number {
  return activityAt(isotherm, dryBasis(moisture), celsius)
}
