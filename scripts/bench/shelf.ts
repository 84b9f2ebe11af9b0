import { chromium } from '@playwright/test'
import { BROWSER_ARGS, findChromium, freePort, startServer } from '../steps.mjs'

interface Row {
  (name: string, figures: string, aim?: string): void
}
interface Frames {
  frames: number
  late: number
  longest: number
  least: number
}

const OPENINGS = 12

/** Time from the tap on Shelf until the last jar of the first screen is painted. As text, for the page lacks what compiles this file. */
const OPEN = `new Promise((resolve, reject) => {
  const begun = performance.now()
  document.querySelector('nav[aria-label="Places"] a[href="/shelf"]').click()
  requestAnimationFrame(function look() {
    if (document.querySelectorAll('.jar').length >= 16) requestAnimationFrame(() => resolve(performance.now() - begun))
    else if (performance.now() - begun > 20000) reject(new Error('the shelf never came'))
    else requestAnimationFrame(look)
  })
})`

/** Scrolls the whole shelf by steps of a finger and counts what is drawn, and whether jars are in sight at every frame. */
const SCROLL = `new Promise((resolve) => {
  const begun = performance.now()
  let last = begun, count = 0, late = 0, longest = 0, least = Infinity
  requestAnimationFrame(function step(now) {
    count++
    if (now - last > 34) late++
    longest = Math.max(longest, now - last)
    last = now
    // Measuring costs frames of its own: look at every tenth only.
    if (count % 10 === 0) least = Math.min(least, [...document.querySelectorAll('.jar')].filter(jar => { const box = jar.getBoundingClientRect(); return box.bottom > 0 && box.top < innerHeight }).length)
    scrollBy(0, 60)
    if (scrollY + innerHeight < document.documentElement.scrollHeight - 2 && now - begun < 20000) requestAnimationFrame(step)
    else resolve({ frames: count / ((now - begun) / 1000), late, longest, least })
  })
})`

/** How a shelf of thousands opens, and whether it scrolls smoothly. */
export async function benchShelf(folder: string, row: Row) {
  const port = await freePort(4500)
  const { server, address } = await startServer(folder, { port, quiet: true })
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: BROWSER_ARGS,
  })
  try {
    const { count } = (await fetch(`${address}/api/shelf`).then(answer => answer.json())) as { count: number }
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const times: number[] = []
    for (let i = 0; i < OPENINGS; i++) {
      await page.goto(`${address}/reference/schools`)
      await page.locator('main h1').first().waitFor()
      await page.waitForTimeout(600)
      const took = await page.evaluate<number>(OPEN)
      // The first one warms the server.
      if (i > 0) times.push(took)
    }
    times.sort((a, b) => a - b)
    row(
      `Shelf of ${count} jars: tap to jars`,
      `p50 ${times[Math.floor(times.length / 2)]!.toFixed(0)} ms, longest ${times.at(-1)!.toFixed(0)} ms`,
      'under 300 ms',
    )
    const { frames, late, longest, least } = await page.evaluate<Frames>(SCROLL)
    row(
      '  scrolled to its end',
      `${frames.toFixed(0)} frames a second, ${late} over 34 ms, longest ${longest.toFixed(0)} ms, at least ${least} jars in sight`,
      '60 frames a second',
    )
  } finally {
    await browser.close()
    server.kill()
  }
}
