import { USUAL_ROOM, wetBulbC, type Air } from '../air'

/** Share of the usual hours in which the face of what dries is wet (common practice: what is cut feels wet for about a third of them). */
export const WET_SHARE = 1 / 3

const paces = new Map<string, number>()
/** A household sets a handful of heats in a handful of airs. */
const PACES_KEPT = 500

/**
 * How much faster than at the reference in a usual room a wet face dries at `celsius`: by what the air is warmer than its wet bulb, which is where
 * the heat comes from that the water takes. 68 °C against 57 °C in a usual room: 1.28.
 * @param room air before it is heated; a usual room's where nobody measured it
 */
export function wetPacePerHour(celsius: number, referenceC: number, room: Air = USUAL_ROOM): number {
  const key = [celsius, referenceC, room.celsius, room.humidity, room.pressureKPa].join()
  let pace = paces.get(key)
  if (pace === undefined) {
    const drives = (at: number, air: Air) => Math.max(0.5, at - wetBulbC(air, at))
    if (paces.size >= PACES_KEPT) paces.clear()
    paces.set(key, (pace = drives(celsius, room) / drives(referenceC, USUAL_ROOM)))
  }
  return pace
}
