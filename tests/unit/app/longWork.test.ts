import { OutOfTouch, Refused } from '../../../app/data/call'
import { longWork } from '../../../app/data/longWork'

/** A server that answers with these pieces, cut wherever they are cut. */
function answers(pieces: readonly string[], status = 200): void {
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      for (const piece of pieces) controller.enqueue(new TextEncoder().encode(piece))
      controller.close()
    },
  })
  global.fetch = jest.fn(() => Promise.resolve(new Response(body, { status })))
}
const { signal } = new AbortController()

describe('long work, line by line', () => {
  it('tells where it is, however the lines are cut on the way', async () => {
    answers([
      '{"progress":{"phase":"reading","done":1,"of":2}}\n{"progr',
      'ess":{"phase":"writing","done":2,"of":2}}\n{"answer":{"kept":2},"wri',
      'tten":true}\n',
    ])
    const told: string[] = []
    expect(await longWork('/x', '{}', ({ phase, done }) => told.push(`${phase} ${done}`), signal)).toEqual({
      answer: { kept: 2 },
      written: true,
    })
    expect(told).toEqual(['reading 1', 'writing 2'])
  })
  it('keeps signs of other tongues whole where a piece ends in the middle of one', async () => {
    const bytes = new TextEncoder().encode('{"answer":"Purée","written":true}\n')
    const at = bytes.indexOf(0xc3) + 1
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        controller.enqueue(bytes.slice(0, at))
        controller.enqueue(bytes.slice(at))
        controller.close()
      },
    })
    global.fetch = jest.fn(() => Promise.resolve(new Response(body)))
    expect((await longWork<string>('/x', '{}', () => {}, signal)).answer).toBe('Purée')
  })
  it('is refused with its fields, at once or on the way', async () => {
    answers(['{"statusCode":400,"message":"Choose.","problems":[{"field":"kind","message":"Choose."}]}'], 400)
    await expect(longWork('/x', '{}', () => {}, signal)).rejects.toMatchObject({ status: 400, problems: [{ field: 'kind' }] })
    answers(['{"progress":{"phase":"reading","done":1,"of":2}}\n', '{"refused":{"statusCode":422,"message":"Damaged.","problems":[]}}\n'])
    await expect(longWork('/x', '{}', () => {}, signal)).rejects.toThrow(Refused)
  })
  it('is out of touch where the line breaks off before its end', async () => {
    answers(['{"progress":{"phase":"reading","done":1,"of":2}}\n{"answ'])
    await expect(longWork('/x', '{}', () => {}, signal)).rejects.toThrow(OutOfTouch)
  })
})
