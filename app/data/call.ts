import { ref, watch } from 'vue'
import { KEPT_HEADER } from './kept'
import { PLAIN_WORDS, wordsOf, type QuantityWords } from '#core/errors'
import { addressOf, ROUTES, TURN_HEADER, type AnswerOf, type AnyCall, type CallOf, type RouteName } from '#shared/api'
import type { Refusal } from '#shared/contracts'
import { wording } from './worded'

let units: QuantityWords = PLAIN_WORDS
/** Refusals are worded so from now on: figures by name, and those that a rule's own sentence holds, in the household's units. */
export function speakIn(words: QuantityWords, ofText: ((text: string) => string) | undefined): void {
  units = words
  wording.value = ofText
}

/** The server refused: nothing was written. `problems` name the fields. */
export class Refused extends Error {
  readonly status: number
  readonly problems: Refusal['problems']

  constructor(refusal: Refusal) {
    const problems = refusal.problems.map(problem => ({
      ...problem,
      message: problem.template ? wordsOf(problem, units) : (wording.value?.(problem.message) ?? problem.message),
    }))
    super(problems.length > 0 && refusal.statusCode === 422 ? problems.map(problem => problem.message).join(' ') : refusal.message)
    this.name = 'Refused'
    this.status = refusal.statusCode
    this.problems = problems
  }
}

/** The server was not reached, or gave no sense. What was to be written waits. */
export class OutOfTouch extends Error {
  constructor() {
    super('Dulse’s server cannot be reached.')
    this.name = 'OutOfTouch'
  }
}

/** The server was reached, and failed at this one: what else there is to say to it may go well. */
export class Failed extends OutOfTouch {
  constructor(readonly status: number) {
    super()
    this.name = 'Failed'
    this.message = 'Dulse’s server failed at this.'
  }
}

/** Since when the server has been out of reach, as the answers say that the browser kept; undefined while it is there. */
export const keptSince = ref<number>()

/** This device has to sign in first. What was to be written waits meanwhile. */
export const signedOut = ref(false)

/** By this the server says who asks, and a page under whose name what it sends was written. */
const DEVICE_HEADER = 'dulse-device'
const DEVICE_KEY = 'dulse.device'
/** The device that the server last knew this browser as, a reload and an hour out of reach later too; undefined on its own machine. */
export const signedInAs = ref(globalThis.localStorage?.getItem(DEVICE_KEY) ?? undefined)
watch(
  signedInAs,
  id => (id === undefined ? globalThis.localStorage?.removeItem(DEVICE_KEY) : globalThis.localStorage?.setItem(DEVICE_KEY, id)),
  { flush: 'sync' },
)

const PATIENCE_MS = 10_000

/**
 * One request to Dulse's own server; a body of bytes goes as it is.
 * @throws Refused with the fields that are wrong; OutOfTouch when no answer came, Failed when it was none; the signal's own reason once it
 * was called off
 */
export async function callServer(
  path: string,
  init: {
    method?: 'GET' | 'POST' | 'PUT' | 'DELETE'
    body?: unknown
    signal?: AbortSignal
    by?: string
    /** Hears of which turn of the log the answer is. */
    ofTurn?: (turn: number) => void
  } = {},
): Promise<unknown> {
  const patience = AbortSignal.timeout(PATIENCE_MS)
  let response: Response
  try {
    response = await fetch(path, {
      method: init.method ?? 'GET',
      headers: {
        ...(init.body !== undefined && { 'content-type': init.body instanceof Blob ? init.body.type : 'application/json' }),
        ...(init.by && { [DEVICE_HEADER]: init.by }),
      },
      body: init.body === undefined || init.body instanceof Blob ? init.body : JSON.stringify(init.body),
      signal: init.signal ? AbortSignal.any([init.signal, patience]) : patience,
    })
  } catch {
    // Nobody wants the answer any more: that is no failure of the server's.
    if (init.signal?.aborted) throw init.signal.reason
    throw new OutOfTouch()
  }
  signedInAs.value = response.headers.get(DEVICE_HEADER) ?? signedInAs.value
  const answer = (await response.json().catch(() => undefined)) as unknown
  if (response.ok) {
    init.ofTurn?.(Number(response.headers.get(TURN_HEADER) ?? 0))
    const kept = Number(response.headers.get(KEPT_HEADER) ?? Number.NaN)
    keptSince.value = Number.isNaN(kept) ? undefined : Math.min(kept, keptSince.value ?? kept)
    return answer
  }
  if (response.status === 401) {
    signedOut.value = true
    throw new OutOfTouch()
  }
  if (response.status >= 500 || !(answer as Partial<Refusal> | undefined)?.problems) throw new Failed(response.status)
  throw new Refused(answer as Refusal)
}

/** Arguments of a call: none where a route asks for none. */
export type Given<Name extends RouteName> = object extends CallOf<Name> ? [given?: CallOf<Name>] : [given: CallOf<Name>]

/**
 * Calls a route by its name.
 * @throws Refused, OutOfTouch, Failed
 */
export function call<Name extends RouteName>(name: Name, ...[given]: Given<Name>): Promise<AnswerOf<Name>> {
  const { method } = ROUTES[name]
  return callServer(addressOf(name, given as AnyCall), { method, body: (given as AnyCall)?.body }) as Promise<AnswerOf<Name>>
}
