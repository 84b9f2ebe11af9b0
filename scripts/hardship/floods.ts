import { readFileSync } from 'node:fs'
import { Agent, request } from 'node:https'
import { connect as connectTls } from 'node:tls'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import { startDulse } from '../../tests/e2e/support/server'
import { openHouse } from '../../tests/e2e/support/house'
import { beginBatch, quantile, send, type Found } from './campaign'

/** A write is answered within this at p95, whatever others in the house do meanwhile. */
const MOST_MS = 200

/**
 * From one address of the house: event streams without end, connections that send a letter now and then, and reading as fast as answers
 * come. Another writes meanwhile; so does this machine itself.
 */
export async function floods(size: number): Promise<Found> {
  const server = await startDulse()
  const batchId = await beginBatch(server)
  const address = new URL(await openHouse(server))
  const ca = readFileSync(join(server.folder, 'home/authority.crt'))
  const { code } = (await (await send(server, 'POST', '/api/home/codes', { role: 'cook' })).json()) as { code: string }
  const faults: string[] = []

  const at = (host: string, path: string) => ({ host, port: address.port, path, servername: 'localhost' })
  const ask = (agent: Agent, method: string, path: string, body?: unknown, cookie?: string) =>
    new Promise<{ status: number; ms: number; cookie?: string }>((resolve, reject) => {
      const begun = performance.now()
      const sent = request(
        {
          ...at(agent === own ? '::1' : '127.0.0.1', path),
          method,
          agent,
          headers: { host: address.host, ...(body ? { 'content-type': 'application/json' } : {}), ...(cookie ? { cookie } : {}) },
        },
        answer => {
          answer.resume().once('end', () =>
            resolve({
              status: answer.statusCode!,
              ms: performance.now() - begun,
              cookie: answer.headers['set-cookie']?.[0]?.split(';')[0],
            }),
          )
        },
      )
      sent.setTimeout(10_000, () => sent.destroy(new Error('hung')))
      sent.once('error', reject).end(body === undefined ? undefined : JSON.stringify(body))
    })
  // The flood comes by IPv4, whoever writes by IPv6: two addresses of one machine.
  const flood = new Agent({ ca, keepAlive: true, maxSockets: Infinity })
  const own = new Agent({ ca, keepAlive: true })
  const { cookie } = await ask(own, 'POST', '/api/home/pair', { code, name: 'Phone' })
  const write = () =>
    ask(
      own,
      'POST',
      `/api/batches/${batchId}/entries`,
      { id: uuidv7(), at: Date.now() - 500, body: { kind: 'note', text: 'amid it' } },
      cookie,
    )
  const measure = async (count: number) => {
    const house: number[] = []
    const here: number[] = []
    for (let i = 0; i < count; i++) {
      const told = await write().catch((error: Error) => ({ status: 0, ms: 10_000, words: error.message }))
      if (told.status !== 200) faults.push(`a write of another was answered with ${told.status} ${'words' in told ? told.words : ''}`)
      house.push(told.ms)
      const begun = performance.now()
      const answer = await send(server, 'POST', `/api/batches/${batchId}/entries`, {
        id: uuidv7(),
        at: Date.now() - 500,
        body: { kind: 'note', text: 'here' },
      })
      if (!answer.ok) faults.push(`a write of this machine was answered with ${answer.status}`)
      here.push(performance.now() - begun)
      await new Promise(resolve => setTimeout(resolve, 20))
    }
    return { house: quantile(house, 0.95), here: quantile(here, 0.95) }
  }
  const trace = (words: string) => process.env.TRACE && console.error(words)
  trace('begun')
  const quiet = await measure(30)
  trace('quiet')

  let open = 0
  let refused = 0
  let going = true
  const cuts: (() => void)[] = []
  // Streams, with a cookie and without one.
  for (let i = 0; i < size; i++) {
    const sent = request(
      { ...at('127.0.0.1', '/api/live'), agent: flood, headers: { host: address.host, cookie: cookie ?? '' } },
      answer => {
        if (answer.statusCode === 200) open++
        else refused++
        answer.on('data', () => undefined).once('error', () => undefined)
      },
    )
    sent.once('error', () => refused++).end()
    cuts.push(() => sent.destroy())
  }
  // Heads that never end.
  for (let i = 0; i < size / 3; i++) {
    const socket = connectTls({ host: '127.0.0.1', port: Number(address.port), ca, servername: 'localhost' }, () =>
      socket.write('GET /api/now HTTP/1.1\r\nHost: localhost'),
    )
    socket.once('error', () => undefined)
    const drip = setInterval(() => socket.write('x'), 1000)
    cuts.push(() => (clearInterval(drip), socket.destroy()))
  }
  await new Promise(resolve => setTimeout(resolve, 1500))
  // And reading without a pause.
  const readers = new Agent({ ca, keepAlive: true, maxSockets: 40 })
  let read = 0
  const reading = Array.from({ length: 40 }, async () => {
    while (going) {
      await ask(readers, 'GET', read % 2 ? '/api/insight' : `/api/batches/${batchId}`, undefined, cookie).then(
        () => read++,
        () => new Promise(resolve => setTimeout(resolve, 50)),
      )
    }
  })
  trace('amid')
  const amid = await measure(Math.min(100, Math.ceil(size / 5)))
  trace('measured')
  going = false
  await Promise.all(reading)
  trace('read')
  for (const cut of cuts) cut()
  await new Promise(resolve => setTimeout(resolve, 500))
  const after = await measure(20)
  await server.stop()
  for (const [name, ms] of Object.entries(amid)) if (ms > MOST_MS) faults.push(`a write (${name}) took ${ms.toFixed(0)} ms at p95`)
  if (open > 64) faults.push(`${open} streams of one address stood open`)
  const words = ({ house, here }: { house: number; here: number }) => `${house.toFixed(0)}/${here.toFixed(0)} ms`
  return {
    figures: `${size} streams (${open} let in, ${refused} turned away), ${Math.ceil(size / 3)} slow heads, ${read} reads: a write at p95 in the house/on this machine ${words(quiet)} before, ${words(amid)} amid, ${words(after)} after, ${faults.length} faults`,
    faults,
  }
}
