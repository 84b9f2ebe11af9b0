export { batchInsight } from './batch'
export { costPerG, summarise, worthOf, type FinishedBatch, type StepYield, type Summary, type Worth } from './summary'
export { trialDifferences, type TrialDifference, type TrialSide } from './trial'
export type { BatchInsight } from './types'
