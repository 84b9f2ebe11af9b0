import { fileURLToPath } from 'node:url'
import { buildGenerator, getProgramFromFiles } from 'typescript-json-schema'

/** JSON Schemas of what the routes answer, made from the types that the handlers and the client are checked against. */
export interface AnswersSchema {
  /** The answer of each route, by its name; shared parts are referred to as `#/components/schemas/…`. */
  answers: Record<string, object>
  parts: Record<string, object>
}

const root = fileURLToPath(new URL('..', import.meta.url))

/** Takes some seconds: the types are resolved by the compiler. */
export function answersSchema(): AnswersSchema {
  const program = getProgramFromFiles(
    [`${root}shared/api/answers.ts`],
    {
      strict: true,
      target: 'ES2023',
      module: 'ESNext',
      moduleResolution: 'bundler',
      skipLibCheck: true,
      baseUrl: root,
      paths: { '#core/*': ['./core/*'], '#shared/*': ['./shared/*'] },
    },
    root,
  )
  const generator = buildGenerator(program, {
    required: true,
    noExtraProps: true,
    strictNullChecks: true,
    ignoreErrors: true,
    validationKeywords: [],
  })
  const whole = generator?.getSchemaForSymbol('Answers')
  if (!whole) throw new Error('The types of the answers cannot be read: see shared/api/answers.ts.')
  const definitions = whole.definitions ?? {}
  // A generic's name has signs in it that a document's parts may not have.
  const names = new Map(
    Object.keys(definitions).map((name, i) => [name, /^\w+$/.test(name) ? name : `${name.replace(/\W+/g, '_').slice(0, 40)}_${i}`]),
  )
  const moved = JSON.parse(JSON.stringify(whole), (key, value: unknown) => {
    if (key !== '$ref' || typeof value !== 'string') return value
    return `#/components/schemas/${names.get(decodeURIComponent(value.replace('#/definitions/', '')))!}`
  }) as typeof whole
  return {
    answers: moved.properties as AnswersSchema['answers'],
    parts: Object.fromEntries(
      Object.entries(moved.definitions ?? {}).map(([name, part]) => [names.get(name)!, recordOf(name) ?? (part as object)]),
    ),
  }
}

/** A record of any names: the generator knows index signatures, but not this alias of one. */
function recordOf(name: string): object | undefined {
  const value = /^(?:Partial<|Readonly<)?Record<string,\s*(\w+)>/.exec(name)?.[1]
  if (!/^(?:Partial<|Readonly<)?Record<string,/.test(name)) return undefined
  return { type: 'object', additionalProperties: value === 'string' || value === 'number' ? { type: value } : true }
}

if (process.argv[1]?.endsWith('answersSchema.ts')) console.log(JSON.stringify(answersSchema()))
