import jpeg from 'jpeg-js'
import { imageSize } from 'image-size'
import type { Page } from '@playwright/test'
import { expect, test } from './support/demo'
import { pressAct, gone } from './support/acts'

const main = (page: Page) => page.locator('main')

/** A camera's picture: a white card at the right, red food at the left. */
function photograph(width: number, height: number): Buffer {
  const data = Buffer.alloc(width * height * 4, 255)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [red, green, blue] = x > width * 0.6 ? [222, 220, 214] : [150, 36, 40]
      const at = (y * width + x) * 4
      // Grain, as every camera has it; without it nothing is hard to make small.
      const grain = ((x * 7919 + y * 104_729) % 23) - 11
      data[at] = red! + grain
      data[at + 1] = green! + grain
      data[at + 2] = blue! + grain
    }
  return jpeg.encode({ data, width, height }, 92).data
}

async function openForm(page: Page, address: string) {
  await page.goto(address)
  await expect(main(page).getByRole('heading', { level: 1 })).toBeVisible()
  await pressAct(main(page), /^Picture$/)
  return page.getByRole('dialog').last()
}

test('a picture of twelve megapixels is made small, measured by its card, and stands in log, gallery and export', async ({
  page,
  demo,
}) => {
  const batch = demo.ids.beetroot!
  const form = await openForm(page, `${demo.address}/batches/${batch}`)
  const original = photograph(4000, 3000)
  expect(original.length).toBeGreaterThan(1_000_000)
  await form.locator('input[type=file]').setInputFiles({ name: 'IMG_0001.JPG', mimeType: 'image/jpeg', buffer: original })
  await form.getByRole('button', { name: 'Measure the colour' }).click()
  const colours = page.getByRole('dialog', { name: 'Measure the colour' })
  const sheet = colours.locator('canvas')
  const box = (await sheet.boundingBox())!
  // Both on the food: that is no white card.
  await sheet.click({ position: { x: box.width * 0.3, y: box.height / 2 } })
  await sheet.click({ position: { x: box.width * 0.35, y: box.height / 2 } })
  await expect(colours.getByText(/This is not white/)).toBeVisible()
  await expect(colours.getByRole('button', { name: 'Keep this colour' })).toBeDisabled()
  await sheet.click({ position: { x: box.width * 0.8, y: box.height / 2 } })
  await expect(colours.getByText(/L\* 3\d/)).toBeVisible()
  await colours.getByRole('button', { name: 'Keep this colour' }).click()
  await form.getByRole('combobox', { name: 'Taken with' }).press('Enter')
  await page
    .getByRole('option', { name: /weighed/ })
    .first()
    .click()
  await form.getByLabel('Words to it').fill('Beside the card')
  await form.getByRole('button', { name: 'Keep it' }).click()
  await gone(page.getByRole('dialog'))
  await expect(main(page).getByText(/picture: the pieces. Beside the card, with: .*weighed/)).toBeVisible()

  const [picture] = (await (await fetch(`${demo.address}/api/foods/beetroot/pictures`)).json()) as {
    picture: string
    colour: { l: number; a: number; b: number }
  }[]
  const kept = Buffer.from(await (await fetch(`${demo.address}/api/pictures/${picture!.picture}`)).arrayBuffer())
  expect(kept.length).toBeLessThan(300_000)
  expect(imageSize(kept)).toMatchObject({ type: 'jpg', width: 1280, height: 960 })
  // Red: far to the right of green, by a card that is a little warm.
  expect(picture!.colour.a).toBeGreaterThan(35)
  await page.goto(`${demo.address}/reference/beetroot`)
  const gallery = main(page).getByRole('region', { name: 'Your pictures' })
  await gallery
    .getByRole('button', { name: /open it large/ })
    .first()
    .click()
  await expect(page.getByRole('dialog').getByText('Beside the card')).toBeVisible()
  const { pictures } = (await (await fetch(`${demo.address}/api/export/logbook.json`)).json()) as { pictures: { name: string }[] }
  expect(pictures.map(item => item.name)).toContain(picture!.picture)
})

test('what is no picture, or is far too large, is refused in words', async ({ page, demo }) => {
  const form = await openForm(page, `${demo.address}/batches/${demo.ids.pumpkin}`)
  await form.getByRole('button', { name: 'Keep it' }).click()
  await expect(form.getByText('Take or choose a picture.')).toBeVisible()
  const input = form.locator('input[type=file]')
  await input.setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('only words') })
  await expect(form.getByText(/“notes.jpg” is no picture that this browser can read/)).toBeVisible()
  // Made in the page: a hundred megabytes would not go through the test's own line.
  await input.evaluate((element: HTMLInputElement) => {
    const files = new DataTransfer()
    files.items.add(new File([new Uint8Array(100_000_000)], 'film.jpg', { type: 'image/jpeg' }))
    element.files = files.files
    element.dispatchEvent(new Event('change'))
  })
  await expect(form.getByText(/“film.jpg” is 100.MB: a picture of a camera has a tenth of that/)).toBeVisible()
  const tooLarge = await fetch(`${demo.address}/api/pictures`, {
    method: 'POST',
    headers: { 'content-type': 'image/jpeg' },
    body: new Uint8Array(400_000),
  })
  expect([tooLarge.status, ((await tooLarge.json()) as { message: string }).message]).toEqual([413, expect.stringMatching(/over 300 kB/)])
})

test('without the server a picture waits with its entry, is shown meanwhile, and arrives', async ({ page, context, demo }) => {
  const batch = demo.ids.pumpkin!
  const form = await openForm(page, `${demo.address}/batches/${batch}`)
  await form.locator('input[type=file]').setInputFiles({ name: 'a.jpg', mimeType: 'image/jpeg', buffer: photograph(800, 600) })
  await expect(form.getByRole('img', { name: /Picture 1/ })).toBeVisible()
  await context.route('**/api/**', route => route.abort())
  await form.getByRole('button', { name: 'Keep it' }).click()
  await expect(main(page).getByText('waits to be sent').first()).toBeVisible()
  const shown = main(page)
    .getByRole('img', { name: /Open the picture/ })
    .first()
  await expect(shown).toHaveAttribute('src', /^blob:/)
  await page.close()
  await context.unroute('**/api/**')
  const again = await context.newPage()
  await again.goto(`${demo.address}/batches/${batch}`)
  const arrived = main(again)
    .getByRole('img', { name: /Open the picture/ })
    .first()
  await expect(arrived).toHaveAttribute('src', /^\/api\/pictures\/[0-9a-f]{64}$/)
  expect(await arrived.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth))).toBe(800)
})
