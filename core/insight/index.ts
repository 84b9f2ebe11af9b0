export { batchInsight } from './batch'
export { summarise, worthOf, type FinishedBatch, type StepYield, type Summary, type Worth } from './summary'
export type { BatchInsight } from './types'
