import { writeFileSync } from 'node:fs'
import { uuidv7 } from 'uuidv7'
import { randomSource } from '#core/stats'
import { startDulse } from '../../tests/e2e/support/server'
import { movedClock } from '../../tests/e2e/support/clock'
import { beginBatch, send, type Found } from './campaign'

const DAY = 86_400_000

/** The server's clock jumps by up to three days either way while notes come in, dated rightly: none is dated anew, and none lost. */
export async function clocks(size: number): Promise<Found> {
  const { uniform: random } = randomSource(23)
  const clock = movedClock()
  const server = await startDulse(undefined, undefined, undefined, clock.env)
  const batchId = await beginBatch(server, Date.now() - 8 * DAY)
  const faults: string[] = []
  const sent = new Map<string, { at: number; taken: boolean }>()
  let waited = 0
  const post = (id: string, at: number) =>
    send(server, 'POST', `/api/batches/${batchId}/entries`, { id, at, body: { kind: 'note', text: id } })
  for (let i = 0; i < size; i++) {
    if (i % 5 === 0) writeFileSync(clock.path, String(Math.round((random() - 0.5) * 6 * DAY)))
    const [id, at] = [uuidv7(), Date.now() - 1000]
    const answer = await post(id, at)
    const told = answer.ok ? undefined : ((await answer.json()) as { problems: { code: string }[] })
    if (told && !told.problems.every(problem => problem.code === 'in-future'))
      faults.push(`a note was refused with ${JSON.stringify(told).slice(0, 200)}`)
    sent.set(id, { at, taken: answer.ok })
    const health = (await (await send(server, 'GET', '/api/health')).json()) as { now: number }
    const off = Math.abs(health.now - Date.now()) - Math.abs(Number(clock.read()))
    if (Math.abs(off) > 5000) faults.push(`the server does not tell its clock: off by ${off} ms of what it is`)
    if (!(await send(server, 'GET', '/api/now')).ok) faults.push('Now was not answered')
  }
  clock.set(0)
  for (const [id, note] of sent)
    if (!note.taken) {
      waited++
      if (!(await post(id, note.at)).ok) faults.push(`${id} is not let in with the clock right`)
    }
  const { entries } = (await (await send(server, 'GET', `/api/batches/${batchId}`)).json()) as { entries: { id: string; at: number }[] }
  const there = new Map(entries.map(entry => [entry.id, entry.at]))
  for (const [id, { at }] of sent) if (there.get(id) !== at) faults.push(`${id} was of ${at} and is of ${there.get(id)}`)
  await server.stop()
  return {
    figures: `${size} notes over ${Math.ceil(size / 5)} jumps, ${waited} waited for the clock and were let in, ${faults.length} faults`,
    faults,
  }
}
