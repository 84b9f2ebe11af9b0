export type { Answers, Restored, Written } from './answers'
export type { AnswerOf, BodyFrom, BodyTo, CallOf, ParamsIn, QueryIn, QueryOf } from './call'
export { patternOf, refusalsOf, type ParamsOf, type RouteOf } from './route'
export { ROUTE_NAMES, routeOf, ROUTES, type RouteName } from './routes'
