export { learnBasket, type BasketFactor, type BasketLearned, type BasketLesson } from './basket'
export { learnEffects, type Behind, type Effect, type Effects, type EffectsModel, type Found } from './effects'
export { learnHours, type FinishedRun, type HoursKind, type HoursLearned, type LoadAsked } from './hours'
export { learnedHours, type LearnedHours } from './load'
