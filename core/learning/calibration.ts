import { learnHours } from './hours'

/** How sure a run is of its hours: weighed five times on its way, and weighed once and at taking out (measured on simulated runs). */
const CALIBRATION_DOUBT = 0.05
const ORDINARY_DOUBT = 0.22
/** Shares of the usual hours at which a calibration run is weighed. */
export const CALIBRATION_SHARES = [0.25, 0.5, 0.7, 0.85, 1] as const
const MOST = 12

/**
 * How many ordinary runs of a machine tell as much of its pace as one that is weighed five times.
 */
export function calibrationWorth(): number {
  const width = (doubts: readonly number[]) => {
    const { factor } = learnHours(
      doubts.map((doubt, i) => ({ pace: 1, doubt, machine: 'new', food: `food ${i}`, family: `family ${i}`, card: '' })),
    ).effectOf('machine', 'new')!
    return Math.log(factor.p90 / factor.p10)
  }
  const once = width([CALIBRATION_DOUBT])
  for (let count = 1; count < MOST; count++) if (width(Array.from({ length: count }, () => ORDINARY_DOUBT)) <= once) return count
  return MOST
}
