const DAY_MS = 86_400_000
/** A poor and a good picking beside the mean one (common practice). */
const POOR = 0.7
const GOOD = 1.3

/**
 * What came in one year as a line of the calendar for the next time that its days come round.
 * @param year its first and last day, as 2026-09-30, its baskets and what they weighed together, g
 * @param today a day in the same form
 */
export function expectAgain(
  year: { from: string; to: string; baskets: number; weightG: number },
  today: string,
): { from: string; to: string; everyDays: number; lowG: number; highG: number } {
  const days = (Date.parse(year.to) - Date.parse(year.from)) / DAY_MS
  const thisYear = `${today.slice(0, 4)}${year.from.slice(4)}`
  const from = thisYear >= today ? thisYear : `${Number(today.slice(0, 4)) + 1}${year.from.slice(4)}`
  const each = year.weightG / year.baskets
  return {
    from,
    to: new Date(Date.parse(from) + days * DAY_MS).toISOString().slice(0, 10),
    everyDays: Math.max(1, Math.round(days / Math.max(1, year.baskets - 1)) || 7),
    lowG: Math.round(POOR * each),
    highG: Math.round(GOOD * each),
  }
}
