import { expect, test } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { api, entries, entry, log, now, send, useApi } from './support/api'

useApi()

test('a repeated write is harmless', async () => {
  const body = entry({ kind: 'weigh', totalG: 900 })
  const first = (await (await send('POST', entries(), body)).json()) as { repeated: boolean }
  const second = (await (await send('POST', entries(), body)).json()) as { repeated: boolean }
  expect([first.repeated, second.repeated]).toEqual([false, true])
  expect((await log()).split(body.id)).toHaveLength(2)
  expect((await send('POST', entries(), { ...body, body: { kind: 'weigh', totalG: 901 } })).status).toBe(409)
})

test('a device sends by JSON and by CSV, and an open line tells of it', async () => {
  const device = uuidv7()
  expect((await send('PUT', '/api/devices', { id: device, name: 'Probe', kind: 'probe', machineId: null })).status).toBe(200)
  const line = await fetch(`${api.server.address}/api/live`)
  const reader = line.body!.getReader()
  const at = now() - 60_000
  const json = (await (
    await send('POST', '/api/readings', {
      device,
      readings: [
        { channel: 'celsius', at, value: 51 },
        { channel: 'celsius', at: 'soon', value: 52 },
      ],
    })
  ).json()) as unknown
  expect(json).toEqual({
    kept: 1,
    repeated: 0,
    thinned: 0,
    refused: [{ index: 1, field: 'at', code: 'invalid-type', message: expect.any(String) }],
  })
  const csv = (await (
    await send(
      'POST',
      `/api/readings?device=${device}`,
      `channel,value,at\ncelsius,53,${new Date(at + 1000).toISOString()}\ncelsius,cold,\n`,
      'text/csv',
    )
  ).json()) as unknown
  expect(csv).toMatchObject({ kept: 1, refused: [{ index: 1, field: 'value' }] })
  let heard = ''
  while (!heard.includes('"value":53')) heard += new TextDecoder().decode((await reader.read()).value)
  expect(heard).toContain('"kind":"readings"')
  await reader.cancel()
  const [series] = (await (await send('GET', `/api/readings?device=${device}&from=${at - 1000}&to=${at + 5000}`)).json()) as {
    count: number
    points: { value: number }[]
  }[]
  expect(series!.count).toBe(2)
  expect(series!.points.map(point => point.value)).toEqual([51, 53])
})
