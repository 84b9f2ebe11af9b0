import { expect, test } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { startDulse, type RunningServer } from './server'

/** What the tests of the server's addresses begin with: a server of its own, one batch in a machine. */
export const api = {} as {
  server: RunningServer
  batchId: string
  machine: { id: string; version: number }
  household: Record<string, unknown>
}
export const runId = uuidv7()
export const now = () => Date.now()

export const send = (method: string, path: string, body?: unknown, type = 'application/json') =>
  fetch(api.server.address + path, {
    method,
    headers: body === undefined ? {} : { 'content-type': type },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  })
export const entry = (body: unknown, more: object = {}) => ({ id: uuidv7(), at: now() - 1000, body, ...more })
export const intake = { kind: 'intake', foodKey: 'beetroot', source: 'Market', weightG: 2000, purpose: 'powder', cardKey: 'slices-3' }
export const NOBODY = uuidv7()
export const OCA = {
  key: 'oca',
  name: 'Oca',
  family: 'root',
  water: '83 ± 2',
  trim: '10 ± 4',
  waits: 20,
  colour: '#D2A05A',
  forms: { 'slices 3': '7 to 12' },
}
export const log = async () => (await send('GET', '/api/export.csv')).text()

/** Begins a server before a file's tests, and ends it after them. */
export function useApi(): void {
  test.beforeAll(async () => {
    api.server = await startDulse()
    api.batchId = uuidv7()
    const [{ hoursRun: _, upkeep: __, evenness: ___, ...settings }] = (await (await send('GET', '/api/machines')).json()) as [
      Record<string, unknown>,
    ]
    api.machine = settings as typeof api.machine
    api.household = (await (await send('GET', '/api/household')).json()) as typeof api.household
    const at = now() - 5 * 3_600_000
    for (const [path, body] of [
      ['/api/batches', { id: api.batchId, entry: entry(intake, { at: at - 1000 }) }],
      [
        `/api/batches/${api.batchId}/entries`,
        entry({ kind: 'load', runId, machineId: api.machine.id, positions: [1, 2], totalG: 1700 }, { at }),
      ],
      [`/api/runs/${runId}/entries`, entry({ kind: 'heat', runId, setC: 57 }, { at })],
    ] as const)
      expect((await send('POST', path, body)).status).toBe(200)
  })
  test.afterAll(() => api.server.stop())
}

export const entries = () => `/api/batches/${api.batchId}/entries`
/** A request that makes no sense, and what is said of it. */
export interface Bad {
  name: string
  method: string
  path: () => string
  body?: () => unknown
  type?: string
  status: number
  words: RegExp
}
/** Each is refused by field and mend, in one shape, and leaves the log as it was. */
export function refuses(list: readonly Bad[]): void {
  for (const bad of list) {
    test(`refuses ${bad.name}`, async () => {
      const before = await log()
      const answer = await send(bad.method, bad.path(), bad.body?.(), bad.type)
      const text = await answer.text()
      expect(answer.status).toBe(bad.status)
      expect(text).toMatch(bad.words)
      const refusal = JSON.parse(text) as { statusCode: number; message: string; problems: unknown[] }
      expect(refusal.statusCode).toBe(bad.status)
      expect(refusal.message.length).toBeGreaterThan(5)
      expect(text).not.toMatch(/node_modules|at .*\.mjs/)
      expect(await log()).toBe(before)
    })
  }
}
