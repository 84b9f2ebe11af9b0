import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import jpeg from 'jpeg-js'
import { uuidv7 } from 'uuidv7'
import { foodBook } from '#core/foods'
import { foodSearch } from '#core/foods/search'
import { estimateDrying, estimateTrays } from '#core/kinetics'
import { learnHours } from '#core/learning'
import { Rack } from '#core/simulation'
import { randomSource } from '#core/stats'
import { reference } from '#reference'
import { makeDemo } from '../../demo/make'
import { makeTestRuns, weighTrays, weighUpTo } from '../../tests/support/dryingRuns'
import { BROWSER_ARGS, findChromium, freePort, startServer } from '../steps.mjs'
import { coldStart } from './coldStart'
import { benchData } from './data'
import { enlarge } from './enlarge'
import { follow } from './follow'
import { measureMerit } from './merit'
import { coldWeighIn, findJar, takePhotograph, walkToJar } from './person'
import { benchPlan } from './plan'
import { benchPractice, benchTry } from './practice'
import { benchShelf } from './shelf'
import { benchStream } from './stream'

const TIMES = 100
const LARGER = 100
/** Times the demo that makes a shelf of two thousand jars. */
const SHELF_TIMES = 19

const sorted = (values: number[]) => [...values].sort((a, b) => a - b)
const at = (values: number[], p: number) => sorted(values)[Math.min(values.length - 1, Math.floor(p * values.length))]!
const row = (name: string, figures: string, aim = '') => console.log(`${name.padEnd(44)} ${figures.padEnd(34)} ${aim}`)
const ms = (values: number[]) => `p50 ${at(values, 0.5).toFixed(1)} ms, p95 ${at(values, 0.95).toFixed(1)} ms`

function benchEstimate() {
  const runs = makeTestRuns(8, 3).map(run => ({ ...run.known, weighIns: weighUpTo(run, 0.9, 20) }))
  for (const run of runs) estimateDrying({ ...run, startWeightG: run.startWeightG * 1.001 })
  const times = runs.flatMap(run =>
    Array.from({ length: 3 }, (_, i) => {
      // Another load each time: what was asked before is answered from what was believed then.
      const asked = { ...run, startWeightG: run.startWeightG * (1 + 1e-6 * i) }
      const begun = performance.now()
      estimateDrying(asked)
      return performance.now() - begun
    }),
  )
  row('estimateDrying, 20 weigh-ins', `median ${at(times, 0.5).toFixed(2)} ms, p95 ${at(times, 0.95).toFixed(2)} ms`, 'median under 5 ms')
}

function benchTrays() {
  const [run] = makeTestRuns(1, 5).filter(item => item.trayStartsG.length >= 5)
  const { load } = weighTrays(run!, 0.9, 12)
  const nine = Array.from({ length: 9 }, (_, i) => ({
    position: i + 1,
    share: 1 / 9,
    weighIns: load.map(({ hours, weightG }) => ({ hours, weightG: (weightG / 9) * (1 + 0.02 * (i - 4)) })),
  }))
  const times = Array.from({ length: 20 }, () => {
    const begun = performance.now()
    estimateTrays({ ...run!.known, weighIns: load }, nine)
    return performance.now() - begun
  }).slice(3)
  row(
    'estimateTrays, 9 trays, 12 weighings each',
    `median ${at(times, 0.5).toFixed(1)} ms, p95 ${at(times, 0.95).toFixed(1)} ms`,
    'under 50 ms',
  )
}

/** The library's search at every key of words that people type, right and wrong. */
function benchSearch() {
  const { foods } = foodBook(reference)
  const search = foodSearch(foods)
  const times = ['courgette', 'zuchini', 'aubergine', 'chipotle', 'birds eye chili', 'jerusalem artichoke', 'tomatoe paste'].flatMap(
    words =>
      Array.from({ length: words.length }, (_, i) => {
        const begun = performance.now()
        search(words.slice(0, i + 1))
        return performance.now() - begun
      }),
  )
  row(
    `search among ${foods.length} foods, each key`,
    `p50 ${at(times, 0.5).toFixed(2)} ms, longest ${Math.max(...times).toFixed(1)} ms`,
    'under 50 ms',
  )
}

/** A rack of nine trays, four sizes of pieces on each, through a day on paper. */
function benchRack() {
  const times = Array.from({ length: 12 }, (_, seed) => {
    const rack = new Rack({
      trayWeightsG: Array.from({ length: 9 }, () => 400),
      solids: 0.12,
      piece: { shape: 'slab', diffusionRate: 0.5, slowing: 0.12, hardening: 0.3 },
      evaporationRate: 3,
      referenceC: 57,
      thicknessSpread: 0.15,
      traySpread: 0.08,
      seed,
    })
    const begun = performance.now()
    rack.advance(24, { setC: 57, room: { celsius: 21, humidity: 0.5 } })
    return performance.now() - begun
  }).slice(2)
  row('nine trays through 24 h on paper', ms(times), 'under 150 ms')
}

/** Three thousand finished runs in five machines, and what they say of one more. */
function benchLearning() {
  const source = randomSource(3)
  const runs = Array.from({ length: 3000 }, () => source.integer(1, 60)).map(food => ({
    machine: `machine ${source.integer(1, 5)}`,
    food: `food ${food}`,
    family: `family ${food % 12}`,
    card: source.pick(['thin', 'thick']),
    season: `quarter ${source.integer(1, 4)}`,
    cutBy: source.pick(['Wren', 'Tobin']),
    pace: Math.exp(0.2 * source.normal()),
  }))
  const times = Array.from({ length: 10 }, () => {
    const begun = performance.now()
    learnHours(runs).next(runs[0]!)
    return performance.now() - begun
  })
  row('hours learned from 3,000 runs', `p50 ${at(times, 0.5).toFixed(1)} ms, longest ${Math.max(...times).toFixed(1)} ms`, 'under 20 ms')
}

async function timed(times: number, act: () => Promise<unknown>): Promise<number[]> {
  const list: number[] = []
  for (let i = 0; i < times + 10; i++) {
    const begun = performance.now()
    await act()
    // The first ones warm the caches.
    if (i >= 10) list.push(performance.now() - begun)
  }
  return list
}

async function benchServer(folder: string, name: string) {
  const begun = performance.now()
  const port = await freePort(4300)
  const { server, address } = await startServer(folder, { port, quiet: true })
  const start = performance.now() - begun
  const get = (path: string) =>
    fetch(address + path).then(answer => {
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
      return answer.json()
    })
  const { batches } = (await get('/api/batches?stage=drying')) as { batches: { batchId: string; number: number; loadedG: number }[] }
  const [batch] = batches
  const { entries } = (await get(`/api/batches/${batch!.batchId}`)) as { entries: { body: { kind: string; totalG?: number } }[] }
  row(`${name}: start to first answer`, `${start.toFixed(0)} ms`, 'under 1000 ms')
  row(`${name}: Now`, ms(await timed(TIMES, () => get('/api/now'))), 'p95 under 20 ms')
  row(`${name}: Batch (${entries.length} entries)`, ms(await timed(TIMES, () => get(`/api/batches/${batch!.batchId}`))), 'p95 under 20 ms')
  row(`${name}: Shelf`, ms(await timed(TIMES, () => get('/api/shelf'))))
  row(`${name}: list of batches`, ms(await timed(TIMES, () => get('/api/batches'))))
  // A run of twenty weigh-ins at most, each voided again, so that the log stays as long as a real one.
  const post = (path: string, body: unknown) =>
    fetch(address + path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  const weighs: number[] = []
  for (let i = 0; i < 60; i++) {
    const id = uuidv7()
    const began = performance.now()
    const answer = await post(`/api/batches/${batch!.batchId}/entries`, {
      id,
      at: Date.now(),
      body: { kind: 'weigh', totalG: Math.round(batch!.loadedG * 0.13) },
    })
    if (i >= 5) weighs.push(performance.now() - began)
    if (!answer.ok) throw new Error(await answer.text())
    await post(`/api/batches/${batch!.batchId}/entries`, { id: uuidv7(), at: Date.now(), body: { kind: 'void', target: id } })
  }
  row(`${name}: a weigh-in, on the disk`, ms(weighs), 'p95 under 20 ms')
  const status = readFileSync(`/proc/${server.pid}/status`, 'utf8')
  row(`${name}: server memory`, `${Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024)} MB`, 'under 150 MB')
  return { server, address, batchId: batch!.batchId, loadedG: batch!.loadedG }
}

/** JavaScript that the browser fetches for a page until it is at rest, and after what is fetched ahead. */
async function benchScripts(address: string, path: string, name: string, ready: string, aim: string) {
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: BROWSER_ARGS,
  })
  const page = await browser.newPage()
  const files = new Set<string>()
  page.on('request', request => request.url().endsWith('.js') && files.add(new URL(request.url()).pathname))
  // What a page fetches ahead, when it has nothing else to do, is not part of its first load.
  await page.addInitScript(() => {
    window.requestIdleCallback = (act, options) => (options?.timeout ? Number(setTimeout(act)) : 0)
  })
  await page.goto(address + path)
  await page.locator(ready).first().waitFor()
  await page.waitForTimeout(500)
  await browser.close()
  const packed = [...files].reduce((sum, file) => sum + gzipSync(readFileSync(join('.output/public', file))).length, 0)
  row(`JavaScript for ${name}, gzip`, `${(packed / 1000).toFixed(0)} kB in ${files.size} files`, aim)
}

/** `npm run bench` measures all; `npm run bench -- stream` only one part: core, plan, practice, person, server, shelf, data or stream. */
const only = process.argv[2]
const wanted = (part: string) => only === undefined || only === part
console.log(`Node ${process.version}, ${TIMES} requests each\n`)
const folder = mkdtempSync(join(tmpdir(), 'dulse-bench-'))
if (wanted('core')) {
  benchEstimate()
  benchTrays()
  benchSearch()
  benchLearning()
  benchRack()
  benchTry(row, ms)
  const merit = measureMerit()
  row(
    `merit on ${merit.runs} simulated runs of about 12 h`,
    `right to 1 h after ${merit.weighingsToBeRight} weighings`,
    `median; window of ±1 h in ${Math.round(100 * merit.windowsOfAnHour)} % of runs`,
  )
  row('  looks a run', `${merit.looks.toFixed(1)}, by habit ${merit.looksByHabit.toFixed(1)}`, 'hourly from two thirds on')
  row('  hours dried too long', `${merit.overHours.toFixed(1)}, by habit ${merit.overHoursByHabit.toFixed(1)}`)
}
if (wanted('plan')) await benchPlan(row)
if (wanted('practice')) benchPractice(row)
if (wanted('person')) await benchPerson()
if (['server', 'stream', 'shelf', 'data'].some(wanted)) {
  const { context, batches } = makeDemo(join(folder, 'small', 'logbook.sqlite'), Date.now())
  context.db.close()
  if (wanted('server')) await benchLogbooks(batches)
  if (wanted('shelf') || wanted('data'))
    enlarge(join(folder, 'small', 'logbook.sqlite'), join(folder, 'shelf', 'logbook.sqlite'), SHELF_TIMES)
  if (wanted('shelf')) await benchShelf(join(folder, 'shelf'), row)
  if (wanted('data')) await benchData(join(folder, 'small'), join(folder, 'shelf'), row)
  if (wanted('stream')) await benchStream(join(folder, 'small'), row)
}
rmSync(folder, { recursive: true })

/** Somebody at the phone: touches from a basket to a jar, and how long things take in the hand. */
async function benchPerson() {
  const empty = await startServer(join(folder, 'empty'), { port: await freePort(4300), quiet: true })
  const walk = await walkToJar(empty.address)
  row('basket to a labelled jar, at the phone', `${walk.taps} taps, ${walk.signs} signs typed`, '40 taps or less')
  row('  a weigh-in', `${walk.weighTaps} taps and the digits`, '3 taps and the digits')
  empty.server.kill()
  const { context } = makeDemo(join(folder, 'person', 'logbook.sqlite'), Date.now())
  context.db.close()
  const { server, address } = await startServer(join(folder, 'person'), { port: await freePort(4300), quiet: true })
  const { batches } = (await (await fetch(`${address}/api/batches?stage=drying`)).json()) as {
    batches: { batchId: string; loadedG: number }[]
  }
  const [batch] = batches
  row(
    'cold phone, processor slowed fourfold, to a weight',
    ms(await coldWeighIn(address, batch!.batchId, Math.round(batch!.loadedG * 0.3))),
    'under 6000 ms',
  )
  row('a jar found by its number, on that phone', ms(await findJar(address, 17)), 'under 3000 ms')
  const picture = join(folder, 'IMG_0001.JPG')
  writeFileSync(picture, camera(4000, 3000))
  const photograph = await takePhotograph(address, batch!.batchId, picture)
  row(
    'a photograph of 12 megapixels made small',
    `${photograph.ms.toFixed(0)} ms, longest frame ${photograph.longestFrameMs.toFixed(0)} ms`,
    `${(photograph.frames / (photograph.ms / 1000)).toFixed(0)} frames a second`,
  )
  row('  the logbook grows by', `${Math.round(photograph.bytes / 1000)} kB`, 'under 300 kB')
  server.kill()
}

/** A picture as a camera takes it, with grain. */
function camera(width: number, height: number): Buffer {
  const source = randomSource(5)
  const data = Buffer.alloc(width * height * 4, 255)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const light = 90 + 60 * Math.sin(x / 211) * Math.cos(y / 173) + 24 * (source.uniform() - 0.5)
      data.set(
        [light + 40, light, light - 30].map(value => Math.max(0, Math.min(255, value))),
        (y * width + x) * 4,
      )
    }
  return jpeg.encode({ data, width, height }, 90).data
}

async function benchLogbooks(batches: number) {
  const small = await benchServer(join(folder, 'small'), `demo (${batches} batches)`)
  await benchScripts(small.address, '/', 'Now', 'main h1', 'under 220 kB')
  await benchScripts(small.address, `/batches/${small.batchId}`, 'Batch with its chart', 'main .chart svg', 'under 420 kB')
  for (const [name, path, ready] of [
    ['Now', '/', 'main section.rack'],
    ['a batch’s verdict', `/batches/${small.batchId}`, 'main .verdict .headline'],
  ] as const)
    row(`cold start of ${name}, processor slowed fourfold`, ms(await coldStart(small.address + path, ready)), 'under 1600 ms')
  row(
    'what another wrote stands on a batch',
    ms(await follow(small.address, small.batchId, Math.round(small.loadedG * 0.3))),
    'under 2000 ms',
  )
  small.server.kill()
  const large = enlarge(join(folder, 'small', 'logbook.sqlite'), join(folder, 'large', 'logbook.sqlite'), LARGER)
  const big = await benchServer(join(folder, 'large'), `${LARGER} times (${large.batches} batches)`)
  console.log(
    `\nThe large logbook holds ${large.batches} batches, ${large.entries} entries and ${large.jars} jars; making its views anew took ${(large.rebuildMs / 1000).toFixed(1)} s.`,
  )
  big.server.kill()
}
