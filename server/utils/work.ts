import { allOrNothing, Stopped, type Progress } from '#server/import/apart'
import type { Context } from '#server/services/context'
import type { H3Event } from 'h3'
import type { WorkLine } from '#shared/contracts'

/**
 * Long work as a stream of lines of JSON: where it is, and at last what came of it or why it was refused. Whoever
 * hangs up stops it, and nothing is written.
 */
export async function workInLines<Answer>(
  event: H3Event,
  context: Context,
  work: (apart: Context) => Generator<Progress, Answer>,
  keep: (answer: Answer) => boolean,
): Promise<void> {
  const { res } = event.node
  const stop = new AbortController()
  res.once('close', () => stop.abort())
  setResponseHeader(event, 'content-type', 'application/x-ndjson; charset=utf-8')
  setResponseHeader(event, 'cache-control', 'no-store')
  const tell = (line: WorkLine<Answer>) => void res.write(`${JSON.stringify(line)}\n`)
  try {
    const answer = await allOrNothing(context, work, keep, progress => tell({ progress }), stop.signal)
    tell({ answer, written: keep(answer) })
  } catch (error) {
    if (error instanceof Stopped) return
    const refusal = refusalOf(error)
    if (refusal.statusCode === 500) console.error(error)
    tell({ refused: { ...refusal, problems: refusal.problems.slice(0, 50) } })
  } finally {
    res.end()
  }
}
