import { uuidv7 } from 'uuidv7'
import { createPinia, setActivePinia } from 'pinia'
import { useOutboxStore } from '../../../app/stores/outbox'

type Answer = 'good' | 'away' | 'broken' | { refused: string }
let answers: Answer[] = []
const sent: string[] = []
const memory = new Map<string, string>()
Object.assign(globalThis, {
  fetch: (path: string, init: { body?: string }) => {
    const answer = answers.shift() ?? 'good'
    if (answer === 'away') return Promise.reject(new TypeError('fetch failed'))
    sent.push(`${path} ${(JSON.parse(init.body!) as { id: string }).id}`)
    if (answer === 'broken') return Promise.resolve(new Response('<html>', { status: 502 }))
    if (answer === 'good') return Promise.resolve(Response.json({ repeated: false }))
    return Promise.resolve(
      Response.json(
        { statusCode: 422, message: answer.refused, problems: [{ field: 'totalG', message: answer.refused }] },
        { status: 422 },
      ),
    )
  },
  // A browser's storage lists its keys like any object.
  localStorage: new Proxy(
    {
      getItem: (key: string) => memory.get(key) ?? null,
      setItem: (key: string, value: string) => void memory.set(key, value),
      removeItem: (key: string) => void memory.delete(key),
    },
    { ownKeys: () => [...memory.keys()], getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }) },
  ),
})

/** The page opened anew: stores forget, the memory stays. */
function openPage() {
  setActivePinia(createPinia())
  return useOutboxStore()
}
const item = () => ({
  path: '/api/batches/b/entries',
  batchId: 'b',
  words: 'a weight',
  body: { id: uuidv7(), at: 1, body: { kind: 'weigh' as const, totalG: 700 } },
})

beforeEach(() => {
  jest.useFakeTimers()
  memory.clear()
  sent.length = 0
  answers = []
})
afterEach(() => jest.useRealTimers())

describe('the outbox', () => {
  it('sends at once and keeps nothing', async () => {
    const box = openPage()
    expect(await box.send(item())).toBe('arrived')
    expect(sent).toHaveLength(1)
    expect(memory.size).toBe(0)
    expect(box.waiting).toEqual([])
  })
  it('keeps what does not arrive, in the browser’s memory too, and sends it again in order', async () => {
    const box = openPage()
    const [first, second] = [item(), item()]
    answers = ['away', 'away']
    expect(await box.send(first)).toBe('waits')
    expect(await box.send(second)).toBe('waits')
    expect(box.away).toBe(true)
    expect(memory.size).toBe(2)
    await jest.advanceTimersByTimeAsync(4100)
    expect(sent).toEqual([first, second].map(({ path, body }) => `${path} ${body.id}`))
    expect(box.away).toBe(false)
    expect(memory.size).toBe(0)
  })
  it('takes a server that talks nonsense for one that is away', async () => {
    const box = openPage()
    answers = ['broken']
    expect(await box.send(item())).toBe('waits')
    expect(box.away).toBe(true)
  })
  it('gives a refusal back to who sent it, and goes on', async () => {
    const box = openPage()
    answers = [{ refused: 'Was the tray on the scale?' }]
    await expect(box.send(item())).rejects.toMatchObject({
      name: 'Refused',
      message: 'Was the tray on the scale?',
      problems: [{ field: 'totalG' }],
    })
    expect(box.waiting).toEqual([])
    expect(memory.size).toBe(0)
    expect(await box.send(item())).toBe('arrived')
  })
  it('remembers what waited when the page is opened again, oldest first', async () => {
    const box = openPage()
    const [first, second] = [item(), item()]
    answers = ['away', 'away']
    await box.send(first)
    await box.send(second)
    memory.set('dulse.outbox.zz', 'not JSON')
    const again = openPage()
    await again.flush()
    expect(sent).toEqual([first, second].map(({ path, body }) => `${path} ${body.id}`))
  })
  it('keeps a late refusal for the banner when nobody waits for it any more', async () => {
    const box = openPage()
    answers = ['away', { refused: 'Too late.' }]
    await box.send(item())
    await jest.advanceTimersByTimeAsync(4100)
    expect(box.refused.map(no => no.refusal.message)).toEqual(['Too late.'])
    box.dismiss(box.refused[0]!)
    expect(box.refused).toEqual([])
  })
  it('does not overwrite what another open page keeps', async () => {
    const box = openPage()
    answers = ['away']
    await box.send(item())
    memory.set(`dulse.outbox.${uuidv7()}`, JSON.stringify(item()))
    await jest.advanceTimersByTimeAsync(4100)
    expect(memory.size).toBe(1)
  })
})
