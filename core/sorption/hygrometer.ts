import { refuse } from '../errors'

/** Air over a saturated salt solution at 25 °C: Greenspan, J. Res. NBS 81A (1977). */
export const SALTS = {
  'lithium-chloride': { name: 'Lithium chloride', humidity: 0.113 },
  'magnesium-chloride': { name: 'Magnesium chloride', humidity: 0.328 },
  'magnesium-nitrate': { name: 'Magnesium nitrate', humidity: 0.529 },
  'sodium-chloride': { name: 'Table salt', humidity: 0.753 },
  'potassium-chloride': { name: 'Potassium chloride', humidity: 0.843 },
} as const
export type Salt = keyof typeof SALTS

/** What a hygrometer showed over a salt slurry, 0–1. */
export interface SaltReading {
  salt: Salt
  shown: number
}

/** true = offset + gain × shown. */
export interface HygrometerCalibration {
  offset: number
  gain: number
  /** Doubt of a corrected reading, standard deviation 0–1. */
  sd: number
}

/** A cheap hygrometer that nobody has tried over salt: 8 in 10 read within 7 % of humidity (common practice; makers say 3 to 5). */
const AS_BOUGHT: HygrometerCalibration = { offset: 0, gain: 1, sd: 0.055 }
/** After one salt, and after two. */
const AFTER_ONE = 0.025
const AFTER_TWO = 0.012
/** More than this off, and it is broken or was read too early. */
const WILD = 0.2

/**
 * Calibrates a jar hygrometer by the salt test: one salt gives its offset, two its slope as well.
 * @throws InputError for a reading outside 0–1, the same salt twice, or one more than 20 % off.
 */
export function calibrateHygrometer(readings: readonly SaltReading[]): HygrometerCalibration {
  const fail = (field: string, message: string): never => refuse(field, 'salt-test', message)
  readings.forEach(({ salt, shown }, i) => {
    if (!(shown > 0 && shown < 1)) fail(`readings.${i}.shown`, 'A hygrometer shows between 0 and 100 %.')
    const { humidity, name } = SALTS[salt]
    if (Math.abs(shown - humidity) > WILD)
      fail(
        `readings.${i}.shown`,
        `Over ${name.toLowerCase()} the air is at ${Math.round(humidity * 1000) / 10} %. This is more than 20 % off: leave it in the closed jar for 12 hours, and see that the salt is wet but not under water.`,
      )
  })
  if (new Set(readings.map(reading => reading.salt)).size < readings.length)
    fail('readings', 'The same salt stands here twice: give its newest reading.')
  if (readings.length === 0) return AS_BOUGHT
  if (readings.length === 1) {
    const [{ salt, shown }] = readings as [SaltReading]
    return { offset: SALTS[salt].humidity - shown, gain: 1, sd: AFTER_ONE }
  }
  const truth = readings.map(reading => SALTS[reading.salt].humidity)
  const shown = readings.map(reading => reading.shown)
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length
  const [meanTruth, meanShown] = [mean(truth), mean(shown)]
  const gain =
    shown.reduce((sum, value, i) => sum + (value - meanShown) * (truth[i]! - meanTruth), 0) /
    shown.reduce((sum, value) => sum + (value - meanShown) ** 2, 0)
  if (!(gain > 0.5 && gain < 2))
    fail(
      'readings',
      'The two readings are too close together for two salts so far apart: one jar was not closed, or the readings are swapped.',
    )
  return { offset: meanTruth - gain * meanShown, gain, sd: AFTER_TWO }
}
