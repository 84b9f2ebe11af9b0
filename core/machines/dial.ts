import { DIAL_SD, SEEN_SD } from './thermostat'

/** What was believed of a dial when a load went in: see the entry of the loading. */
export interface DialBelief {
  offC: number
  sdC: number
  /** Share of that doubt which the hours do not know yet. */
  open: number
}

/** Nothing was measured, and no run of the machine has taught its hours. */
export const UNKNOWN_DIAL: DialBelief = { offC: 0, sdC: DIAL_SD, open: 1 }

/** From run to run a machine is off by so much more or less, °C (common practice). */
const RUN_SD = 2
/** Further off than so many standard deviations, it is not the machine as it was known. */
const STRANGE = 2.5

/**
 * By how much hotter the food is reckoned with than the hours believed at loading had it, °C, once the machine was measured: not all
 * that a thermometer shows, since a thermostat swings, and not what the hours of earlier runs knew already.
 * @param seenC measured less set, each reading of the run so far
 */
export function hotterThanBelieved(seenC: readonly number[], { offC, sdC, open }: DialBelief): number {
  if (seenC.length === 0) return 0
  const off = seenC.reduce((sum, value) => sum + value, 0) / seenC.length - offC
  const swing = SEEN_SD ** 2 / seenC.length
  const expected = sdC ** 2 + RUN_SD ** 2 + swing
  const ofRun = RUN_SD ** 2 + Math.max(0, off ** 2 - STRANGE ** 2 * expected)
  return (off * (ofRun + open * sdC ** 2)) / (ofRun + sdC ** 2 + swing)
}
