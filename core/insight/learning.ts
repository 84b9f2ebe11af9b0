/** What was said of a run's hours when it went in, against what it took. */
export interface HoursTold {
  low: number
  high: number
  took: number
}

/** How well hours were told, over the newest so many runs at a point of the household's years. */
export interface LearningPoint {
  at: number
  /** Runs finished by then. */
  runs: number
  /** Median of how far the middle was off, as a share; median width, high over low; share of windows that held. */
  error: number
  width: number
  held: number
}

/** So many runs are looked at together. */
const TOGETHER = 8

/**
 * How error and width of the hours told at loading fell as runs came.
 * @param told oldest first
 */
export function learningCurve(told: readonly (HoursTold & { at: number })[]): LearningPoint[] {
  const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!
  return told.flatMap((run, i): LearningPoint[] => {
    if (i + 1 < Math.min(TOGETHER, 4)) return []
    const newest = told.slice(Math.max(0, i + 1 - TOGETHER), i + 1)
    return [
      {
        at: run.at,
        runs: i + 1,
        error: middle(newest.map(({ low, high, took }) => Math.abs(Math.sqrt(low * high) / took - 1))),
        width: middle(newest.map(({ low, high }) => high / low)),
        held: newest.filter(({ low, high, took }) => low <= took && took <= high).length / newest.length,
      },
    ]
  })
}
