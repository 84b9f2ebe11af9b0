import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from '../../scripts/steps.mjs'
import { gone } from './support/acts'
import { expect, test } from './support/demo'

const [WIDTH, HEIGHT] = [640, 480]

/** A film of one grey picture, as a fake camera shows it (YUV4MPEG2, 4:2:0). */
function film(grey: number[]): Buffer {
  const chroma = Buffer.alloc((WIDTH * HEIGHT) / 2, 128)
  const frame = Buffer.concat([Buffer.from('FRAME\n'), Buffer.from(grey), chroma])
  return Buffer.concat([Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F10:1 Ip A1:1 C420jpeg\n`), frame, frame])
}

test('a label before the camera opens its jar, and something is taken out at once; a picture does too', async ({ page, demo }) => {
  const jar = (await (await fetch(`${demo.address}/api/jars/${demo.ids.jar}`)).json()) as { number: number; leftG: number }
  // One of our labels, as it is printed, on the table before the camera.
  await page.goto(`${demo.address}/jars/${demo.ids.jar}/label`)
  const grey = await page.getByRole('img', { name: /The label as it is printed/ }).evaluate(
    async (image: HTMLImageElement, [width, height]) => {
      await image.decode()
      const canvas = Object.assign(document.createElement('canvas'), { width, height })
      const paint = canvas.getContext('2d')!
      paint.fillStyle = '#b9b2a6'
      paint.fillRect(0, 0, width!, height!)
      const scale = Math.min((width! * 0.95) / image.width, (height! * 0.95) / image.height)
      paint.drawImage(image, 12, 12, image.width * scale, image.height * scale)
      const { data } = paint.getImageData(0, 0, width!, height!)
      return Array.from({ length: width! * height! }, (_, i) =>
        Math.round(0.299 * data[4 * i]! + 0.587 * data[4 * i + 1]! + 0.114 * data[4 * i + 2]!),
      )
    },
    [WIDTH, HEIGHT] as const,
  )
  const folder = mkdtempSync(join(tmpdir(), 'dulse-scan-'))
  writeFileSync(join(folder, 'label.y4m'), film(grey))
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: [
      ...BROWSER_ARGS,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${join(folder, 'label.y4m')}`,
    ],
  })
  try {
    const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
    await phone.goto(`${demo.address}/scan`)
    const found = phone.getByRole('region', { name: `Jar ${jar.number}` })
    await expect(found).toBeVisible()
    await found.getByLabel('Taken out').fill('a spoon')
    await found.getByRole('button', { name: 'Take out' }).click()
    await expect(found.getByText(/is not a unit of weight/)).toBeVisible()
    await found.getByLabel('Taken out').fill('1 g')
    await found.getByRole('button', { name: 'Take out' }).click()
    await expect(phone.getByText(`1\u00A0g taken out of jar ${jar.number}.`)).toBeVisible()
    // The label lies before the camera still: what was taken stays said, and nobody is led to take it twice.
    await phone.waitForTimeout(2500)
    await expect(phone.getByText(`1\u00A0g taken out of jar ${jar.number}.`)).toBeVisible()
    await gone(found)
  } finally {
    await browser.close()
    rmSync(folder, { recursive: true })
  }
  // Without a camera a picture of the label is read; one without a code is said to be that.
  await page.goto(`${demo.address}/scan`)
  const svg = await (await fetch(`${demo.address}/api/jars/${demo.ids.jar}/label.svg?template=a4-24`)).text()
  await page
    .getByLabel('Or a picture of the label')
    .setInputFiles({ name: 'nothing.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('no picture') })
  await expect(page.getByText(/no picture that the browser can read/)).toBeVisible()
  expect(svg).toContain('<svg')
})
