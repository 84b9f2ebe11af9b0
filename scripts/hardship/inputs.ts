import { uuidv7 } from 'uuidv7'
import { randomSource } from '#core/stats'
import { startDulse } from '../../tests/e2e/support/server'
import { beginBatch, PATIENCE_MS, send, type Found } from './campaign'

interface Schema {
  $ref?: string
  type?: string | string[]
  const?: unknown
  enum?: unknown[]
  anyOf?: Schema[]
  oneOf?: Schema[]
  allOf?: Schema[]
  properties?: Record<string, Schema>
  required?: string[]
  items?: Schema
  prefixItems?: Schema[]
  minItems?: number
  minimum?: number
  exclusiveMinimum?: number
  maximum?: number
  format?: string
  pattern?: string
}
interface Operation {
  operationId: string
  parameters?: { name: string; in: string; schema: Schema }[]
  requestBody?: { content: Record<string, { schema: Schema }> }
}
interface Document {
  paths: Record<string, Record<string, Operation>>
  components: { schemas: Record<string, Schema> }
}

const deep = (levels: number) => '['.repeat(levels) + ']'.repeat(levels)
/** What a form, a script or a hand may send in a field's place. */
const HOSTILE: readonly unknown[] = [
  null,
  true,
  '',
  ' ',
  'NaN',
  '1,5',
  '<script>alert(1)</script>',
  "'; DROP TABLE entry; --",
  '../../etc/passwd',
  '\u0000',
  '\u200B\u200B',
  '\u202Eabc',
  '\uD800',
  '💧'.repeat(300),
  'x'.repeat(20_000),
  0,
  -1,
  -0,
  1e-300,
  1e300,
  0.1 + 0.2,
  2 ** 53,
  -(2 ** 53),
  9_999_999_999_999,
  [],
  {},
  [[]],
  [null],
  Array.from({ length: 400 }, () => 1),
  { kind: 'note' },
  { __proto__: 1, constructor: 1 },
]

/**
 * Bodies, queries and paths made from the OpenAPI document, one field at a time made wrong. None may be answered with a status of 5xx,
 * hang, or be refused without saying which field and why; whatever is taken must be given out again.
 */
export async function inputs(size: number): Promise<Found> {
  const { uniform: random } = randomSource(11)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const server = await startDulse()
  const batchId = await beginBatch(server)
  const document = (await (await send(server, 'GET', '/api/openapi.json')).json()) as Document
  const faults: string[] = []
  const statuses = new Map<number, number>()
  let longest = 0

  const resolve = (schema: Schema): Schema => (schema.$ref ? resolve(document.components.schemas[schema.$ref.split('/').at(-1)!]!) : schema)
  /** Something that fits a schema, more or less; what lies deep is left out. */
  function sample(given: Schema, depth = 0): unknown {
    const schema = resolve(given)
    if (schema.const !== undefined) return schema.const
    if (schema.enum) return pick(schema.enum)
    const choices = schema.anyOf ?? schema.oneOf
    if (choices) return sample(pick(choices), depth + 1)
    if (schema.allOf) return Object.assign({}, ...schema.allOf.map(part => sample(part, depth + 1))) as unknown
    const type = Array.isArray(schema.type) ? pick(schema.type) : schema.type
    switch (type) {
      case 'object': {
        const names = Object.keys(schema.properties ?? {}).filter(
          name => (schema.required ?? []).includes(name) || (depth < 4 && random() < 0.5),
        )
        return Object.fromEntries(names.map(name => [name, name === 'id' ? uuidv7() : sample(schema.properties![name]!, depth + 1)]))
      }
      case 'array':
        if (schema.prefixItems) return schema.prefixItems.map(item => sample(item, depth + 1))
        return Array.from({ length: Math.max(schema.minItems ?? 0, depth < 5 ? 1 : 0) }, () => sample(schema.items ?? {}, depth + 1))
      case 'integer':
      case 'number': {
        const least = schema.minimum ?? schema.exclusiveMinimum ?? 0
        // Instants are of these days.
        if ((schema.maximum ?? 0) > 1e12) return Date.now() - Math.floor(random() * 1e9)
        const value = least + random() * Math.min(100, (schema.maximum ?? least + 100) - least)
        return type === 'integer' ? Math.ceil(value) : value
      }
      case 'boolean':
        return random() < 0.5
      case 'null':
        return null
      default:
        return schema.format === 'uuid' || schema.pattern?.includes('[0-9a-f')
          ? random() < 0.5
            ? batchId
            : uuidv7()
          : pick(['kale', 'Garden', 'leaves', 'Top board', '2026-11-28'])
    }
  }
  /** One field of it, anywhere within, made wrong: replaced, left out, or joined by one that is none. */
  function spoil(value: unknown): unknown {
    const isObject = typeof value === 'object' && value !== null
    if (!isObject || random() < 0.12) return pick(HOSTILE)
    if (Array.isArray(value)) {
      if (value.length === 0) return [pick(HOSTILE)]
      const at = Math.floor(random() * value.length)
      return random() < 0.15 ? [...value, ...value] : value.map((item, i) => (i === at ? spoil(item) : (item as unknown)))
    }
    const names = Object.keys(value)
    const name = names.length > 0 ? pick(names) : 'x'
    const act = random()
    if (act < 0.12) return Object.fromEntries(Object.entries(value).filter(([key]) => key !== name))
    if (act < 0.2) return { ...value, [pick(['extra', '__proto__', 'kind', 'version'])]: pick(HOSTILE) }
    return { ...value, [name]: spoil((value as Record<string, unknown>)[name]) }
  }

  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  )
  // What would close the door on this campaign, ends in a stream that never ends, or takes the whole logbook's place.
  const LEFT = new Set(['live', 'setPassphrase', 'chooseHome', 'enter', 'pair'])
  const open = operations.filter(({ operation }) => !LEFT.has(operation.operationId))
  for (let i = 0; i < size; i++) {
    const { path, method, operation } = random() < 0.45 ? pick(open.filter(item => item.method !== 'GET')) : pick(open)
    const spoilt = random()
    const address = path.replace(/\{(\w+)\}/g, (_, name: string) =>
      encodeURIComponent(
        spoilt < 0.1
          ? String(pick(['x', '..', '%00', 'a'.repeat(3000), uuidv7(), '-1']))
          : name.endsWith('Id')
            ? random() < 0.6
              ? batchId
              : uuidv7()
            : pick(['kale', 'batches', 'dulse-2026-11-28.sqlite']),
      ),
    )
    const query = (operation.parameters ?? [])
      .filter(parameter => parameter.in === 'query' && random() < 0.8)
      .map(({ name, schema }): [string, string] => {
        const value = random() < 0.5 ? pick(HOSTILE) : sample(schema)
        return [name, (typeof value === 'object' ? JSON.stringify(value) : String(value)).slice(0, 4000)]
      })
    const content = operation.requestBody?.content
    const type = content && pick(Object.keys(content))
    const made = type ? sample(content[type]!.schema) : undefined
    const twisted = random()
    const body =
      type === undefined
        ? undefined
        : twisted < 0.04
          ? pick(['', '{', '[1,', deep(20_000), '\u0000', 'null', '"text"'])
          : JSON.stringify(twisted < 0.12 ? made : spoil(made))
    const url = `${address}${query.length > 0 ? `?${new URLSearchParams(query.map(([name, value]): [string, string] => [name, value]))}` : ''}`
    if (process.env.TRACE) console.error(i, method, url.slice(0, 90), (body ?? '').length)
    const label = `${method} ${url.slice(0, 160)} ${(body ?? '').slice(0, 400)}`
    const begun = performance.now()
    try {
      const answer = await send(server, method, url, body, type ? { 'content-type': random() < 0.03 ? 'text/plain' : type } : {})
      const text = await answer.text()
      longest = Math.max(longest, performance.now() - begun)
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1)
      if (answer.status >= 500) faults.push(`${answer.status}: ${label}`)
      else if (answer.status >= 400) {
        const told = JSON.parse(text) as { message?: string; problems?: { field?: string; message?: string }[] }
        const clear =
          told.message &&
          told.problems?.length &&
          told.problems.every(problem => problem.field !== undefined && (problem.message?.length ?? 0) > 8)
        // What was typed may be said again; what only a programme says may not.
        if (
          !clear ||
          [...(told.message ?? '').matchAll(/\b(?:undefined|NaN|Infinity|SQLITE|Object)\b/g)].some(([word]) => !label.includes(word))
        )
          faults.push(`unclear: ${label} → ${text.slice(0, 300)}`)
      }
      if (/(?:\/root|(?<!\/api)\/home\/|\/tmp\/|node_modules|\.mjs:\d)/.test(text) && !path.includes('openapi'))
        faults.push(`tells of its place: ${label} → ${text.slice(0, 200)}`)
    } catch (error) {
      const ms = performance.now() - begun
      faults.push(`${ms >= PATIENCE_MS ? 'hung' : String(error)}: ${label}`)
    }
  }
  // After all of it the pages are still there, and the log is as whole as it was.
  for (const path of [
    '/api/now',
    '/api/shelf',
    '/api/kitchen',
    '/api/insight',
    `/api/batches/${batchId}`,
    '/api/export/logbook.json',
    '/api/machines',
  ])
    if (!(await send(server, 'GET', path)).ok) faults.push(`${path} is no longer answered`)
  await server.stop()
  const counts = [...statuses].sort(([a], [b]) => a - b).map(([status, count]) => `${status}: ${count}`)
  return { figures: `${size} inputs, ${counts.join(', ')}, longest ${longest.toFixed(0)} ms, ${faults.length} faults`, faults }
}
