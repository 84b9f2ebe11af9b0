import { randomSource } from '#core/stats'
import type { Weather } from '#shared/contracts'

const DAY = 86_400_000

/**
 * A forecast of nobody's, as a weather service might send it: spells of fair days and wet ones, and less said of the days far off. The same
 * seed tells the same.
 */
export function simulatedWeather(from: number, days: number, timeZone: string, seed = 1): Weather {
  const source = randomSource(seed)
  const date = new Intl.DateTimeFormat('sv-SE', { timeZone })
  let fair = source.uniform() < 0.7
  return {
    source: 'simulated forecast',
    at: Math.round(from),
    days: Array.from({ length: days }, (_, i) => {
      if (source.uniform() < 0.3) fair = !fair
      // Toward the usual, the further off.
      const known = Math.exp(-i / 8)
      const share = (value: number, usual: number) => Math.round(100 * (known * value + (1 - known) * usual)) / 100
      return {
        day: date.format(from + i * DAY),
        sun: share(fair ? 0.75 + 0.25 * source.uniform() : 0.3 * source.uniform(), 0.6),
        rain: share(fair ? 0.1 * source.uniform() : 0.5 + 0.4 * source.uniform(), 0.3),
      }
    }),
  }
}
