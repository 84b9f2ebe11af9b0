export { portionOf, type Portion } from './portion'
export { tablespoonsOf } from './spoons'
