import type { HoursTold } from './learning'

/** What one finished batch taught, kept beside its line in the lists. Weights g, hours of heat, money in the household's own. */
export interface BatchInsight {
  /** Hours with the heat on, by machine. */
  /** Hours of heat, and those at its rated power that they come to. */
  heat: { machineId: string; hours: number; fullPowerH: number }[]
  /** Minutes of hands, from what was logged and common practice. */
  handsMinutes: number
  price?: number
  /** Where powder was lost, g; `unknownG` is what nobody laid to a cause. */
  lost?: { dustG: number; filmG: number; rejectsG: number; cleaningG: number; unknownG: number }
  /** Hours said at loading, against what it took. */
  told?: HoursTold
  /** The window as it stood with the weighings of the first half, against when it was dry. */
  window?: { low: number; middle: number; high: number; actual: number }
}
