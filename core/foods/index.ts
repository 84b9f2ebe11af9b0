export { FOODS, cardOf, findFood } from './catalogue'
export { START_SCHOOLS, TEMPERATURE_SCHOOLS } from './sources'
export { PURPOSES, type Caution, type FeelForm, type Food, type FoodGroup, type MethodCard, type Purpose, type Source, type Sourced, type Spread } from './types'
