const { exp, log, max, min } = Math

/**
 * Days until mould is seen on food of a water activity in a warm room: an estimate from memory, of the size that common practice knows
 * (wet food in days, leather in weeks; under 0.65 never).
 */
const DAYS: readonly (readonly [activity: number, days: number])[] = [
  [0.65, 200],
  [0.7, 60],
  [0.8, 12],
  [0.9, 4],
  [1, 2.2],
]
/** It grows best here, slowly in the cold, and not at all in a dryer's heat, °C. */
const COLD_C = 4
const BEST_C = 25
const HOT_C = 44

/** Share of the way to visible mould that an hour takes. */
export function mouldAnHour(activity: number, celsius: number): number {
  if (activity < DAYS[0]![0] || celsius >= HOT_C || celsius <= COLD_C) return 0
  const at = DAYS.findIndex(([limit]) => activity <= limit)
  const [[lowA, lowDays], [highA, highDays]] = at <= 0 ? [DAYS.at(-2)!, DAYS.at(-1)!] : [DAYS[at - 1]!, DAYS[at]!]
  const share = min(1, max(0, (activity - lowA) / (highA - lowA)))
  const days = exp(log(lowDays) + share * (log(highDays) - log(lowDays)))
  const warmth = celsius < BEST_C ? (celsius - COLD_C) / (BEST_C - COLD_C) : min(1, (HOT_C - celsius) / 6)
  return warmth / (24 * days)
}
