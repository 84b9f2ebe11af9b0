import { USUAL_ROOM } from '../air'
import { feltTable } from '../hands'
import type { DryingRun, Felt, Spell } from '../kinetics'
import type { BatchState, RunState } from '../log'
import { dryBasis } from '../mass'
import { isothermOf, roomBalance } from '../sorption'
import { WAYS } from '../ways'
import { lastWaterOf, reachIn, type Reach } from './balance'
import { spellsOf } from './spells'
import { unflippedFactor } from './flip'
import { targetOfRun } from './target'
import { hoursOfRun } from '../hours'
import { HOUR } from '../time'

/**
 * The run as the estimator takes it. A load that goes back to the machine after a rest starts with the
 * solids of the first loading in a smaller weight, and with a share of the usual hours.
 * @param at an instant that nothing was logged of yet: a rack that is off still moves its water until then
 */
export function dryingRunOf(state: BatchState, run: RunState, at = -Infinity): DryingRun {
  const first = state.earlierRuns[0] ?? run
  const targetMoisture = targetOfRun(state, run)
  const solidsG = state.balance.solids.mean * first.loadedG
  const again = first !== run || state.beganDry
  const mean = Math.min(0.98, first !== run ? solidsG / run.loadedG : state.balance.solids.mean)
  const sd = Math.max(0.004, state.balance.solids.sd * (mean / state.balance.solids.mean))
  const usual = hoursOfRun(state, run)
  const unflipped = unflippedFactor(state, run, run.clock.equivalentHoursAt(Math.max(at, run.weighings.at(-1)?.at ?? run.loadedAt)))
  const share =
    unflipped *
    (again ? shareOfHours(mean, state.beganDry ? 1 - state.food.rawMoisture.value.mean : state.balance.solids.mean, targetMoisture) : 1)
  // What was weighed when the rest ended is the same food.
  const weighings = [...run.weighings, ...(run.rested ? [run.rested] : [])]
  const spells = spellsAt(state, run, at)
  return {
    startWeightG: run.loadedG,
    // Grams of solids go with the weight that was only expected.
    solids: { mean, sd: Math.hypot(sd, (mean * (run.loadedSdG ?? 0)) / run.loadedG) },
    startSdG: run.loadedSdG,
    targetMoisture,
    usualHours: { low: usual.low * share, high: usual.high * share },
    strange: strangeAfter(run.usualHours?.runs ?? 0),
    equilibriumX: balanceOf(state, run),
    weighIns: weighings.map(({ hours, weightG, extraSdG, afterOff }) => ({ hours, weightG, extraSdG, afterOff })),
    felt: feltOf(state, run),
    spells: [...spells, ...restSpell(state, run)],
    ...atOf(run, spells),
  }
}

/** What hands said of what nobody weighed: a scale knows better, and is not asked twice. */
function feltOf({ food }: BatchState, { felt, weighings, rested }: RunState): Felt[] | undefined {
  if (felt.length === 0 || weighings.length > 0 || rested) return undefined
  return felt.flatMap(({ hours, check, airC }) => {
    const ln = feltTable(food, check, airC)
    return ln ? [{ hours, ln }] : []
  })
}

/** What a run can come to in its heat and in its room, measured or not, dry basis. */
const balanceOf = ({ food }: BatchState, run: RunState) => lastWaterOf(food, run.way.way, airOf(run), run.room)
/** Heat of the air about the food, °C: measured, set, or the card's. */
const airOf = (run: RunState): number => run.chamberC ?? heatOfRun(run)

/** The heat that a run stands in, or stood in last, °C; the card's before it was ever on. */
export const heatOfRun = ({ setC, clock, way }: RunState): number => setC ?? clock.spells.at(-1)?.setC ?? way.temperatureC

/** How likely the heat of a run, and the room about it, bring it to its target at all. */
export const reachOf = (state: BatchState, run: RunState): Reach =>
  reachIn(state.food, run.way.way, targetOfRun(state, run), airOf(run), run.room)

/** Loads that have nothing to do with what is believed of their hours become rarer with own runs, and never rare. */
const strangeAfter = (runs: number) => Math.max(STRANGE.least, 1 / (1 + runs / STRANGE.halfAfter))
const STRANGE = { halfAfter: 5, least: 0.25 }

/** Exchange through a lid that is opened for a look each day, against a run's own (common practice; from a third to three times). */
const LID_SHARE = 0.002

/** What a rest that was weighed at its end may have let in. */
function restSpell({ food }: BatchState, { rested, unloadedAt, weighings }: RunState): Spell[] {
  if (!rested || unloadedAt === undefined) return []
  const mean = roomBalance(isothermOf(food), USUAL_ROOM)
  const lastsH = (rested.at - unloadedAt) / HOUR
  return [{ hours: rested.hours, lastsH, balanceX: { mean, sd: 0.4 * mean }, share: LID_SHARE, before: weighings.length }]
}

/** Since when a run stands in its machine without heat; undefined where it does not, or where that moves no water. */
export function offSince({ clock, unloadedAt, way }: RunState): number | undefined {
  return unloadedAt === undefined && WAYS[way.way].takesWaterBack ? clock.spells.at(-1)?.to : undefined
}

/** Whether at an instant a run stands without heat, and nothing was weighed since. */
export function isOffAt(run: RunState, at: number): boolean {
  return Math.max(offSince(run) ?? Infinity, run.weighings.at(-1)?.at ?? 0) < at
}

/** The spells without heat of a run until an instant. */
export function spellsAt({ food }: BatchState, run: RunState, at: number): readonly Spell[] {
  const { clock, room, way, weighings } = run
  if (!isOffAt(run, at)) return run.spells
  return spellsOf({ food, clock, room, covered: !WAYS[way.way].nightsCount, weighedAt: weighings.map(weighing => weighing.at), until: at })
}

/**
 * The hour that figures are of: the last weight's; but what was off since, or taken out unweighed, is not as it was weighed.
 */
function atOf({ clock, unloadedAt, weighings }: RunState, spells: readonly Spell[]): Pick<DryingRun, 'at'> {
  if (unloadedAt !== undefined) return { at: clock.equivalentHoursAt(unloadedAt) }
  const last = spells.at(-1)
  return last && last.before === weighings.length ? { at: Math.max(last.hours, weighings.at(-1)?.hours ?? 0) } : {}
}

/** Share of the usual hours that a partly dried load needs, from exponential drying. */
export function shareOfHours(solidsNow: number, solidsFresh: number, targetMoisture: number): number {
  const target = dryBasis(targetMoisture)
  const now = Math.max(1.05 * target, 1 / solidsNow - 1)
  return Math.max(0.1, Math.min(1, Math.log(now / target) / Math.log((1 / solidsFresh - 1) / target)))
}
