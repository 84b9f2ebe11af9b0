import type { EntryOf, Hold, HoldPlace } from '../log'
import { DAY, HOUR } from '../time'

/** Above this perishable food has half the time (USDA). */
const HOT_DAY_C = 32

/**
 * How long food may wait there, ms. Cut or cooked it is perishable: two hours in the room, one above 32 °C
 * (USDA), two days in the refrigerator, three months in the freezer (common practice). Dry food that is
 * doubted keeps a week in the refrigerator.
 * @param state `raw` uncut, `cut` cut or cooked, `dry` from the machine
 */
export function holdLimit(place: HoldPlace, state: 'raw' | 'cut' | 'dry', options: { freshDays: number; roomC?: number }): number {
  switch (place) {
    case 'freezer':
      return 90 * DAY
    case 'refrigerator':
      return state === 'raw' ? options.freshDays * DAY : state === 'cut' ? 2 * DAY : 7 * DAY
    case 'cool-room':
      return state === 'raw' ? (options.freshDays / 2) * DAY : state === 'cut' ? 4 * HOUR : DAY
    case 'counter':
      return state === 'raw'
        ? Math.min(1, options.freshDays / 4) * DAY
        : state === 'dry'
          ? 3 * HOUR
          : (options.roomC ?? 20) > HOT_DAY_C
            ? HOUR
            : 2 * HOUR
  }
}

/** Where the food is held now, by the newest word on it; undefined where work goes on. */
export function holdOf(
  holds: readonly EntryOf<'hold'>[],
  state: 'raw' | 'cut' | 'dry',
  freshDays: number,
  after: number,
): Hold | undefined {
  const last = holds.findLast(entry => entry.at >= after)
  if (!last || last.body.place === null) return undefined
  const { place, roomC } = last.body
  return { place, since: last.at, until: last.at + holdLimit(place, state, { freshDays, roomC }) }
}
