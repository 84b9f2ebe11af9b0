import { basename } from 'node:path'
import type { H3Event } from 'h3'
import * as z from 'zod'
import { InputError, refuse, type Problem } from '#core/errors'
import { ROUTES, TURN_HEADER, type AnswerOf, type BodyFrom, type ParamsIn, type QueryOf, type RouteName, type RouteOf } from '#shared/api'
import { problemsOfIssues, type Refusal } from '#shared/contracts'
import type { Context } from '#server/services/context'
import { damagedWords } from '#server/db/opening'
import { HOUSE_BOUNDS } from '#server/home/bounds'
import { admit } from '#server/home/who'
import { Conflict, Damaged, NotAllowed, NotFound, SignInFirst, TooFast } from '#server/services/refusals'

/** Largest body of a request, kB, unless its route says otherwise: a log entry is a few hundred bytes. */
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

/** What a handler is given: what its route declares, parsed, and the event for what it does not. */
export interface Call<Name extends RouteName> {
  context: Context
  event: H3Event
  params: ParamsIn<Name>
  query: QueryOf<Name>
  body: BodyFrom<Name>
}

/** A few lines: call, answer. */
export type Handler<Name extends RouteName> = (call: Call<Name>) => AnswerOf<Name> | Promise<AnswerOf<Name>>
export type Handlers = { [Name in RouteName]: Handler<Name> }

/**
 * Parses what a route declares and answers what its handler does. Whatever the layers below refuse becomes a status of 4xx
 * with the fields named; anything else is logged and answered without its inner words.
 */
export async function serve(event: H3Event, route: RouteOf, handler: (call: never) => unknown): Promise<unknown> {
  try {
    admit(event.context.who, route)
    const context = useLogbook()
    const ofHome = route.tag === 'home'
    if (
      context.damaged &&
      !ofHome &&
      route.method !== 'GET' &&
      route.path !== ROUTES.restore.path &&
      route.path !== ROUTES.restoreCopy.path
    )
      throw new Damaged(context.damaged)
    // What is written while long work holds the logbook waits for its end; what is read does not.
    while (context.busy && !ofHome && event.method !== 'GET' && event.method !== 'HEAD') await context.busy
    const params = paramsOf(event)
    const query = route.query?.parse(getQuery(event))
    setResponseHeader(event, TURN_HEADER, String(context.live.turn))
    const body = route.body && !route.takes ? await readInput(event, route.body, route.mostKb) : undefined
    ofItsWriter(event)
    const answer = await boundedRead(event, route, () => handler({ context, event, params, query, body } as never))
    if (route.method !== 'GET' && !ofHome && !route.tells) context.live.changed()
    return answer
  } catch (error) {
    if (isCorrupt(error)) useLogbook().damaged ??= damagedWords(basename(useLogbook().db.name))
    const refusal = refusalOf(error)
    if (refusal.statusCode === 500) console.error(error)
    setResponseStatus(event, refusal.statusCode)
    return refusal
  }
}

/** By this a page says under whose name what it sends was written, and the server who asks now. */
const DEVICE_HEADER = 'dulse-device'

/** What waited on a phone while another person signed in there stays with who wrote it. @throws InputError */
function ofItsWriter(event: H3Event): void {
  const { who } = event.context
  if (who.kind !== 'device') return
  setResponseHeader(event, DEVICE_HEADER, who.device.id)
  const wroteIt = getRequestHeader(event, DEVICE_HEADER)
  if (event.method !== 'GET' && wroteIt !== undefined && wroteIt !== who.device.id)
    refuse(
      'who',
      'another-writer',
      'This was written under an earlier sign-in of this device. Send it again to log it under the name that is signed in now, or throw it away.',
    )
}

/** What one device of the house reads may take a share of the time, so that another's write is answered meanwhile. */
async function boundedRead(event: H3Event, route: RouteOf, read: () => unknown): Promise<unknown> {
  const home = useHome()
  if (route.method !== 'GET' || !home.isFromHouse(event.node.req)) return read()
  const address = addressOfCaller(event)
  const { readShare, readsWaiting } = HOUSE_BOUNDS
  if (home.readTime.isOver(address, readShare, Date.now())) {
    // A slow machine has little time to give: whoever asks more than its share is answered later, and refused only where it does not wait.
    const end = home.readsWaiting.take(address, readsWaiting, 10 * readsWaiting)
    if (!end) {
      setResponseHeader(event, 'retry-after', 1)
      throw new TooFast('This device asks more than its share: it is answered again in a second.', 'request')
    }
    try {
      while (home.readTime.isOver(address, readShare, Date.now())) await new Promise(resolve => setTimeout(resolve, WAIT_MS))
    } finally {
      end()
    }
  }
  // Its own work, not how long a stream stands open or a slow line takes.
  const began = performance.now()
  const answer = read()
  home.readTime.add(address, performance.now() - began, Date.now())
  return answer
}
const WAIT_MS = 50

const codeOf = (error: unknown) => String((error as { code?: unknown } | undefined)?.code ?? '')
const isCorrupt = (error: unknown) => /^SQLITE_(?:CORRUPT|NOTADB)/.test(codeOf(error))

export function refusalOf(error: unknown): Refusal {
  if (error instanceof z.ZodError) return refused(400, problemsOfIssues(error.issues))
  if (error instanceof InputError) return refused(422, error.problems)
  const said = error instanceof Error ? error.message : ''
  const about = (field: string, code: string) => [{ field, code, message: said }]
  if (error instanceof BadRequest) return refused(error.statusCode, about('body', 'unreadable'))
  if (error instanceof NotFound) return refused(404, about(error.field, 'unknown'))
  if (error instanceof TooFast) return refused(429, about(error.field, 'too-fast'))
  if (error instanceof SignInFirst) return refused(401, about('who', 'sign-in-first'))
  if (error instanceof NotAllowed) return refused(403, about('who', 'not-allowed'))
  if (error instanceof Conflict)
    return { statusCode: 409, message: said, problems: error.problems.length > 0 ? [...error.problems] : about('id', 'conflict') }
  if (error instanceof Damaged || isCorrupt(error)) return { statusCode: 503, message: said || 'The logbook is damaged.', problems: [] }
  const code = codeOf(error)
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC')
    return {
      statusCode: 507,
      message: 'The disk is full: nothing of this was written. Make room on the disk of the logbook; what waits is sent again.',
      problems: [],
    }
  if (code.startsWith('SQLITE_READONLY') || code === 'EROFS' || code === 'EACCES')
    return {
      statusCode: 507,
      message: 'The logbook’s folder may not be written in: nothing of this was written. Give yourself the right to.',
      problems: [],
    }
  return { statusCode: 500, message: 'Something went wrong in the server. Nothing of this was written; send it again.', problems: [] }
}

const refused = (statusCode: number, problems: readonly Problem[]): Refusal => ({
  statusCode,
  message: problems.map(problem => problem.message).join(' '),
  problems: [...problems],
})

/** Parameters of the path; those that are named as ids must be UUIDs. */
function paramsOf(event: H3Event): Record<string, string> {
  const params = getRouterParams(event, { decode: true })
  for (const [name, value] of Object.entries(params))
    if (name.endsWith('Id') && !z.uuid().safeParse(value).success)
      throw new NotFound(name, 'There is nothing under this address: the id is not one of Dulse.')
  return params
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
export const readText = async (event: H3Event, mostKb: number) => (await readBytes(event, mostKb)).toString('utf8')

/** The body as bytes, cut off where it is over so many kB. */
export async function readBytes(event: H3Event, mostKb: number): Promise<Buffer> {
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
  return Buffer.concat(chunks)
}

/** Says what an answer is that is not JSON, and under what name it is saved. */
export function giveFile(event: H3Event, type: string, saved?: { name: string; shown?: boolean }): void {
  setResponseHeader(event, 'content-type', type)
  if (saved) setResponseHeader(event, 'content-disposition', `${saved.shown ? 'inline' : 'attachment'}; filename="${saved.name}"`)
}
