import { readFileSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { BROWSER_ARGS, findChromium, freePort, startServer } from '../steps.mjs'

const MINUTE = 60_000
/** An hour of twenty readings a second goes through in a minute: sixty times as fast as a device sends it. */
const READINGS = 72_000
const POSTS = 600

interface Frames {
  frames: number
  longest: number
  late: number
}

/** Counts what the page draws in the minute. As text: what compiles this file would put helpers in that the page lacks. */
const COUNT_FRAMES = `new Promise((resolve) => {
  const seconds = 55, begun = performance.now()
  let last = begun, count = 0, longest = 0, late = 0
  requestAnimationFrame(function step(now) {
    count++
    longest = Math.max(longest, now - last)
    if (now - last > 34) late++
    last = now
    if (now - begun < seconds * 1000) requestAnimationFrame(step)
    else resolve({ frames: count / seconds, longest, late })
  })
})`

interface Row {
  (name: string, figures: string, aim?: string): void
}

/** Readings stream in while a page is open on them: are they all kept, does the page stay smooth, and what does it cost. */
export async function benchStream(folder: string, row: Row) {
  const port = await freePort(4400)
  const { server, address } = await startServer(folder, { port, quiet: true })
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: BROWSER_ARGS,
  })
  try {
    const call = async <Answer>(method: string, path: string, body?: unknown) => {
      const answer = await fetch(address + path, {
        method,
        headers: body ? { 'content-type': 'application/json' } : {},
        body: body === undefined ? undefined : JSON.stringify(body),
      })
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
      return (await answer.json()) as Answer
    }
    const machine = (await call<{ id: string; name: string }[]>('GET', '/api/machines')).find(item => item.name === 'Tall cabinet')!
    const device = uuidv7()
    await call('PUT', '/api/devices', { id: device, name: 'Fast probe', kind: 'probe', machineId: machine.id })
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${address}/machines/${machine.id}`)
    await page.waitForTimeout(2000)
    const frames = page.evaluate<Frames>(COUNT_FRAMES)
    const from = Date.now() - 60 * MINUTE
    const each = READINGS / POSTS
    const times: number[] = []
    let kept = 0
    const begun = performance.now()
    for (let post = 0; post < POSTS; post++) {
      const readings = Array.from({ length: each }, (_, i) => ({
        channel: 'celsius',
        at: Math.round(from + (post * each + i) * 50),
        value: 54 + 2 * Math.sin((post * each + i) / 2000),
      }))
      const began = performance.now()
      kept += (await call<{ kept: number }>('POST', '/api/readings', { device, readings })).kept
      times.push(performance.now() - began)
      const ahead = begun + (post + 1) * (MINUTE / POSTS) - performance.now()
      if (ahead > 0) await new Promise(resolve => setTimeout(resolve, ahead))
    }
    const seconds = (performance.now() - begun) / 1000
    times.sort((a, b) => a - b)
    row('an hour of 20 readings a second', `${kept} of ${READINGS} kept in ${seconds.toFixed(0)} s`, 'all')
    row(
      'answer to 120 readings, on the disk',
      `p50 ${times[Math.floor(times.length / 2)]!.toFixed(0)} ms, p95 ${times[Math.floor(0.95 * times.length)]!.toFixed(0)} ms`,
    )
    const smooth = await frames
    row(
      'page meanwhile',
      `${smooth.frames.toFixed(0)} frames a second, ${smooth.late} over 34 ms, longest ${smooth.longest.toFixed(0)} ms`,
      '60 frames a second',
    )
    await page.waitForTimeout(6000)
    const session = await page.context().newCDPSession(page)
    await session.send('HeapProfiler.collectGarbage')
    const heap = await session.send('Runtime.getHeapUsage')
    row('page’s heap after the hour', `${(heap.usedSize / 1e6).toFixed(0)} MB`, 'under 150 MB')
    const asked: number[] = []
    for (let i = 0; i < 20; i++) {
      const began = performance.now()
      await call('GET', `/api/readings?machine=${machine.id}&from=${from}&to=${Date.now()}&points=300`)
      asked.push(performance.now() - began)
    }
    asked.sort((a, b) => a - b)
    row('the hour drawn thinned to 300 points', `p50 ${asked[10]!.toFixed(0)} ms, p95 ${asked[18]!.toFixed(0)} ms`)
    const rss = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
    row('server’s memory after the hour', `${rss.toFixed(0)} MB`, 'under 250 MB')
  } finally {
    await browser.close()
    server.kill()
  }
}
