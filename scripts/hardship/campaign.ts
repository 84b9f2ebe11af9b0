import { uuidv7 } from 'uuidv7'
import type { RunningServer } from '../../tests/e2e/support/server'

/** What a campaign found: its figures in a line, and each fault in words. */
export interface Found {
  figures: string
  faults: string[]
}
/** @param size how many blows, inputs, files or lines */
export type Campaign = (size: number) => Promise<Found>

/** Whoever hangs longer than this is not answered. */
export const PATIENCE_MS = 10_000

export const send = (server: RunningServer, method: string, path: string, body?: unknown, more: Record<string, string> = {}) =>
  fetch(server.address + path, {
    method,
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...more },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
    signal: AbortSignal.timeout(PATIENCE_MS),
  })

/** A basket of kale, which any Dulse knows. */
export async function beginBatch(server: RunningServer, at = Date.now() - 3_600_000): Promise<string> {
  const id = uuidv7()
  const body = { kind: 'intake', foodKey: 'kale', source: 'Garden', weightG: 900, purpose: 'powder', cardKey: 'leaves' }
  const answer = await send(server, 'POST', '/api/batches', { id, entry: { id: uuidv7(), at, body } })
  if (!answer.ok) throw new Error(await answer.text())
  return id
}
export const note = (server: RunningServer, batchId: string, text: string, at = Date.now() - 500) =>
  send(server, 'POST', `/api/batches/${batchId}/entries`, { id: uuidv7(), at, body: { kind: 'note', text } })

export async function notesOf(server: RunningServer, batchId: string): Promise<string[]> {
  const { entries } = (await (await send(server, 'GET', `/api/batches/${batchId}`)).json()) as { entries: { body: { text?: string } }[] }
  return entries.flatMap(({ body }) => body.text ?? [])
}

export const quantile = (values: readonly number[], p: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(p * values.length))] ?? 0
