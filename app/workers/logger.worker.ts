import { expose } from 'comlink'
import { guessLogger, readLogger, type LoggerGuess, type LoggerReadings, type LoggerSettings } from '#core/readings'

/** Reads loggers' files, which may be long. Refusals come as words: an error loses its kind on the way. */
const reader = {
  guess: (text: string, timeZone: string) => attempt((): LoggerGuess => guessLogger(text, timeZone)),
  read: (text: string, settings: LoggerSettings, firstLine: number, now: number) =>
    attempt((): LoggerReadings => readLogger(text, settings, firstLine, now)),
}

function attempt<Answer>(act: () => Answer): Answer | { problem: string } {
  try {
    return act()
  } catch (error) {
    return { problem: (error as Error).message }
  }
}

export type LoggerReader = typeof reader

expose(reader)
