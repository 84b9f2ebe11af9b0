import type { Food } from '../foods'
import type { BatchState, Hold, HoldPlace } from '../log'
import { DANGER_LIMIT_H, dangerRate, WARM_C } from '../safety'
import { DAY, HOUR } from '../time'
import { dangerZoneOf } from './dangerZone'

/** `raw` uncut, `cut` cut or cooked, `dry` from the machine. */
export type Waiting = 'raw' | 'cut' | 'dry'

const ROOM_C = 20

/**
 * How long food may wait there, ms. Outside of the cold what is perishable, cut or cooked has the danger clock's two hours, one above
 * 32 °C (USDA), less what is spent of them; what is whole waits as fresh food does, half as long where it is so warm. Cold: as long as it
 * is fresh, cut two days, three months in the freezer (common practice). Dry food that is doubted keeps a week in the refrigerator.
 * @param spentH hours of the danger clock that are gone already
 */
export function holdLimit(
  place: HoldPlace,
  as: Waiting,
  food: Pick<Food, 'freshDays' | 'traits'>,
  { roomC = ROOM_C, spentH = 0 }: { roomC?: number; spentH?: number } = {},
): number {
  const freshDays = food.freshDays.value
  if (place === 'freezer') return 90 * DAY
  if (place === 'refrigerator') return as === 'raw' ? freshDays * DAY : as === 'cut' ? 2 * DAY : 7 * DAY
  if (as === 'cut' || (as === 'raw' && food.traits.includes('perishable')))
    return (Math.max(0, DANGER_LIMIT_H - spentH) / dangerRate(roomC, Infinity)) * HOUR
  if (as === 'dry') return place === 'counter' ? 3 * HOUR : DAY
  const days = place === 'counter' ? Math.min(1, freshDays / 4) : freshDays / 2
  return (roomC > WARM_C ? 0.5 : 1) * days * DAY
}

/** Whether food waits whole, cut or dry. */
export const waitingAs = ({ run, prep }: Pick<BatchState, 'run' | 'prep'>): Waiting =>
  run ? 'dry' : prep.some(entry => PERISHABLE_STEPS.includes(entry.body.step)) ? 'cut' : 'raw'

/** Steps after which food is perishable. */
const PERISHABLE_STEPS: readonly string[] = [
  'peel',
  'seed',
  'cut',
  'blanch',
  'roast',
  'boil',
  'cook',
  'char',
  'puree',
  'thicken',
  'drain',
  'marinate',
  'spread',
]

/** Where the food is held now, by the newest word on it since the last deed; undefined where work goes on. */
export function holdOf(state: BatchState): Hold | undefined {
  const { run, prep, intake, holds } = state
  if (run && run.unloadedAt === undefined) return undefined
  const after = run?.unloadedAt ?? prep.at(-1)?.at ?? intake.at
  const last = holds.findLast(entry => entry.at >= after)
  if (!last || last.body.place === null) return undefined
  const { place, roomC } = last.body
  return {
    place,
    since: last.at,
    until: last.at + holdLimit(place, waitingAs(state), state.food, { roomC, spentH: spentAt(state, last.at) }),
  }
}

/** Hours of the danger clock that were gone at an instant; none where none runs. */
export const spentAt = (state: BatchState, at: number): number => dangerZoneOf(state, at)?.hours ?? 0
