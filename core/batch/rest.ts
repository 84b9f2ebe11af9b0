import { REST_DAYS } from '../dryness'
import { effectsOfChoices } from '../foods'
import type { BatchDraft, BatchState, LookSight, RestingJar, RestState } from '../log'
import { DAY } from '../time'

/** What the food asks for, worst first: mould ends it, moisture sends it back; pieces that only hang are dry. */
const WORST: readonly LookSight[] = ['mould', 'moisture', 'clumps', 'hung', 'dry']

/** The rest since the food last left the machine. */
export function restOf({ rests, looks: seen, restOuts, restEnds }: BatchDraft, unloadedAt: number): RestState {
  const start = rests.findLast(entry => entry.at >= unloadedAt)
  const end = restEnds.findLast(entry => entry.at >= unloadedAt)
  const looks = start ? seen.filter(look => look.at >= start.at) : []
  const outs = restOuts.filter(entry => entry.at >= unloadedAt)
  const named = start ? (start.body.jars ?? [{ name: start.body.container ?? 'The jar' }]) : []
  const jars = named.map((jar, i): RestingJar => {
    const number = i + 1
    const own = looks.filter(look => look.body.jar === undefined || look.body.jar === number)
    const out = outs.find(entry => entry.body.jar === number)?.body
    return {
      ...jar,
      number,
      looks: own,
      last: own.at(-1)?.body.saw,
      mould: out === undefined && own.some(look => look.body.saw === 'mould'),
      out,
    }
  })
  return { startedAt: start?.at, endedAt: end?.at, endWeightG: end?.body.weightG, looks, jars }
}

/** The worst that the newest looks at the jars showed; undefined where none was looked at. */
export function worstLook({ jars }: Pick<RestState, 'jars'>): LookSight | undefined {
  const seen = jars.filter(jar => !jar.out).flatMap(jar => jar.last ?? [])
  return WORST.find(sight => seen.includes(sight))
}

/** Whether a sight sends the food back to the machine. */
export const isDamp = (sight: LookSight | undefined) => sight === 'moisture' || sight === 'clumps'

/** Days in the jar that are enough: a week, or as the school has it that was chosen. */
export function restNeeded({ food, choices }: Pick<BatchState, 'food' | 'choices'>): number {
  return effectsOfChoices(food, choices).restDays ?? REST_DAYS
}

/** Whole days from the start of the rest to an instant. */
export function restDays(rest: Pick<RestState, 'startedAt'>, at: number): number {
  return rest.startedAt === undefined ? 0 : Math.max(0, Math.floor((at - rest.startedAt) / DAY))
}
