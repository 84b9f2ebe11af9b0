import { HOUR } from '../time'
import { nextWaking, sleepAround, type Household } from './day'

/** A machine as the loads of a basket find it. */
export interface Occupied {
  places: number
  /** That carry nothing now. */
  free: number
  /** When what stands on the others is out, an instant. */
  freeAt: number
  /** Between a load that is out and the next, h. */
  clearH: number
  /** Somebody is up as long as it runs. */
  attended: boolean
}

/** What was to be out already takes a quarter of its time more, and two hours at the least: nobody has taken it out yet. */
const OVERDUE = { share: 0.25, leastH: 2 }

/** When what stands in a machine is out, most likely and 9 in 10; undefined where its window is not known. */
export function outBy(
  { loadedAt, from, to }: { loadedAt: number; from: number | null; to: number | null },
  now: number,
): { p50: number; p90: number } | undefined {
  if (from === null || to === null) return undefined
  if (to > now) return { p50: Math.round(Math.max(now, (from + to) / 2)), p90: Math.round(to) }
  const late = Math.round(now + Math.max(OVERDUE.leastH * HOUR, OVERDUE.share * (now - loadedAt)))
  return { p50: late, p90: late }
}

/** One load of a basket. */
export interface ScheduledLoad {
  startAt: number
  endsAt: number
  trays: number
}

/**
 * The loads of a basket, one after another: what finds a place goes in at once, the rest when places are free again, cleared, and somebody is
 * up to load them. Its end is the last one's.
 * @param outAt when a load is out that goes in at an instant
 */
export function scheduleLoads(
  trays: number,
  startAt: number,
  { places, free, freeAt, clearH, attended }: Occupied,
  outAt: (startAt: number) => number,
  nights: Nights,
): ScheduledLoad[] {
  const loads: ScheduledLoad[] = []
  const load = (at: number, count: number) => loads.push({ startAt: at, endsAt: outAt(at), trays: count })
  const first = Math.min(free, trays, places)
  if (first > 0) load(startAt, first)
  let left = trays - first
  // What the others hold may be enough for the rest; else it waits for its own first load too.
  let clear = left <= places - free ? freeAt : Math.max(freeAt, loads[0]?.endsAt ?? startAt)
  while (left > 0) {
    const at = nights.upFrom(clear + clearH * HOUR, attended ? outAt : undefined)
    load(at, Math.min(left, places))
    left -= places
    clear = loads.at(-1)!.endsAt
    if (!Number.isFinite(clear)) break
  }
  return loads
}

/** The nights of a household from an instant on, each looked up once. */
export class Nights {
  private readonly known: { from: number; to: number }[] = []

  constructor(
    private readonly from: number,
    private readonly household: Household,
  ) {}

  private around(at: number): { from: number; to: number } {
    if (at < this.from || !Number.isFinite(at)) return sleepAround(this.from, this.household)
    let i = this.known.findIndex(night => night.to > at)
    while (i < 0) {
      const night = sleepAround(this.known.at(-1)?.to ?? this.from, this.household)
      this.known.push(night)
      if (night.to > at) i = this.known.length - 1
    }
    return this.known[i]!
  }

  /**
   * When people are up from an instant on; where they must stay beside it, so early that it is through by bedtime.
   * @param outAt when it is through that begins at an instant
   */
  upFrom(at: number, outAt?: (startAt: number) => number): number {
    const night = this.around(at)
    const up = at >= night.from ? night.to : at
    if (!outAt) return up
    const bedtime = this.around(up).from
    // What no day is long enough for begins in the morning.
    return outAt(up) <= bedtime || up === night.to ? up : nextWaking(bedtime, this.household)
  }
}
