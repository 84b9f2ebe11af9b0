import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { uuidv7 } from 'uuidv7'
import type { NewEntry } from '#shared/contracts'
import { signedInAs } from '../../../app/data/call'
import { useOutboxStore } from '../../../app/data/outbox'
import type { Sent } from '../../../app/data/parcel'
import * as shelf from '../../../app/data/outboxShelf'

type Answer = 'good' | 'away' | 'broken' | { refused: string; field?: string; code?: string }
let answers: Answer[] = []
const sent: string[] = []
const bodies: object[] = []
const headers: object[] = []
const memory = new Map<string, string>()
Object.assign(globalThis, {
  BroadcastChannel: undefined,
  fetch: (path: string, init: { body?: string; headers?: object }) => {
    headers.push(init.headers ?? {})
    const answer = answers.shift() ?? 'good'
    if (answer === 'away') return Promise.reject(new TypeError('fetch failed'))
    const body = JSON.parse(init.body!) as { id?: string; entries?: unknown[] }
    bodies.push(body)
    sent.push(`${path} ${body.id ?? body.entries!.length}`)
    if (answer === 'broken') return Promise.resolve(new Response('<html>', { status: 502 }))
    if (answer === 'good') return Promise.resolve(Response.json({ repeated: false }))
    const problems = [
      {
        field: answer.field ?? 'totalG',
        code: answer.code ?? 'x',
        message: answer.refused,
        template: 'Only {leftG} left.',
        quantities: { leftG: 5 },
      },
    ]
    return Promise.resolve(Response.json({ statusCode: 422, message: answer.refused, problems }, { status: 422 }))
  },
  localStorage: new Proxy(
    {
      getItem: (key: string) => memory.get(key) ?? null,
      setItem: (key: string, value: string) => void memory.set(key, value),
      removeItem: (key: string) => void memory.delete(key),
    },
    { ownKeys: () => [...memory.keys()], getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }) },
  ),
})

/** The page opened anew: stores forget, the browser's storage stays. */
async function openPage() {
  setActivePinia(createPinia())
  const box = useOutboxStore()
  await box.opened
  return box
}
const weight = (batchId = 'b'): { batchId: string; entry: NewEntry } => ({
  batchId,
  entry: { id: uuidv7(), at: 1, body: { kind: 'weigh', totalG: 700 } },
})
const line = (item: { batchId: string; entry: NewEntry }) => `/api/batches/${item.batchId}/entries ${item.entry.id}`
const kept = () => shelf.keptParcels()
const later = () => jest.advanceTimersByTimeAsync(4100)

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] })
  memory.clear()
  sent.length = 0
  answers = []
  for (const parcel of await kept()) await shelf.dropParcel(parcel.id)
})
afterEach(() => {
  jest.useRealTimers()
  jest.restoreAllMocks()
})
/** Timers are turned by hand, the storage works on its own: waits until it holds. */
async function until(holds: () => boolean | Promise<boolean>) {
  for (let i = 0; i < 200; i++) {
    if (await holds()) return
    await new Promise(setImmediate)
  }
  throw new Error('It never came to hold.')
}

describe('the outbox', () => {
  it('sends at once and keeps nothing', async () => {
    const box = await openPage()
    expect(await box.send(weight(), 'a weight')).toBe('arrived')
    expect(sent).toHaveLength(1)
    expect(await kept()).toEqual([])
    expect(box.waiting).toEqual([])
  })
  it('keeps what arrived in sight for a minute: a page that has not looked again shows the log as it is', async () => {
    const box = await openPage()
    const one = weight()
    await box.send(one, 'a weight')
    expect(box.arrived.map(parcel => parcel.id)).toEqual([one.entry.id])
    answers = [{ refused: 'Was the tray on the scale?' }]
    await expect(box.send(weight(), 'a weight')).rejects.toThrow()
    expect(box.arrived).toHaveLength(1)
    await jest.advanceTimersByTimeAsync(61_000)
    expect(box.arrived).toEqual([])
  })
  it('sends what belongs together as one', async () => {
    const box = await openPage()
    expect(
      await box.sendTogether(
        [weight(), { runId: 'r', entry: { id: uuidv7(), at: 1, body: { kind: 'heat', runId: 'r', setC: 57 } } }],
        'both',
      ),
    ).toBe('arrived')
    expect(sent).toEqual(['/api/log 2'])
  })
  it('keeps what does not arrive, in the browser’s storage too, and sends it again in order', async () => {
    const box = await openPage()
    const [first, second] = [weight(), weight()]
    answers = ['away', 'away']
    expect(await box.send(first, 'a weight')).toBe('waits')
    expect(await box.send(second, 'a weight')).toBe('waits')
    expect(box.away).toBe(true)
    expect((await kept()).map(parcel => parcel.id)).toEqual([first.entry.id, second.entry.id])
    await later()
    await until(async () => (await kept()).length === 0)
    expect(sent).toEqual([line(first), line(second)])
    expect(box.away).toBe(false)
  })
  it('gives a refusal back to who sent it, in the household’s words, and goes on', async () => {
    const box = await openPage()
    answers = [{ refused: 'Was the tray on the scale?' }]
    await expect(box.send(weight(), 'a weight')).rejects.toMatchObject({
      name: 'Refused',
      message: 'Only 5 g left.',
      problems: [{ field: 'totalG', code: 'x' }],
    })
    expect(box.parcels).toEqual([])
    expect(await kept()).toEqual([])
    expect(await box.send(weight(), 'a weight')).toBe('arrived')
  })
  it('remembers what waited when the page is opened again, oldest first', async () => {
    const box = await openPage()
    const [first, second] = [weight(), weight()]
    answers = ['away', 'away']
    await box.send(first, 'a weight')
    await box.send(second, 'a weight')
    const again = await openPage()
    await again.flush()
    expect(sent).toEqual([line(first), line(second)])
  })
  it('is not jammed by what the server fails at: the rest goes on, and after three times it is set aside', async () => {
    const box = await openPage()
    const [bad, same, other] = [weight(), weight(), weight('c')]
    answers = ['broken', 'broken', 'good']
    expect(await box.send(bad, 'a weight')).toBe('waits')
    expect(await box.send(other, 'another')).toBe('arrived')
    // What is about the same batch may rest on it: it waits behind.
    answers = ['broken']
    expect(await box.send(same, 'the next')).toBe('arrived')
    expect(box.away).toBe(false)
    expect(box.aside.map(parcel => parcel.id)).toEqual([bad.entry.id])
    expect(box.aside[0]!.aside!.message).toMatch(/failed at this three times/)
    expect(sent.at(-1)).toBe(line(same))
  })
  it('keeps a late refusal in sight through reloads, to be sent again or thrown away', async () => {
    const box = await openPage()
    const item = weight()
    // Nobody else logged anything meanwhile: the server does not keep it beside the log.
    answers = ['away', { refused: 'Too late.' }, { refused: 'Nobody else.' }]
    await box.send(item, 'a weight')
    await later()
    await until(() => box.aside.length === 1)
    const again = await openPage()
    expect(again.aside.map(parcel => [parcel.words, parcel.aside!.problems[0]!.message])).toEqual([['a weight', 'Only 5 g left.']])
    expect(sent).toHaveLength(2)
    answers = [{ refused: 'Still.' }, { refused: 'Nobody else.' }]
    await again.sendAgain(again.aside[0]!)
    expect(again.aside).toHaveLength(1)
    await again.sendAgain(again.aside[0]!)
    expect(again.parcels).toEqual([])
    expect(await kept()).toEqual([])
  })
  it('hands what came too late to the log, where another wrote in it meanwhile: with what was said, when, and why not', async () => {
    const box = await openPage()
    const item = weight()
    answers = ['away', { refused: 'The batch is not in a machine.' }, 'good']
    await box.send(item, 'a weight')
    await later()
    await until(() => box.parcels.length === 0)
    const late = bodies.at(-1) as { id: string; at: number; body: { kind: string; said: unknown; wroteAt: number; because: string } }
    expect(late.id).not.toBe(item.entry.id)
    expect(late.at).toBe(item.entry.at)
    expect(late.body).toMatchObject({ kind: 'unsettled', said: item.entry.body, because: 'Only 5 g left.' })
    // Its id says when it was made.
    expect(Math.abs(late.body.wroteAt - Date.now())).toBeLessThan(60_000)
    expect(await kept()).toEqual([])
  })
  it('waits with what has not happened yet by the server’s clock, and is let in when that is right', async () => {
    const box = await openPage()
    const item = weight()
    const ahead = { refused: 'In the future.', field: 'at', code: 'in-future' }
    answers = [ahead, ahead]
    expect(await box.send(item, 'a weight')).toBe('waits')
    await later()
    expect(box.waiting.map(parcel => parcel.clock)).toEqual([true])
    expect(box.aside).toEqual([])
    await later()
    await until(() => box.parcels.length === 0)
    expect(new Set(sent)).toEqual(new Set([line(item)]))
    // What was typed as of tomorrow is wrong by this device's clock too: that is said at once.
    answers = [ahead]
    const typed = { ...weight(), entry: { ...weight().entry, at: Date.now() + 86_400_000 } }
    await expect(box.send(typed, 'a weight')).rejects.toMatchObject({ problems: [{ field: 'at' }] })
  })
  it('throws away what a hand throws away', async () => {
    const box = await openPage()
    answers = ['away', { refused: 'No.' }, { refused: 'Nobody else.' }]
    await box.send(weight(), 'a weight')
    await later()
    await until(() => box.aside.length === 1)
    await box.throwAway(box.aside[0]!)
    expect((await openPage()).parcels).toEqual([])
  })
  it('with storage full says so and sends straight away, under the id that it has', async () => {
    const box = await openPage()
    const full = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    const item: Sent = weight()
    answers = ['away']
    expect(await box.send(item, 'a weight')).toBe('waits')
    expect(box.full).toBe(true)
    expect(box.waiting).toHaveLength(1)
    await later()
    await until(() => box.waiting.length === 0)
    expect(sent).toEqual([line(item)])
    expect(box.full).toBe(false)
    full.mockRestore()
  })
  it('keeps what another tab keeps', async () => {
    const box = await openPage()
    const [mine, other] = [weight(), weight()]
    answers = ['away']
    await box.send(mine, 'mine')
    await shelf.keepParcel({ id: other.entry.id, items: [other], about: 'b', words: 'the other’s', failures: 0 })
    await later()
    await until(async () => (await kept()).length === 1)
    expect((await kept())[0]!.words).toBe('the other’s')
  })
})

describe('what was written stays with who wrote it', () => {
  it('goes under the name of its device, and where another is signed in it is set aside in sight, not sent as theirs', async () => {
    memory.set('dulse.device', 'old')
    signedInAs.value = 'first'
    const box = await openPage()
    answers = ['away']
    const mine = weight()
    expect(await box.send(mine, 'my weight')).toBe('waits')
    signedInAs.value = 'second'
    answers = [{ refused: 'Written under an earlier sign-in.', field: 'who', code: 'another-writer' }]
    await box.flush()
    expect(headers.at(-1)).toMatchObject({ 'dulse-device': 'first' })
    expect(box.aside.map(parcel => parcel.words)).toEqual(['my weight'])
    // Whoever sends it then takes it over.
    answers = ['good']
    await box.sendAgain(box.aside[0]!)
    expect(headers.at(-1)).toMatchObject({ 'dulse-device': 'second' })
    expect(box.parcels).toEqual([])
    signedInAs.value = undefined
    expect(memory.has('dulse.device')).toBe(false)
  })
})
