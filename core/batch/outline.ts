import { curveIn, overHeat } from '../kinetics'
import type { Interval } from '../stats'
import { assess } from './assess'
import type { BatchState } from '../log'

/** A run in outline, to be laid beside others: shares of the loaded water that are left, against hours of heat. */
export interface RunOutline {
  loadedAt: number
  loadedG: number
  /** On the trays, where known. */
  thicknessMm?: number
  cutBy?: string
  trays: number
  setC: number | null
  roomHumidity?: number
  /** Hours of heat to the target, and those that it had. */
  hoursToTarget: Interval
  hoursOfHeat: number
  weighed: { hours: number; left: number }[]
  curve: { hours: number; left: number }[]
}

/** Points kept of a curve: enough for a line among others. */
const POINTS = 40

/** @returns undefined for a batch that was never weighed in a machine, or has not left it */
export function outlineOf(state: BatchState): RunOutline | undefined {
  const { run } = state
  if (run?.unloadedAt === undefined || run.weighings.length === 0) return undefined
  const assessed = assess(state, run.unloadedAt)!
  const solidsG = assessed.estimate.solidsG.p50
  const left = (weightG: number) => Math.min(1, Math.max(0, (weightG - solidsG) / (run.loadedG - solidsG)))
  const ofHeat = (equivalent: number) => run.clock.hoursAt(run.clock.instantAt(equivalent))
  const drawn = overHeat(curveIn('weight', assessed.estimate).points, run.clock, run.loadedAt, run.unloadedAt)
  const step = Math.max(1, Math.floor(drawn.length / POINTS))
  const { p10, p50, p90 } = assessed.estimate.hoursToTarget
  return {
    loadedAt: run.loadedAt,
    loadedG: run.loadedG,
    thicknessMm: state.thicknessMm,
    cutBy: state.cutBy,
    trays: run.positions.length,
    setC: run.clock.spells[0]?.setC ?? null,
    roomHumidity: run.room?.humidity,
    hoursToTarget: { p10: ofHeat(p10), p50: ofHeat(p50), p90: ofHeat(p90) },
    hoursOfHeat: run.clock.hoursAt(run.unloadedAt),
    weighed: run.weighings.map(({ at, weightG }) => ({ hours: run.clock.hoursAt(at), left: left(weightG) })),
    curve: drawn.filter((_, i) => i % step === 0 || i === drawn.length - 1).map(({ hours, value }) => ({ hours, left: left(value.p50) })),
  }
}
