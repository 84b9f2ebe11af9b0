import type { BatchState } from '../log'
import { WAYS } from '../ways'
import type { Assessment, FinishWindow } from './assess'
import { constantTrays } from './constantTrays'

/** What a batch brings into the one cycle of a freeze dryer's chamber. */
export interface CycleMate {
  number: number
  name: string
  /** Its own window, were it alone. */
  finish: FinishWindow
  /** Water to be turned to ice, g. */
  waterG: number
  /** Every one of its trays has stopped losing weight. */
  settled: boolean
  /** When one of its trays was last weighed, and how often all of them were at the least. */
  weighedAt?: number
  weighings: number
}

/** A batch as its mates in the chamber see it; undefined where it does not stand in one. */
export function cycleMate(state: BatchState, assessed: Assessment | undefined, number: number): CycleMate | undefined {
  const { run, food, balance } = state
  if (!run || !assessed || run.unloadedAt !== undefined || !WAYS[run.way.way].underVacuum) return undefined
  const rounds = constantTrays(run)
  return {
    number,
    name: food.name,
    finish: assessed.finish,
    waterG: run.loadedG * balance.moisture.p50,
    settled: rounds.every(round => round.test?.constant),
    weighedAt: run.trayWeights.at(-1)?.at ?? run.weighings.at(-1)?.at,
    weighings: Math.min(...rounds.map(round => round.weighings)),
  }
}

/** One chamber, one vacuum: what stands in it is done when the last of it is. */
export function withMates<Assessed extends Pick<Assessment, 'finish'> | undefined>(
  assessed: Assessed,
  mates: readonly CycleMate[],
): Assessed {
  if (!assessed || mates.length === 0) return assessed
  // What never comes to an end is nothing in JSON.
  const endOf = (mate: CycleMate, of: keyof FinishWindow) => (mate.finish[of] as number | null) ?? Infinity
  const last = (of: keyof FinishWindow) => Math.max(assessed.finish[of], ...mates.map(mate => endOf(mate, of)))
  return { ...assessed, finish: { from: last('from'), middle: last('middle'), to: last('to') } }
}
