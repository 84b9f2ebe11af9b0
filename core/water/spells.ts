import { USUAL_ROOM, type Air } from '../air'
import type { Food } from '../foods'
import { pacePerHour, STILL_AIR, type DryingClock, type Spell } from '../kinetics'
import { isothermOf, roomBalance } from '../sorption'
import { HOUR } from '../time'

/** Shorter breaks are the door. */
const LEAST_HOURS = 0.25
/** Isotherms differ by a fifth within a group; a room that nobody measured may be anything. */
const BALANCE_DOUBT = { measured: 0.2, usual: 0.4 }

export interface SpellInput {
  food: Pick<Food, 'isotherm'>
  clock: DryingClock
  room?: Air
  /** Kept indoors and covered meanwhile, as what dries in the sun is at night: it does not dry on. */
  covered: boolean
  /** Whole-load weighings, oldest first. */
  weighedAt: readonly number[]
  /** Off until now, where the heat is off. */
  until?: number
}

/**
 * The spells without heat of a run, cut where something was weighed in their course: a cold weight tells what the air has done
 * by then.
 */
export function spellsOf({ food, clock, room, covered, weighedAt, until }: SpellInput): Spell[] {
  // What was measured was the air of the day outdoors.
  const air = covered ? USUAL_ROOM : (room ?? USUAL_ROOM)
  const mean = roomBalance(isothermOf(food), air)
  const sd = mean * (room && !covered ? BALANCE_DOUBT.measured : BALANCE_DOUBT.usual)
  return clock.spells.flatMap((spell, i): Spell[] => {
    const from = spell.to
    const to = clock.spells[i + 1]?.from ?? until
    if (from === undefined || to === undefined || (to - from) / HOUR < LEAST_HOURS) return []
    const cuts = [from, ...weighedAt.filter(at => at > from && at < to), to]
    return cuts.slice(1).map((end, part) => ({
      hours: clock.equivalentHoursAt(from),
      lastsH: (end - cuts[part]!) / HOUR,
      balanceX: { mean, sd },
      share: pacePerHour(air.celsius, spell.setC) * STILL_AIR,
      covered: covered || undefined,
      before: weighedAt.filter(at => at < end).length,
    }))
  })
}
