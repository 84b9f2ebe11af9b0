export { bestHere, bestOf, meanCost, searchBest, type Best } from './best'
export { drawTruth, type Truth } from './draw'
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
export { feelOfPiece, feelTogether } from './hands'
export { judge, PRICES, type Outcome } from './judge'
export { isAsleep, Kitchen, NotNow, type Act, type Frame, type Reading, type Stage } from './kitchen'
export { DEEDS, lessonSchema, type Deed, type Lesson, type PlayRule } from './lesson'
export { mouldAnHour } from './mould'
export { CAREFUL, play } from './player'
export { readLesson, type LessonProblem, type ReadLesson } from './readLesson'
