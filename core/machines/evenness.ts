import { sdLogOf, Z_90 } from '../stats'

/** A tray's pace against its load, seen in one place of a machine: natural logarithm and its doubt. */
export interface PlacePace {
  place: number
  lnPace: number
  sd: number
}

/** How a place dries against the middle of its machine: 0.9 is a tenth slower. */
export interface PlaceEvenness {
  place: number
  pace: number
  low: number
  high: number
  trays: number
}

/** What places of a machine are believed to differ by before any weighing, standard deviation of the logarithm (common practice: rear and lower levels lead). */
const PLACE_SD = 0.1
/** What trays in one place differ by from load to load: thickness and spread. */
const TRAY_SD = 0.1

/**
 * Evenness of a machine by place, from the trays of its finished runs: each place's mean pace, shrunk
 * toward 1 by how little was seen of it. Low and high are the 10th and 90th percentile.
 */
export function evennessOf(paces: readonly PlacePace[]): PlaceEvenness[] {
  const places = [...new Set(paces.map(item => item.place))].sort((a, b) => a - b)
  return places.map((place): PlaceEvenness => {
    const seen = paces.filter(item => item.place === place)
    let weight = 1 / PLACE_SD ** 2
    let sum = 0
    for (const { lnPace, sd } of seen) {
      const w = 1 / (sd * sd + TRAY_SD * TRAY_SD)
      weight += w
      sum += w * lnPace
    }
    const mean = sum / weight
    const doubt = Z_90 / Math.sqrt(weight)
    return { place, pace: Math.exp(mean), low: Math.exp(mean - doubt), high: Math.exp(mean + doubt), trays: seen.length }
  })
}

/** A difference of places below this is not worth opening the door for. */
const WORTH_A_SWAP = 0.08
/** Standard deviations from which it is no accident: nineteen in twenty. */
const SURE = 1.645
const sdOf = ({ low, high }: PlaceEvenness) => sdLogOf({ p10: low, p90: high })

/**
 * Trays that should change places halfway, slowest place with fastest, next slowest with next fastest:
 * only pairs whose places clearly differ.
 * @param taken places that carry a tray
 */
export function swapsWorthMaking(evenness: readonly PlaceEvenness[], taken: readonly number[]): { from: number; to: number }[] {
  const ranked = evenness.filter(({ place }) => taken.includes(place)).sort((a, b) => a.pace - b.pace)
  const pairs: { from: number; to: number }[] = []
  for (let slow = 0, fast = ranked.length - 1; slow < fast; slow++, fast--) {
    const a = ranked[slow]!
    const b = ranked[fast]!
    const ahead = Math.log(b.pace / a.pace)
    if (ahead < WORTH_A_SWAP || ahead < SURE * Math.hypot(sdOf(a), sdOf(b))) break
    pairs.push({ from: a.place, to: b.place })
  }
  return pairs
}
