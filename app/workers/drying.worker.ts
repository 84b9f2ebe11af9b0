import { expose } from 'comlink'
import { assess, foldBatch, type Assessment, type Entry } from '#core/batch'

/** Fits and windows, away from the thread that draws. */
const desk = {
  assess(entries: Entry[], now: number): Assessment | undefined {
    const state = foldBatch(entries)
    return state && assess(state, now)
  },
}

export type DryingDesk = typeof desk

expose(desk)
