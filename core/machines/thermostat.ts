/** A machine was set to one temperature and measured at another, °C. */
export interface HeatSeen {
  setC: number
  measuredC: number
}

/** What a dial is believed to be off by before anything is measured, °C (common practice: cheap thermostats swing and miss by about 5). */
export const DIAL_SD = 4
/** One measurement: the thermostat's swing and the thermometer's place. */
export const SEEN_SD = 3

/**
 * How far a machine's thermostat is off, °C, positive where it runs hotter than set; shrunk toward 0 by
 * how little was measured.
 * @returns undefined where nothing was measured
 */
export function thermostatOffset(seen: readonly HeatSeen[]): { offC: number; sd: number; count: number } | undefined {
  if (seen.length === 0) return undefined
  const weight = 1 / DIAL_SD ** 2 + seen.length / SEEN_SD ** 2
  const sum = seen.reduce((total, { setC, measuredC }) => total + (measuredC - setC) / SEEN_SD ** 2, 0)
  return { offC: sum / weight, sd: 1 / Math.sqrt(weight), count: seen.length }
}
