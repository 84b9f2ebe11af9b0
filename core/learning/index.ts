export { learnHours, type Effect, type EffectKind, type FinishedRun, type HoursLearned, type LoadAsked } from './hours'
export { learnedHours, type LearnedHours } from './load'
