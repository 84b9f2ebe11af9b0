import type * as z from 'zod'
import type { Answers } from './answers'
import type { ParamsOf } from './route'
import type { RouteName, ROUTES } from './routes'

type Declared<Name extends RouteName> = (typeof ROUTES)[Name]

/** What a caller gives along, and what a handler is given: parameters of the path, query and body of one route. */
export type ParamsIn<Name extends RouteName> = Record<ParamsOf<Declared<Name>['path']>, string>
export type QueryIn<Name extends RouteName> = Declared<Name> extends { query: infer Query extends z.ZodType } ? z.input<Query> : undefined
export type QueryOf<Name extends RouteName> = Declared<Name> extends { query: infer Query extends z.ZodType } ? z.infer<Query> : undefined
export type BodyTo<Name extends RouteName> = Declared<Name> extends { body: infer Body extends z.ZodType } ? z.input<Body> : undefined
/** Parsed; of a route that reads its body itself there is none. */
export type BodyFrom<Name extends RouteName> =
  Declared<Name> extends { takes: unknown }
    ? undefined
    : Declared<Name> extends { body: infer Body extends z.ZodType }
      ? z.infer<Body>
      : undefined

/** What a route answers; of a file nothing is said. */
export type AnswerOf<Name extends RouteName> = Name extends keyof Answers ? Answers[Name] : unknown

type Given<Key extends string, Value> = [Value] extends [undefined]
  ? { [key in Key]?: undefined }
  : object extends Value
    ? { [key in Key]?: Value }
    : { [key in Key]: Value }

/** What must be given to call a route. */
export type CallOf<Name extends RouteName> = ([ParamsOf<Declared<Name>['path']>] extends [never]
  ? { params?: undefined }
  : { params: ParamsIn<Name> }) &
  Given<'query', QueryIn<Name>> &
  Given<'body', BodyTo<Name>>
