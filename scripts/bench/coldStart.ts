import { chromium } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from '../steps.mjs'

/** A kitchen's old tablet. */
const SLOWER = 4
const TURNS = 7

/**
 * From nothing in the browser's memory to the first true figures on a page, on a processor slowed fourfold.
 * @param ready what stands on the page when it can be read
 * @returns ms, one for each turn
 */
export async function coldStart(address: string, ready: string): Promise<number[]> {
  const browser = await chromium.launch({ executablePath: findChromium(), args: BROWSER_ARGS })
  const times: number[] = []
  for (let turn = 0; turn < TURNS; turn++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    const session = await context.newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })
    // Seen by the page itself: asking it from outside would cost its slowed processor time.
    await page.addInitScript(`
      const look = () => document.querySelector(${JSON.stringify(ready)}) ? performance.mark('dulse-ready') : requestAnimationFrame(look)
      requestAnimationFrame(look)
    `)
    await page.goto(address, { waitUntil: 'commit' })
    await page.waitForFunction(() => performance.getEntriesByName('dulse-ready').length > 0, undefined, { polling: 200, timeout: 60_000 })
    times.push(await page.evaluate(() => performance.getEntriesByName('dulse-ready')[0]!.startTime))
    await context.close()
  }
  await browser.close()
  return times
}
