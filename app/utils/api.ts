import type { Refusal } from '#shared/contracts'

/** The server refused: nothing was written. `problems` name the fields. */
export class Refused extends Error {
  readonly status: number
  readonly problems: Refusal['problems']

  constructor(refusal: Refusal) {
    super(refusal.message)
    this.name = 'Refused'
    this.status = refusal.statusCode
    this.problems = refusal.problems
  }
}

/** The server was not reached, or gave no sense. What was to be written waits. */
export class OutOfTouch extends Error {
  constructor() {
    super('Dulse’s server cannot be reached.')
    this.name = 'OutOfTouch'
  }
}

const PATIENCE_MS = 10_000

/**
 * One request to Dulse's own server.
 * @throws Refused with the fields that are wrong; OutOfTouch when no answer came.
 */
export async function callServer<Answer>(
  path: string,
  init: { method?: 'GET' | 'POST' | 'PUT' | 'DELETE'; body?: unknown } = {},
): Promise<Answer> {
  let response: Response
  try {
    response = await fetch(path, {
      method: init.method ?? 'GET',
      headers: init.body === undefined ? undefined : { 'content-type': 'application/json' },
      body: init.body === undefined ? undefined : JSON.stringify(init.body),
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
  } catch {
    throw new OutOfTouch()
  }
  const answer = await response.json().catch(() => undefined)
  if (response.ok) return answer as Answer
  if (response.status >= 500 || !answer?.problems) throw new OutOfTouch()
  throw new Refused(answer as Refusal)
}
