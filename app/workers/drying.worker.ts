import { expose } from 'comlink'
import { assess, assessRack, assessTrays, foldBatch, lessonsOf, type AssessedTray, type Assessment, type Entry, type Lesson, type StandingTray } from '#core/batch'

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
  rack(logs: Entry[][], now: number): StandingTray[][] {
    return logs.map((entries) => {
      const state = foldBatch(entries)
      return state ? assessRack(state, now) : []
    })
  },
  lessons(entries: Entry[]): Lesson[] {
    return lessonsOf(entries)
  },
}

export type DryingDesk = typeof desk

expose(desk)
