import { expose } from 'comlink'
import { assess, foldBatch, lessonsOf, type Assessment, type Entry, type Lesson } from '#core/batch'

/** Fits and windows, away from the thread that draws. */
const desk = {
  assess(entries: Entry[], now: number): Assessment | undefined {
    const state = foldBatch(entries)
    return state && assess(state, now)
  },
  lessons(entries: Entry[]): Lesson[] {
    return lessonsOf(entries)
  },
}

export type DryingDesk = typeof desk

expose(desk)
