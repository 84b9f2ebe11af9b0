import * as z from 'zod'
import { createDocument, type ZodOpenApiOperationObject, type ZodOpenApiPathsObject } from 'zod-openapi'
import { answers } from '#answers'
import { refusalsOf, ROUTE_NAMES, routeOf, type RouteName, type RouteOf } from '#shared/api'

const REFUSALS: Record<number, string> = {
  400: 'The shape is wrong: a field is missing or is not what it must be.',
  401: 'Whoever asks has to sign in first; not where Dulse listens to its own machine alone.',
  403: 'Whoever asks may not: it is a keeper’s, or the key is good for something else.',
  404: 'There is nothing under this address.',
  409: 'The same id with other content, or a change of a version that is not the newest.',
  413: 'The body is too large.',
  415: 'The body is of another type.',
  422: 'The shape is right, but it cannot be so: the rules of the log refuse it.',
  429: 'More than is taken at once: readings, or tries of a passphrase.',
}

const refusal = z
  .object({
    statusCode: z.number().int(),
    message: z.string(),
    problems: z.array(
      z.object({
        field: z.string(),
        code: z.string(),
        message: z.string(),
        template: z.string().optional().meta({ description: 'The sentence with its figures by name, to be worded in other units.' }),
        quantities: z.record(z.string(), z.union([z.number(), z.string()])).optional(),
      }),
    ),
  })
  .meta({ id: 'Refusal', description: 'Nothing was written. Each problem names its field, its code and the mend.' })
const work = z
  .union([
    z.object({ progress: z.object({ phase: z.string(), done: z.number(), of: z.number() }) }),
    z.object({ answer: z.unknown(), written: z.boolean() }),
    z.object({ refused: refusal }),
  ])
  .meta({ id: 'WorkLine', description: 'A line of the answer. Hanging up stops the work, and nothing is written.' })

const isJson = (type: string) => type === 'application/json' || type.endsWith('+json')

function operationOf(name: RouteName, route: RouteOf): ZodOpenApiOperationObject {
  const { query, body, gives = 'application/json' } = route
  const takes = route.takes ?? (body ? ['application/json'] : [])
  const names = [...route.path.matchAll(/\{(\w+)\}/g)].map(match => match[1]!)
  const path = z.object(Object.fromEntries(names.map(param => [param, param.endsWith('Id') ? z.uuid() : z.string()])))
  const answer =
    gives === 'application/x-ndjson' ? work : (answers.answers[name] ?? (isJson(gives) ? { type: 'object' } : { type: 'string' }))
  return {
    operationId: name,
    tags: [route.tag],
    summary: route.summary,
    ...((query || names.length > 0) && { requestParams: { ...(query && { query }), ...(names.length > 0 && { path }) } as never }),
    ...(takes.length > 0 && {
      requestBody: {
        required: true,
        content: Object.fromEntries(takes.map(type => [type, { schema: isJson(type) && body ? body : z.string() }])),
      },
    }),
    responses: {
      200: { description: route.summary, content: { [gives]: { schema: answer as z.ZodType } } },
      ...Object.fromEntries(
        refusalsOf(route).map(status => [status, { description: REFUSALS[status]!, content: { 'application/json': { schema: refusal } } }]),
      ),
    },
  }
}

function pathsOf(): ZodOpenApiPathsObject {
  const paths: ZodOpenApiPathsObject = {}
  for (const name of ROUTE_NAMES) {
    const route = routeOf(name)
    paths[route.path] = { ...paths[route.path], [route.method.toLowerCase()]: operationOf(name, route) }
  }
  return paths
}

let made: object | undefined

/** The HTTP interface as OpenAPI 3.1, made from the routes that handlers and client are made of, answers included. */
export function openApiDocument(): object {
  made ??= createDocument({
    openapi: '3.1.0',
    info: {
      title: 'Dulse',
      version: '1',
      license: { name: 'MIT', identifier: 'MIT' },
      description:
        'The logbook of a household that dries food. Weights are grams, temperatures °C, instants milliseconds since 1970 UTC, ids UUIDs made by whoever writes: the same id sent again is harmless.',
    },
    servers: [{ url: '/' }],
    paths: pathsOf(),
    components: { schemas: answers.parts as never },
  })
  return made
}
