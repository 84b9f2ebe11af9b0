import { ofKind } from './effective'
import type { Entry, EntryOf } from './types'

/** The rest in a closed jar since the food last left the machine. */
export interface RestState {
  /** Undefined while it waits beside the machine. */
  startedAt?: number
  endedAt?: number
  endWeightG?: number
  looks: EntryOf<'look'>[]
}

const DAY_MS = 86_400_000

export function restOf(log: readonly Entry[], unloadedAt: number): RestState {
  const since = log.filter(entry => entry.at >= unloadedAt)
  const start = ofKind(since, 'rest').at(-1)
  const end = ofKind(since, 'restEnd').at(-1)
  return {
    startedAt: start?.at,
    endedAt: end?.at,
    endWeightG: end?.body.weightG,
    looks: start ? ofKind(since, 'look').filter(look => look.at >= start.at) : [],
  }
}

/** Whole days from the start of the rest to an instant. */
export function restDays(rest: RestState, at: number): number {
  return rest.startedAt === undefined ? 0 : Math.max(0, Math.floor((at - rest.startedAt) / DAY_MS))
}
