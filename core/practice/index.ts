export { bestHere, bestOf, meanCost, searchBest, type Best } from './best'
export { drill, DRILL_KINDS, isRight, type Drill, type DrillKind } from './drills'
export {
  brierScore,
  calibrationOf,
  intervalScore,
  offBy,
  wilson,
  type Calibration,
  type Guess,
  type Said,
  type SureBin,
  type Truths,
} from './guesses'
export { judge, type Outcome } from './judge'
export { NotNow, type Act, type Frame, type Reading, type Stage } from './acts'
export { Kitchen } from './kitchen'
export type { Deed, Lesson, PlayRule } from './lesson'
export { play } from './player'
export { readLesson, type LessonProblem, type ReadLesson } from './readLesson'
