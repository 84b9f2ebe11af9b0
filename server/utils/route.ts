import type { EventHandler, H3Event } from 'h3'
import * as z from 'zod'
import { InputError } from '#core/errors'
import { problemsOfIssues, type Refusal } from '#shared/contracts'
import { Conflict, NotFound } from '#server/services/refusals'
import { TooFast } from '#server/devices/readingIntake'
import type { Context } from '#server/services/context'

/** Largest body of a request, unless its route says otherwise: a log entry is a few hundred bytes. */
const MOST_KB = 64

/** A request that cannot be read as what it says it is. */
class BadRequest extends Error {
  constructor(
    readonly statusCode: number,
    message: string,
  ) {
    super(message)
  }
}

/**
 * A route of a few lines: parse, call, answer. Whatever the layers below refuse becomes a status of 4xx
 * with the fields named; anything else is logged and answered without its inner words.
 */
export function route<Answer>(handle: (event: H3Event, context: Context) => Answer | Promise<Answer>): EventHandler {
  return defineEventHandler(async event => {
    try {
      const context = useLogbook()
      // What is written while long work holds the logbook waits for its end; what is read does not.
      while (context.busy && event.method !== 'GET' && event.method !== 'HEAD') await context.busy
      return await handle(event, context)
    } catch (error) {
      const refusal = refusalOf(error)
      if (refusal.statusCode === 500) console.error(error)
      setResponseStatus(event, refusal.statusCode)
      return refusal
    }
  })
}

export function refusalOf(error: unknown): Refusal {
  if (error instanceof z.ZodError) {
    const problems = problemsOfIssues(error.issues)
    return { statusCode: 400, message: sentence(problems), problems }
  }
  if (error instanceof BadRequest)
    return {
      statusCode: error.statusCode,
      message: error.message,
      problems: [{ field: 'body', code: 'unreadable', message: error.message }],
    }
  if (error instanceof InputError) return { statusCode: 422, message: sentence(error.problems), problems: [...error.problems] }
  if (error instanceof NotFound)
    return { statusCode: 404, message: error.message, problems: [{ field: error.field, code: 'unknown', message: error.message }] }
  if (error instanceof TooFast)
    return { statusCode: 429, message: error.message, problems: [{ field: 'readings', code: 'too-fast', message: error.message }] }
  if (error instanceof Conflict) return { statusCode: 409, message: error.message, problems: [...error.problems] }
  return { statusCode: 500, message: 'Something went wrong in the server. Nothing of this was written; send it again.', problems: [] }
}

function sentence(problems: readonly { message: string }[]): string {
  return problems.map(problem => problem.message).join(' ')
}

/**
 * The body as the schema wants it. Read by hand, so that a large one is cut off early and a broken one
 * is told apart from an empty one.
 */
export async function readInput<Schema extends z.ZodType>(event: H3Event, schema: Schema, mostKb = MOST_KB): Promise<z.infer<Schema>> {
  // A form on a foreign page can send text, but not JSON: this keeps such pages out of the log.
  if (!/^application\/json\b/i.test(getRequestHeader(event, 'content-type') ?? '')) {
    throw new BadRequest(415, 'Send JSON, with content-type application/json.')
  }
  const text = await readText(event, mostKb)
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw new BadRequest(
      400,
      text.trim() === '' ? 'The body is empty; JSON is needed.' : 'The body is not JSON: it breaks off or has a stray sign.',
    )
  }
  return schema.parse(value)
}

/** The body as text, cut off where it is over so many kB. */
export async function readText(event: H3Event, mostKb: number): Promise<string> {
  const most = mostKb * 1024
  const tooLarge = () => new BadRequest(413, `The body is over ${mostKb} kB: send less at once.`)
  const { req } = event.node
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of req as AsyncIterable<Buffer>) {
    size += chunk.length
    // The rest is read and dropped, so that the answer reaches a client that is still sending.
    if (size <= most) chunks.push(chunk)
    else if (size > 100 * most) throw tooLarge()
  }
  if (size > most) throw tooLarge()
  return Buffer.concat(chunks).toString('utf8')
}

/** A router parameter that must be a UUID. */
export function idParam(event: H3Event, name: string): string {
  const value = getRouterParam(event, name) ?? ''
  const parsed = z.uuid().safeParse(value)
  if (!parsed.success) throw new NotFound(name, 'There is nothing under this address: the id is not one of Dulse.')
  return parsed.data
}

/** The query, parsed. */
export function readQuery<Schema extends z.ZodType>(event: H3Event, schema: Schema): z.infer<Schema> {
  return schema.parse(getQuery(event))
}
