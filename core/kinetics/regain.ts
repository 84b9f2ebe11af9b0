import { InputError } from '../errors'
import { pacePerHour } from './clock'

/** Without fan and heat the air about the food stands nearly still: exchange falls to this share (common practice; between a fifth and four fifths). */
export const STILL_AIR = 0.4

/** What moves water in a machine that is off or holds warm. */
export interface Drift {
  /** Moisture at the start, dry basis. */
  fromX: number
  /** Moisture in balance with the air about the food, dry basis. */
  balanceX: number
  /** Rate at which free moisture falls near the target with the run's heat on, 1/h. */
  ratePerHour: number
  /** Temperature of that heat, and of the food now, °C. */
  setC: number
  nowC: number
  /** Whether the fan runs. */
  fan: boolean
  hours: number
}

/**
 * Moisture (dry basis) after some hours without the run's heat: first order toward the balance with the
 * air about it, at the rate of the run's end, slowed by the cold (Arrhenius) and by still air.
 * @throws InputError for hours or moistures below 0.
 */
export function driftedMoisture(drift: Drift): number {
  if (!(drift.hours >= 0)) throw new InputError([{ field: 'hours', code: 'negative', message: 'must not be negative' }])
  if (!(drift.fromX >= 0)) throw new InputError([{ field: 'fromX', code: 'negative', message: 'must not be negative' }])
  const rate = drift.ratePerHour * pacePerHour(drift.nowC, drift.setC) * (drift.fan ? 1 : STILL_AIR)
  return drift.balanceX + (drift.fromX - drift.balanceX) * Math.exp(-rate * drift.hours)
}
