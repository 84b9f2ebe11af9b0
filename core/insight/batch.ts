import { dryingRunOf, estimateOfRun } from '../water'
import { hoursOfRun } from '../hours'
import { USUAL_ROOM } from '../air'
import { inForce, ofKind, type BatchState, type Entry, type EntryOf, type RunState } from '../log'
import { heatOverTime } from '../machines'
import { WAYS } from '../ways'
import { estimateDrying } from '../kinetics'
import type { BatchInsight } from './types'

/** Hands beside the preparing, minutes (common practice): a tray loaded, a look, a session at the grinder, a jar filled. */
export const MINUTES = { tray: 3, look: 2, grind: 12, jar: 4 }
/** A window wider than this by its ends says too little of when it was dry. */
const TOO_WIDE = 1.5

/**
 * What a batch cost and where it lost, from its log.
 * @param entries the batch's log with the entries of its runs
 */
export function batchInsight(state: BatchState, entries: readonly Entry[]): BatchInsight {
  const log = inForce(entries)
  const runs = [...state.earlierRuns, ...(state.run ? [state.run] : [])]
  return {
    heat: runs.map(run => ({
      machineId: run.machineId,
      hours: run.unloadedAt === undefined ? 0 : run.clock.hoursAt(run.unloadedAt),
      fullPowerH: fullPowerHours(run),
    })),
    handsMinutes: handsMinutes(state, log),
    price: state.intake.body.price,
    lost: state.grinds.length > 0 ? lossesOf(state.grinds) : undefined,
    told: toldAtLoading(state),
    window: windowAtHalf(state),
  }
}

/** Hours at its machine's rated power that a run's heat came to. */
const fullPowerHours = ({ clock, loadedAt, unloadedAt = loadedAt, way, room = USUAL_ROOM }: RunState): number =>
  heatOverTime(clock.spells, WAYS[way.way], room.celsius, unloadedAt)

function handsMinutes(state: BatchState, log: readonly Entry[]): number {
  const prep = state.beganDry ? 0 : (state.food.handsMinutesKg.value * state.intake.body.weightG) / 1000
  const trays = ofKind(log, 'load').reduce((sum, { body }) => sum + body.positions.length, 0)
  const looks = log.filter(({ body }) => body.kind === 'weigh' || body.kind === 'feel' || body.kind === 'look').length
  return prep + MINUTES.tray * trays + MINUTES.look * looks + MINUTES.grind * state.grinds.length + MINUTES.jar * state.jars.length
}

function lossesOf(grinds: readonly EntryOf<'grind'>[]): BatchInsight['lost'] {
  const lost = { dustG: 0, filmG: 0, rejectsG: 0, cleaningG: 0, unknownG: 0 }
  for (const { body } of grinds) {
    const missingG = Math.max(0, body.dryInG + (body.seed?.weightG ?? 0) - body.powderOutG)
    const told = {
      dustG: body.lost?.dustG ?? 0,
      filmG: body.lost?.filmG ?? 0,
      rejectsG: body.lost?.rejectsG ?? 0,
      cleaningG: body.lost?.cleaningG ?? 0,
    }
    for (const cause of ['dustG', 'filmG', 'rejectsG', 'cleaningG'] as const) lost[cause] += told[cause]
    lost.unknownG += Math.max(0, missingG - told.dustG - told.filmG - told.rejectsG - told.cleaningG)
  }
  return lost
}

/** Hours as they were believed when it went in, and what they came to by the dial. */
function toldAtLoading(state: BatchState): BatchInsight['told'] {
  const { run } = state
  if (!run || run.unloadedAt === undefined || run.way.partOnly || state.earlierRuns.length > 0 || run.weighings.length < 2) return undefined
  const { p10, p50, p90 } = estimateOfRun(state)!.hoursToTarget
  if (!Number.isFinite(p90) || p90 / p10 > TOO_WIDE) return undefined
  return { ...hoursOfRun(state, run), took: p50 / run.feltOverDial }
}

/** What was said when half of the run was over, beside what came: the test of the windows on the household's own runs. */
function windowAtHalf(state: BatchState): BatchInsight['window'] {
  const { run } = state
  if (!run || run.unloadedAt === undefined || run.way.partOnly || state.earlierRuns.length > 0 || run.weighings.length < 3) return undefined
  const whole = dryingRunOf(state, run)
  const end = estimateOfRun(state)!.hoursToTarget
  if (!Number.isFinite(end.p90) || end.p90 / end.p10 > TOO_WIDE) return undefined
  const half = end.p50 / 2
  const early = whole.weighIns.filter(weighIn => weighIn.hours <= half)
  // As it stood then: what the heat being off did later, and when it came out, nobody knew.
  const spells = whole.spells?.filter(spell => spell.hours <= half && spell.before <= early.length)
  const { p10, p50, p90 } = estimateDrying({ ...whole, weighIns: early, spells, at: undefined }).hoursToTarget
  return Number.isFinite(p90) ? { low: p10, middle: p50, high: p90, actual: end.p50 } : undefined
}
