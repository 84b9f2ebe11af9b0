import { uuidv7 } from 'uuidv7'
import { randomSource } from '#core/stats'
import { startDulse } from '../../tests/e2e/support/server'
import { beginBatch, notesOf, send, type Found } from './campaign'

/** Six write; the server is struck down amid it and started again, so many times: what it acknowledged must be there. */
export async function kills(size: number): Promise<Found> {
  const { uniform: random } = randomSource(17)
  let server = await startDulse()
  let batchId = await beginBatch(server)
  const acknowledged = new Map<string, string[]>([[batchId, []]])
  const faults: string[] = []
  for (let blow = 0; blow < size; blow++) {
    // A log that grows without end would measure its own length.
    if (blow % 40 === 39) {
      batchId = await beginBatch(server)
      acknowledged.set(batchId, [])
    }
    const mine = acknowledged.get(batchId)!
    let alive = true
    const writers = Array.from({ length: 6 }, async () => {
      while (alive) {
        const text = `note ${uuidv7()}`
        const answer = await send(server, 'POST', `/api/batches/${batchId}/entries`, {
          id: uuidv7(),
          at: Date.now() - 500,
          body: { kind: 'note', text },
        }).catch(() => undefined)
        if (answer?.ok) mine.push(text)
        else alive = false
      }
    })
    const before = mine.length
    const enough = 1 + Math.floor(random() * 8)
    while (alive && mine.length < before + enough) await new Promise(resolve => setTimeout(resolve, 2))
    await new Promise(resolve => setTimeout(resolve, random() * 8))
    await server.kill()
    alive = false
    await Promise.all(writers)
    server = await startDulse(server.folder)
  }
  let count = 0
  for (const [id, texts] of acknowledged) {
    const kept = new Set(await notesOf(server, id))
    count += texts.length
    for (const text of texts) if (!kept.has(text)) faults.push(`“${text}” was acknowledged and is gone`)
  }
  await server.stop()
  return { figures: `${size} kills, ${count} entries acknowledged, ${faults.length} lost`, faults }
}
