import { estimateOf } from '../kinetics'
import type { BatchState, RunState } from '../log'
import type { Interval } from '../stats'
import { beliefOf } from './belief'
import { readJarAir } from './jarAir'
import { isOffAt } from './run'
import { MINUTE } from '../time'

/**
 * What a figure of the water goes by: the preparing, a weight on the scale, hours since the last weight (an estimate), the air in
 * a closed jar, a hand that felt it dry, or the jars that it came from.
 */
export type WaterKnownBy = 'preparing' | 'weight' | 'hours' | 'jar air' | 'hand' | 'jars'

/** How much water a lot holds at an instant. */
export interface Water {
  /** Wet basis. */
  moisture: Interval
  known: WaterKnownBy
  /** The newest fact that it goes by. */
  since: number
}

/** A weight so long before the taking out is as good as at it. */
const AT_ONCE_MS = 15 * MINUTE

/**
 * How much water there is, how sure that is, by what and since when: at any instant of a batch's past, now, or ahead with the
 * heat left as it is. By all that was logged, before and after: later weights tell of earlier hours too.
 * @param at default: as it stands after all that was logged
 */
export function waterOf(state: BatchState, at = Infinity): Water {
  const runs = [...state.earlierRuns, ...(state.run ? [state.run] : [])]
  const run = runs.findLast(item => item.loadedAt <= at)
  if (!run) return beforeLoading(state, at)
  return at < (run.unloadedAt ?? Infinity) ? inMachine(state, run, at) : takenOut(state, run, at)
}

const exactly = (value: number): Interval => ({ p10: value, p50: value, p90: value })

function beforeLoading({ balance, food, beganDry, intake, prep, purpose, run }: BatchState, at: number): Water {
  // From jars to the grinder, without a machine: dry as it was kept. A part of another batch is as dry as that was.
  if (beganDry && !run && !intake.body.prepared) return { moisture: exactly(food.target[purpose]), known: 'jars', since: intake.at }
  return { moisture: balance.moisture, known: 'preparing', since: prep.findLast(entry => entry.at <= at)?.at ?? intake.at }
}

/** In its machine, at an hour of the run: on the way between weights, or ahead of the last. */
function inMachine(state: BatchState, run: RunState, at: number): Water {
  const last = run.weighings.findLast(weighing => weighing.at <= at)
  const since = last?.at ?? run.loadedAt
  if (at === Infinity) return { moisture: beliefOf(state, run).estimate.moistureNow, known: last ? 'weight' : 'hours', since }
  const { drying, posterior } = beliefOf(state, run, at)
  const hours = run.clock.equivalentHoursAt(at)
  // The clock stands still without heat: what was taken up later in the same spell was not there yet.
  const index = last ? run.weighings.indexOf(last) : -1
  const lit = run.clock.spells.findLast(spell => spell.from <= at)
  const litH = lit ? run.clock.equivalentHoursAt(lit.from) : -1
  const gone = isOffAt(run, at)
    ? Infinity
    : (drying.spells ?? []).filter(({ before, hours: from }) => before <= index || from <= litH).length
  const curves = posterior.curves.map(curve => (curve.shifts.length > gone ? { ...curve, shifts: curve.shifts.slice(0, gone) } : curve))
  const { moistureNow } = estimateOf({ ...drying, at: hours }, { ...posterior, curves })
  return { moisture: moistureNow, known: last && at - last.at < AT_ONCE_MS ? 'weight' : 'hours', since }
}

/**
 * Out of its machine: by the air in a closed jar where that was read since, else by all that was weighed. Where weight and air
 * part ways the wetter counts. What nobody weighed is told by its hours and by what hands said of it, with all
 * their doubt.
 */
function takenOut(state: BatchState, run: RunState, at: number): Water {
  const { jarAir } = state
  const byWeight = beliefOf(state, run).estimate.moistureNow
  const last = [...run.weighings, ...(run.rested ? [run.rested] : [])].findLast(weighing => weighing.at <= at)
  if (jarAir && run === state.run && jarAir.at >= run.unloadedAt! && jarAir.at <= at) {
    const air = readJarAir(state, jarAir.body).moisture
    if (!last || byWeight.p10 <= air.p90) return driedOn({ moisture: air, known: 'jar air', since: jarAir.at }, run, at)
  }
  const unloadedAt = run.unloadedAt!
  if (last) return driedOn({ moisture: byWeight, known: unloadedAt - last.at < AT_ONCE_MS ? 'weight' : 'hours', since: last.at }, run, at)
  // Hands and hours together; where nobody felt it, its hours alone.
  const felt = run.felt.findLast(feel => feel.at <= at)
  return driedOn({ moisture: byWeight, known: felt ? 'hand' : 'hours', since: felt?.at ?? run.loadedAt }, run, at)
}

/** Less what drying the powder in the oven took out since, by its weights. */
function driedOn(water: Water, { powderDries }: RunState, until: number): Water {
  return powderDries.reduce((before, { at, body: { beforeG, afterG } }) => {
    if (at < water.since || at > until || beforeG === undefined || afterG === undefined || !(afterG > 0)) return before
    const after = (moisture: number) => Math.max(0, 1 - ((1 - moisture) * beforeG) / afterG)
    const { p10, p50, p90 } = before.moisture
    return {
      moisture: { p10: after(p10), p50: after(p50), p90: after(p90) },
      known: before.known === 'jar air' ? 'weight' : before.known,
      since: at,
    }
  }, water)
}
