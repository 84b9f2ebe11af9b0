import { uuidv7 } from 'uuidv7'
import type { RunningServer } from './server'

const HOUR = 3_600_000

/** What stands in the log before a test begins, written through the server's own door. */
export function logged(server: () => RunningServer) {
  const call = async (method: string, path: string, body?: unknown) => {
    const answer = await fetch(server().address + path, {
      method,
      headers: { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
    return (await answer.json()) as unknown
  }
  const hoursAgo = (hours: number) => Math.round(Date.now() - hours * HOUR)
  const onBatch = (batchId: string, hours: number, body: object) =>
    call('POST', `/api/batches/${batchId}/entries`, { id: uuidv7(), at: hoursAgo(hours), body })
  const onJar = (jarId: string, hours: number, body: object) =>
    call('POST', `/api/jars/${jarId}/entries`, { id: uuidv7(), at: hoursAgo(hours), body })

  /** A basket of beetroot that has left the machine dry, so many hours ago. */
  async function dried(ago: number, more: { weightG?: number; dryG?: number; foodKey?: string; cardKey?: string } = {}): Promise<string> {
    const { weightG = 2000, dryG = 224, foodKey = 'beetroot', cardKey = 'slices-3' } = more
    const batchId = uuidv7()
    const runId = uuidv7()
    const [machine] = (await call('GET', '/api/machines')) as { id: string }[]
    await call('POST', '/api/batches', {
      id: batchId,
      entry: {
        id: uuidv7(),
        at: hoursAgo(ago + 16),
        body: { kind: 'intake', foodKey, source: 'Market', weightG, purpose: 'powder', cardKey },
      },
    })
    await onBatch(batchId, ago + 15, { kind: 'load', runId, machineId: machine!.id, positions: [1, 2], totalG: 0.85 * weightG })
    await call('POST', `/api/runs/${runId}/entries`, { id: uuidv7(), at: hoursAgo(ago + 15), body: { kind: 'heat', runId, setC: 57 } })
    for (const [at, share] of [
      [6, 1.9],
      [3, 1.2],
      [1, 1.01],
    ] as const)
      await onBatch(batchId, ago + at, { kind: 'weigh', totalG: Math.round(dryG * share) })
    await onBatch(batchId, ago, { kind: 'unload', weightG: dryG })
    return batchId
  }
  /** The same, rested, ground and packed in one jar. */
  async function packed(
    ago: number,
    more: Parameters<typeof dried>[1] & { moisture?: number } = {},
  ): Promise<{ batchId: string; jarId: string }> {
    const batchId = await dried(ago + 3, more)
    const jarId = uuidv7()
    const out = Math.round((more.dryG ?? 224) * 0.95)
    await onBatch(batchId, ago + 2, { kind: 'restEnd' })
    await onBatch(batchId, ago + 1, { kind: 'grind', dryInG: more.dryG ?? 224, powderOutG: out })
    await onBatch(batchId, ago, {
      kind: 'pack',
      jarId,
      netG: out,
      packageKey: 'screw-jar',
      place: 'Top board',
      sizeMl: 500,
      // As read in the jar’s air, so that what is reckoned with it is round.
      moisture: more.moisture ?? 0.06,
    })
    return { batchId, jarId }
  }
  return { call, onBatch, onJar, dried, packed }
}
