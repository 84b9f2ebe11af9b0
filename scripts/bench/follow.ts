import { chromium } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { BROWSER_ARGS, findChromium } from '../steps.mjs'

const TURNS = 20

/**
 * From a weight sent by somebody else to the page that shows it, which nobody touched.
 * @param weightG a weight that the batch may have; each turn's is a gram more, and all are voided again
 * @returns ms, one for each turn
 */
export async function follow(address: string, batchId: string, weightG: number): Promise<number[]> {
  const browser = await chromium.launch({ executablePath: findChromium(), args: BROWSER_ARGS })
  const times: number[] = []
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const line = page.waitForResponse(answer => answer.url().endsWith('/api/live'))
    await page.goto(`${address}/batches/${batchId}`)
    await line
    await page.waitForTimeout(1000)
    const send = async (body: object) => {
      const id = uuidv7()
      const answer = await fetch(`${address}/api/batches/${batchId}/entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id, at: Date.now(), body }),
      })
      if (!answer.ok) throw new Error(await answer.text())
      return id
    }
    for (let turn = 0; turn < TURNS; turn++) {
      const words = new RegExp(`${weightG + turn}.g now`)
      const shown = page.getByText(words).first().waitFor()
      const begun = performance.now()
      const id = await send({ kind: 'weigh', totalG: weightG + turn })
      await shown
      times.push(performance.now() - begun)
      await send({ kind: 'void', target: id })
      await page.getByText(words).first().waitFor({ state: 'detached' })
    }
  } finally {
    await browser.close()
  }
  return times
}
