import type * as z from 'zod'

/** A route of the server: all that its handler, its client and its description need to know. */
export interface RouteOf<Path extends string = string> {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE'
  /** With parameters in braces; ids are UUIDs, `foodKey` and `table` names. */
  path: Path
  tag: 'pages' | 'batches' | 'shelf' | 'kitchen' | 'workshop' | 'devices' | 'planning' | 'practice' | 'foods' | 'data' | 'home'
  summary: string
  /** Who may, in a house that others reach: a cook (and a keeper) where it is left out. */
  who?: 'anyone' | 'keeper'
  /** What a key for a program is good for, beside. */
  token?: 'readings' | 'calendar'
  query?: z.ZodType
  /** A body of JSON. Routes with another kind of body read it themselves and say which (`takes`). */
  body?: z.ZodType
  takes?: readonly string[]
  /** Largest body, kB: a log entry is a few hundred bytes. */
  mostKb?: number
  /** What the log says does not change its answer. */
  apart?: true
  /** What it writes is told of where it is written: entries with what they are about, readings with themselves. */
  tells?: true
  /** Type of the answer, where it is not JSON. */
  gives?: string
}

/** Names in braces of a path. */
export type ParamsOf<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}` ? Name | ParamsOf<Rest> : never

/** Statuses that a route may refuse with; each answers a `Refusal`. */
export function refusalsOf(route: RouteOf): number[] {
  const reads = route.method === 'GET'
  return [
    400,
    ...(route.who === 'anyone' ? [] : [401, 403]),
    ...(route.path.includes('{') ? [404] : []),
    ...(reads ? [] : [409, 413, 415, 422]),
    ...(route.tag === 'devices' || (route.tag === 'home' && route.who === 'anyone') ? (reads ? [] : [429]) : []),
  ]
}

/** The path as a router's pattern: `/api/jars/:jarId`. What follows a parameter in its segment is the handler's. */
export const patternOf = (path: string) => path.replace(/\{(\w+)\}[^/]*/g, ':$1')

/** By this an answer says of which turn of the log it is (`LiveEvent`). */
export const TURN_HEADER = 'dulse-turn'
