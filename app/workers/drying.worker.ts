import { expose } from 'comlink'
import { assess, assessTrays, foldBatch, lessonsOf, type AssessedTray, type Assessment, type Entry, type Lesson } from '#core/batch'

/** Fits and windows, away from the thread that draws. */
const desk = {
  assess(entries: Entry[], now: number): Assessment | undefined {
    const state = foldBatch(entries)
    return state && assess(state, now)
  },
  trays(entries: Entry[]): AssessedTray[] | undefined {
    const state = foldBatch(entries)
    return state && assessTrays(state)
  },
  lessons(entries: Entry[]): Lesson[] {
    return lessonsOf(entries)
  },
}

export type DryingDesk = typeof desk

expose(desk)
