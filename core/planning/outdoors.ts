import type { RunState } from '../log'
import { placeOf, sunDay, usualDuskMinute } from '../sun'
import { atMinuteOfDay, startOfDay, type Household } from './day'
import type { Todo } from './todo'
import { HOUR, MINUTE } from '../time'

/** Out again once the dew is off, and the sun of the season high enough. */
const OUT_AGAIN_MIN = 9 * 60
/** Rain is met an hour early. */
const AHEAD_OF_RAIN = HOUR

/** What sun asks for: in at dusk and before rain, out again in the morning; from what the person said of the weather. */
export function outdoorTodos(food: string, run: RunState, household: Household, now: number): Todo[] {
  const since = run.clock.spells.at(-1)
  const dusk = run.outlook?.duskMinute ?? usualDuskMinute(since?.from ?? run.loadedAt, household)
  if (run.setC === null) {
    const from = since?.to ?? run.loadedAt
    const out = nextMinute(from, morningMinute(from, household), household)
    return [
      {
        kind: 'takeOutside',
        from: out,
        title: `Put the ${food} out again`,
        why: 'The dew is off. Indoors and covered it kept; wet air overnight cost it some hours.',
      },
    ]
  }
  const outSince = Math.max(since?.from ?? run.loadedAt, run.loadedAt)
  const todos: Todo[] = [
    {
      kind: 'bringIn',
      from: nextMinute(outSince, dusk, household),
      title: `Bring the ${food} in`,
      why: 'At dusk the air turns damp, and food takes water back; covered indoors it keeps.',
    },
  ]
  const rainAt = run.outlook?.rainAt
  if (rainAt !== undefined && rainAt > outSince && rainAt < todos[0]!.from && rainAt > now - 6 * HOUR) {
    todos[0] = {
      kind: 'bringIn',
      from: rainAt - AHEAD_OF_RAIN,
      to: rainAt,
      title: `Bring the ${food} in before the rain`,
      why: 'Rain is expected, you said: an hour early is soon enough.',
    }
  }
  return todos
}

/** When the sun of these days begins to dry, in minutes after midnight. */
function morningMinute(at: number, household: Household): number {
  const day = startOfDay(at, household.timeZone)
  const { dries } = sunDay(day, placeOf(household))
  return Math.max(OUT_AGAIN_MIN, dries ? 15 * Math.ceil((dries.from - day) / (15 * MINUTE)) : 0)
}

/** The first time of day after an instant. */
function nextMinute(after: number, minute: number, household: Household): number {
  const today = atMinuteOfDay(after, household.timeZone, minute, 0)
  return today > after ? today : atMinuteOfDay(after, household.timeZone, minute, 1)
}
