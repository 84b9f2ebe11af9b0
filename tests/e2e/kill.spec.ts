import { expect, test } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { startDulse } from './support/server'

test('killing the server while it writes loses nothing that it acknowledged', async () => {
  let server = await startDulse()
  const batchId = uuidv7()
  const post = (path: string, body: unknown) =>
    fetch(server.address + path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  const begin = {
    id: batchId,
    entry: {
      id: uuidv7(),
      at: Date.now() - 1000,
      body: { kind: 'intake', foodKey: 'kale', source: 'Garden', weightG: 900, purpose: 'powder', cardKey: 'leaves' },
    },
  }
  expect((await post('/api/batches', begin)).ok).toBe(true)

  const acknowledged: string[] = []
  let sent = 0
  for (let round = 0; round < 4; round++) {
    // Several writers at once, and the blow in the middle of it.
    let alive = true
    const writers = Array.from({ length: 6 }, async () => {
      while (alive) {
        const id = uuidv7()
        sent++
        const answer = await post(`/api/batches/${batchId}/entries`, {
          id,
          at: Date.now() - 500,
          body: { kind: 'note', text: `note ${id}` },
        }).catch(() => undefined)
        if (answer?.ok) acknowledged.push(id)
        else alive = false
      }
    })
    // Not after a time but after some writes: a busy machine is struck in the middle of it too.
    const before = acknowledged.length
    while (acknowledged.length < before + 14) await new Promise(resolve => setTimeout(resolve, 10))
    await server.kill()
    alive = false
    await Promise.all(writers)
    server = await startDulse(server.folder)
  }

  const { entries } = (await (await fetch(`${server.address}/api/batches/${batchId}`)).json()) as {
    entries: { id: string; body: { text?: string } }[]
  }
  await server.stop()
  const kept = new Set(entries.map(entry => entry.id))
  expect(acknowledged.length).toBeGreaterThan(40)
  expect(acknowledged.filter(id => !kept.has(id))).toEqual([])
  // At most what was in the air may have arrived without an answer.
  expect(kept.size).toBeLessThanOrEqual(sent + 1)
  for (const entry of entries.slice(1)) expect(entry.body.text).toBe(`note ${entry.id}`)
})
