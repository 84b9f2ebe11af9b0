import { expose } from 'comlink'
import type { Food } from '#core/foods'
import {
  assess,
  assessRacks,
  assessTrays,
  foldBatch,
  lessonsOf,
  type AssessedTray,
  type Assessment,
  type Lesson,
  type StandingTray,
} from '#core/batch'
import type { Entry } from '#core/log'

/** Fits and windows, away from the thread that draws. */
const desk = {
  assess(entries: Entry[], food: Food, now: number): Assessment | undefined {
    const state = foldBatch(entries, () => food)
    return state && assess(state, now)
  },
  trays(entries: Entry[], food: Food): AssessedTray[] | undefined {
    const state = foldBatch(entries, () => food)
    return state && assessTrays(state)
  },
  rack(logs: { entries: Entry[]; food: Food }[], now: number): StandingTray[][] {
    return assessRacks(
      logs.map(({ entries, food }) => foldBatch(entries, () => food)),
      now,
    )
  },
  lessons(entries: Entry[], food: Food): Lesson[] {
    return lessonsOf(entries, () => food)
  },
}

export type DryingDesk = typeof desk

expose(desk)
