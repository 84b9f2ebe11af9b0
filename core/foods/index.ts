export { parseRange, parseSpread, rangeText, spreadText } from './amounts'
export { asCut, cardOf, foodBook, purposeFactor, saltWhenDry, targetIn, wayOf, type FindFood, type FoodBook } from './book'

export { allergensOfLot, allergenWords, plainly, tracesOf } from './allergens'
export { mixedFood } from './mix'
export { usualOfFamily, type UsualFood } from './own'
export { expandFood, slugOf } from './expand'
export { chosenCard, effectsOfChoices, QUESTION_OF_STEP, questionsOf, type Choices } from './schools'
export type { CardSource, FamilySource, FoodSource, FormSource, GoodsSource, OwnCardSource, ReferenceSource } from './source'
export {
  CAUTION_STEPS,
  FEEL_FORMS,
  PREP_STEPS,
  PURPOSES,
  TRAITS,
  type CardStep,
  type CardWay,
  type Caution,
  type CautionStep,
  type FeelForm,
  type Food,
  type MethodCard,
  type PrepStepName,
  type Purpose,
  type Range,
  type School,
  type SchoolEffects,
  type SchoolQuestion,
  type Source,
  type Sourced,
  type Spread,
  type Trait,
} from './types'
