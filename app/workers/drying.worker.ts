import { expose } from 'comlink'
import { assess, assessRack, assessTrays, foldBatch, lessonsOf, type AssessedTray, type Assessment, type Entry, type Lesson, type StandingTray } from '#core/batch'

import { guessLogger, readLogger, type LoggerGuess, type LoggerReadings, type LoggerSettings } from '#core/readings'

/** Fits and windows, and the reading of large files, away from the thread that draws. */
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
  guessLogger(text: string, timeZone: string): LoggerGuess | { problem: string } {
    try {
      return guessLogger(text, timeZone)
    }
    catch (error) {
      return { problem: (error as Error).message }
    }
  },
  readLogger(text: string, settings: LoggerSettings, firstLine: number, now: number): LoggerReadings | { problem: string } {
    try {
      return readLogger(text, settings, firstLine, now)
    }
    catch (error) {
      return { problem: (error as Error).message }
    }
  },
  lessons(entries: Entry[]): Lesson[] {
    return lessonsOf(entries)
  },
}

export type DryingDesk = typeof desk

expose(desk)
