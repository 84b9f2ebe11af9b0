export { tablespoonsOf } from './spoons'
