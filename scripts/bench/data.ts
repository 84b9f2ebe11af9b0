import { guessTable, type TableKind } from '#core/tables'
import { freePort, startServer } from '../steps.mjs'

interface Row {
  (name: string, figures: string, aim?: string): void
}
const ROWS = 50_000
const HOUR = 3_600_000

/** A list of jars as a shop or a club may keep one. */
const inventory = () =>
  [
    'Food,Weight (g),Packed,Place,Price',
    ...Array.from(
      { length: ROWS },
      (_, i) =>
        `${['Cumin', 'Beetroot', 'Tomato', 'Sweet paprika', 'Onion'][i % 5]},${20 + (i % 300)},2026-0${1 + (i % 9)}-1${i % 9},Board ${i % 40},${(i % 70) / 10}`,
    ),
  ].join('\n')

interface Batch {
  batchId: string
  number: number
  loadedG?: number
}
interface Entry {
  at: number
  body: { kind: string; totalG?: number; positions?: number[] }
}

/** Weigh-ins over the hours in the machine of every batch that was loaded. */
async function weighIns(get: (path: string) => Promise<unknown>): Promise<string> {
  const { batches } = (await get('/api/batches')) as { batches: Batch[] }
  const loaded = batches.filter(batch => batch.loadedG)
  const lines = ['batch,time,weight']
  for (const { batchId, number } of loaded) {
    const { entries } = (await get(`/api/batches/${batchId}`)) as { entries: Entry[] }
    const load = entries.findLast(entry => entry.body.kind === 'load')!
    const out =
      entries.find(entry => entry.body.kind === 'unload' && entry.at > load.at && !entry.body.positions)?.at ?? Date.now() - HOUR / 10
    const each = Math.ceil(ROWS / loaded.length)
    for (let i = 0; i < each && lines.length <= ROWS; i++)
      lines.push(
        `${number},${new Date(load.at + 1000 + ((out - load.at - 2000) * i) / each).toISOString()},${(load.body.totalG! * (1 - (0.5 * i) / each)).toFixed(1)}`,
      )
  }
  return lines.join('\n')
}

/** How long data takes out and in, over HTTP as a browser or a script sends it, and how others are served meanwhile. */
export async function benchData(folder: string, shelf: string, row: Row) {
  for (const [name, place] of [
    ['demo', folder],
    ['shelf of thousands', shelf],
  ] as const) {
    const { server, address } = await startServer(place, { port: await freePort(4600), quiet: true })
    const took = async (path: string) => {
      const times: number[] = []
      for (let i = 0; i < 12; i++) {
        const begun = performance.now()
        await (await fetch(address + path)).arrayBuffer()
        if (i > 1) times.push(performance.now() - begun)
      }
      return `p50 ${times.sort((a, b) => a - b)[5]!.toFixed(0)} ms, longest ${times.at(-1)!.toFixed(0)} ms`
    }
    row(`${name}: the kitchen’s jars`, await took('/api/kitchen'), 'under 300 ms')
    row(`${name}: whole logbook as JSON`, await took('/api/export/logbook.json'))
    row(`${name}: calendar`, await took('/api/calendar.ics'))
    row(`${name}: backup`, await took('/api/backup.sqlite'))
    server.kill()
  }
  const { server, address } = await startServer(folder, { port: await freePort(4700), quiet: true })
  const get = async (path: string) => (await fetch(address + path)).json() as Promise<unknown>
  for (const [kind, text] of [
    ['inventory', inventory()],
    ['weighIns', await weighIns(get)],
  ] as [TableKind, string][]) {
    const { settings } = guessTable(kind, text, { timeZone: 'Europe/Lisbon', unit: 'g' })
    const begun = performance.now()
    let [first, lines, longest, done] = [0, 0, 0, false]
    const others = (async () => {
      while (!done) {
        const asked = performance.now()
        await get('/api/now')
        longest = Math.max(longest, performance.now() - asked)
        await new Promise(resolve => setTimeout(resolve, 100))
      }
    })()
    const response = await fetch(`${address}/api/import/table`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ kind, text, settings }),
    })
    let last = ''
    for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
      first ||= performance.now() - begun
      lines += part.split('\n').length - 1
      last = part
    }
    done = true
    const seconds = (performance.now() - begun) / 1000
    await others
    row(`import of ${ROWS} rows, ${kind}`, `${seconds.toFixed(1)} s; told ${lines} times, first after ${first.toFixed(0)} ms`, 'under 10 s')
    row('  Now, asked meanwhile', `longest ${longest.toFixed(0)} ms`)
    if (!last.includes('"written":true')) throw new Error(last.slice(-400))
  }
  server.kill()
}
