import { chamberFinish, idlePhases, type InChamber } from '../freezing'
import type { BatchState, CycleTold, EntryOf } from '../log'
import { HOUR } from '../time'
import { WAYS } from '../ways'
import type { Assessment, FinishWindow } from './assess'
import { constantTrays } from './constantTrays'

/** What a batch brings into the one cycle of a freeze dryer's chamber. */
export interface CycleMate extends InChamber {
  number: number
  name: string
  /** Water to be turned to ice, g. */
  waterG: number
  /** Every one of its trays has stopped losing weight. */
  settled: boolean
  /** When one of its trays was last weighed, and how often all of them were at the least. */
  weighedAt?: number
  weighings: number
}

/** A batch as its mates in the chamber see it; undefined where it does not stand in one. */
export function cycleMate(state: BatchState, assessed: Pick<Assessment, 'finish'> | undefined, number: number): CycleMate | undefined {
  const { run, food } = state
  if (!run || !assessed || run.unloadedAt !== undefined || !WAYS[run.way.way].underVacuum) return undefined
  const rounds = constantTrays(run)
  return {
    ...inChamber(state, assessed.finish),
    number,
    name: food.name,
    waterG: iceOf(state),
    settled: rounds.every(round => round.test?.constant),
    weighedAt: run.trayWeights.at(-1)?.at ?? run.weighings.at(-1)?.at,
    weighings: Math.min(...rounds.map(round => round.weighings)),
  }
}

/** Water that a load brings as ice, g; 0 where it is in no machine. */
export const iceOf = (state: Pick<BatchState, 'run' | 'balance'> | undefined) =>
  state?.run && state.run.unloadedAt === undefined ? state.run.loadedG * state.balance.moisture.p50 : 0

/** A load with its own end; what freezes and dries finally by itself counts until a scale or the display tells. */
export function inChamber({ run, card }: BatchState, finish: FinishWindow): InChamber {
  const { frozen, positions, cycle, weighings } = run!
  const told = cycle.endsAt !== undefined || weighings.length > 0
  const { freezeH, finalH } = idlePhases({ frozen: frozen.length === positions.length, liquid: card.liquid })
  return { finish, freezeH: told ? 0 : freezeH, finalH: told ? 0 : finalH }
}

/** One chamber, one vacuum: what stands in it is done when the last of it is. */
export function withMates<Assessed extends Pick<Assessment, 'finish'> | undefined>(
  state: BatchState | undefined,
  assessed: Assessed,
  mates: readonly CycleMate[],
): Assessed {
  if (!state?.run || !assessed || mates.length === 0) return assessed
  // What never comes to an end is nothing in JSON.
  const endOf = ({ finish }: InChamber, of: keyof FinishWindow) => (finish[of] as number | null) ?? Infinity
  const whole = mates.map(mate => ({
    ...mate,
    finish: { from: endOf(mate, 'from'), middle: endOf(mate, 'middle'), to: endOf(mate, 'to') },
  }))
  return { ...assessed, finish: chamberFinish([inChamber(state, assessed.finish), ...whole]) }
}

/** What was said of a cycle, in the order in which it was said. */
export function cycleTold(entries: readonly EntryOf<'cycleHours' | 'cycleShows'>[], weighedAt: number): CycleTold {
  const told: CycleTold = { addedH: 0, sinceH: 0 }
  for (const { at, body } of entries) {
    if (body.kind === 'cycleHours') told.addedH += body.hours
    if (at < weighedAt) continue
    if (body.kind === 'cycleShows') told.endsAt = at + body.leftH * HOUR
    else if (told.endsAt === undefined) told.sinceH += body.hours
    else told.endsAt += body.hours * HOUR
  }
  return told
}
