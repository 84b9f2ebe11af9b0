import { expect, test, type Page } from '@playwright/test'
import { leaveForm, pressAct, gone } from './support/acts'
import { startDulse, type RunningServer } from './support/server'

/** Wrong input in every form: a clear word at the field, the dialog stays, nothing is written. */
const HOUR = 3_600_000
let server: RunningServer
let batchId: string
const id = (() => {
  let next = 0
  return () => `0199b000-0000-7000-8000-${String(++next).padStart(12, '0')}`
})()
const RUN = id()

// Each has a server of its own.
test.describe.configure({ mode: 'parallel' })

async function post(path: string, body: unknown) {
  const answer = await fetch(server.address + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  if (!answer.ok) throw new Error(await answer.text())
}
const log = (hoursAgo: number, body: object) =>
  post(`/api/batches/${batchId}/entries`, { id: id(), at: Date.now() - hoursAgo * HOUR, body })
const written = async () => (await (await fetch(`${server.address}/api/export.csv`)).text()).trim().split('\r\n').length - 1

test.beforeEach(async () => {
  server = await startDulse()
  batchId = id()
  const [machine] = (await (await fetch(`${server.address}/api/machines`)).json()) as { id: string }[]
  await post('/api/batches', {
    id: batchId,
    entry: {
      id: id(),
      at: Date.now() - 12 * HOUR,
      body: { kind: 'intake', foodKey: 'beetroot', source: 'Own garden', weightG: 2000, purpose: 'powder', cardKey: 'slices-3' },
    },
  })
  await log(11, { kind: 'load', runId: RUN, machineId: machine!.id, positions: [1, 2], totalG: 1700 })
  await post(`/api/runs/${RUN}/entries`, { id: id(), at: Date.now() - 11 * HOUR, body: { kind: 'heat', runId: RUN, setC: 57 } })
  await log(5, { kind: 'weigh', totalG: 600 })
})
test.afterEach(() => server.stop())

const dialogOf = (page: Page) => page.getByRole('dialog').filter({ visible: true })
async function openForm(page: Page, button: RegExp) {
  await pressAct(page.locator('main'), button)
  await expect(dialogOf(page)).toBeVisible()
}

/** Fills, saves, and expects the words; the dialog is still there and the log as long as before. */
async function refuses(page: Page, fields: Record<string, string>, save: string, words: string | RegExp) {
  const before = await written()
  for (const [label, text] of Object.entries(fields))
    await dialogOf(page)
      .getByLabel(new RegExp(`^${label}`))
      .first()
      .fill(text)
  await dialogOf(page).getByRole('button', { name: save, exact: true }).click()
  await expect(dialogOf(page).getByText(words).first()).toBeVisible()
  expect(await written()).toBe(before)
}

test("a hand quicker than the food's page: the basket waits for it", async ({ page }) => {
  await page.route('**/api/foods/jalapeno', async route => {
    await new Promise(resolve => setTimeout(resolve, 1500))
    await route.continue()
  })
  await page.goto(`${server.address}/intake`)
  await page.getByRole('combobox', { name: 'Food' }).click()
  await page.keyboard.type('Jalapeño')
  await page.getByRole('option', { name: 'Jalapeño', exact: true }).click()
  // What a count weighs is known once the page is there: what was typed stays, and is read anew.
  await page.getByLabel('Weight').fill('40 pods')
  await expect(page.getByRole('group', { name: 'Cut' })).toBeVisible()
  await expect(page.getByLabel('Weight')).toHaveValue('40 pods')
  await page.getByLabel('Weight').fill('2 kg')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { level: 1, name: /Jalapeño/ })).toBeVisible()
})

test('a food that never comes: the word stays at the field', async ({ page }) => {
  await page.route('**/api/foods/jalapeno', route => route.abort())
  await page.goto(`${server.address}/intake?food=jalapeno`)
  await page.getByLabel('Weight').fill('2 kg')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('The foods are kept by the server, and it is out of touch.')).toBeVisible()
  await expect(page).toHaveURL(/intake/)
})

test('while it dries', async ({ page }) => {
  await page.goto(`${server.address}/batches/${batchId}`)
  await expect(page.getByRole('heading', { name: 'Keep drying' })).toBeVisible()

  await openForm(page, /^Heat/)
  await refuses(page, { 'Set to, °C': 'hot' }, 'Set the heat', /is not a temperature|not a number/)
  await refuses(page, { 'Set to, °C': '180' }, 'Set the heat', /goes from 35.°C to 75.°C/)
  await leaveForm(page)
  await gone(dialogOf(page))

  await openForm(page, /^(?:Cool and feel|Feel)/)
  await refuses(page, {}, 'Log what was felt', /Answer|at least one/i)
  await leaveForm(page)
  await gone(dialogOf(page))

  await openForm(page, /^Note/)
  await refuses(page, {}, 'Keep the note', /Write|note/i)
  await leaveForm(page)
  await gone(dialogOf(page))

  await openForm(page, /^Take out/)
  await refuses(page, { 'Dry weight': 'light' }, 'Take out', '“light” is not a weight. Write 850, 1.2 kg or 3 lb 4 oz.')
  await refuses(page, { 'Dry weight': '1.9 kg' }, 'Take out', /1\.90\skg is more than the 1\.70\skg that was loaded/)
  await leaveForm(page)
  await gone(dialogOf(page))

  await page.keyboard.press('w')
  const weigh = dialogOf(page)
  await expect(weigh.getByRole('textbox')).toBeFocused()
  const before = await written()
  await page.keyboard.type('12,5 stone')
  await page.keyboard.press('Enter')
  await expect(weigh.getByText(/is not a unit of weight here/).first()).toBeVisible()
  expect(await written()).toBe(before)
})

test('a time in the future, and one before the basket', async ({ page }) => {
  await page.goto(`${server.address}/batches/${batchId}`)
  await openForm(page, /^Note/)
  await dialogOf(page).getByLabel('Note').fill('Later')
  await dialogOf(page).getByRole('button', { name: 'It was earlier' }).click()
  const when = dialogOf(page)
    .getByRole('combobox', { name: /^When/ })
    .or(dialogOf(page).getByRole('textbox', { name: /^When/ }))
    .first()
  await when.fill('2031-05-05 10:00')
  await when.press('Enter')
  await expect(dialogOf(page).getByText(/in the future/)).toBeVisible()
  const before = await written()
  await dialogOf(page).getByRole('button', { name: 'Keep the note' }).click()
  await expect(dialogOf(page).getByText(/in the future/)).toBeVisible()
  expect(await written()).toBe(before)
})

test('after the machine', async ({ page }) => {
  await log(4, { kind: 'unload', weightG: 226 })
  await log(3.5, { kind: 'restEnd' })
  await page.goto(`${server.address}/batches/${batchId}`)
  await openForm(page, /^Log the grinding/)
  await refuses(page, { 'Dry in': '226', 'Powder out': '' }, 'Log the grinding', /weight|Weigh/)
  await refuses(page, { 'Dry in': '226', 'Powder out': '240' }, 'Log the grinding', /240\sg of powder is more than the 226\sg that went in/)
  await refuses(page, { 'Dry in': '5 kg', 'Powder out': '240' }, 'Log the grinding', /5\.00\skg to grind is more than there is/)
  await dialogOf(page).getByLabel('Dry in').fill('226')
  await dialogOf(page).getByLabel('Powder out').fill('215')
  await dialogOf(page).getByRole('button', { name: 'Log the grinding' }).click()
  await gone(dialogOf(page))
  await openForm(page, /^Pack a jar/)
  await refuses(page, { 'In this jar': '500' }, 'Pack', /Only 215\sg of powder is left to pack/)
  await refuses(page, { 'In this jar': '100', 'Where it stands': ' ' }, 'Pack', 'Say where the jar stands.')
})

test('in the workshop', async ({ page }) => {
  await page.goto(`${server.address}/workshop/household`)
  const main = page.locator('main')
  await main.getByLabel('Asleep from').fill('late')
  await main.getByRole('button', { name: 'Save the household' }).click()
  await expect(
    main
      .getByText(/22:30/)
      .or(main.getByText(/not a time/))
      .first(),
  ).toBeVisible()
  await main.getByLabel('Asleep from').fill('22:30')
  await main.getByLabel('Time zone').fill('Mars/Olympus')
  await main.getByRole('button', { name: 'Save the household' }).click()
  await expect(main.getByText(/time zone/i).nth(1)).toBeVisible()
  await page.goto(`${server.address}/workshop`)
  await main
    .getByRole('button', { name: /^Change/ })
    .first()
    .click()
  await main.getByLabel('Trays', { exact: true }).fill('1')
  await main.getByRole('button', { name: 'Save the machine' }).click()
  await expect(main.getByText('Tray 2 is in use: take it out before the machine has fewer trays.')).toBeVisible()
  await main.getByLabel('Trays', { exact: true }).fill('some')
  await main.getByRole('button', { name: 'Save the machine' }).click()
  await expect(main.getByText('“some” is not a number.')).toBeVisible()
})

test('what waits survives a closed page', async ({ page, context }) => {
  await page.goto(`${server.address}/batches/${batchId}`)
  await expect(page.getByRole('heading', { name: 'Keep drying' })).toBeVisible()
  // The forms are fetched ahead once the page is at rest.
  await page.waitForLoadState('networkidle')
  await context.route('**/api/**', route => route.abort())
  await page.keyboard.press('w')
  await page.keyboard.type('265')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Out of touch/)).toBeVisible()
  await expect(page.getByText(/265.g now/)).toBeVisible()
  const before = await written()
  await page.close()
  await context.unroute('**/api/**')
  const again = await context.newPage()
  await again.goto(`${server.address}/`)
  await expect.poll(written).toBe(before + 1)
})

test('pages that are not there say so, with a way on', async ({ page }) => {
  for (const [path, words] of [
    [`/batches/${id()}`, 'No such batch'],
    [`/jars/${id()}`, 'No such jar'],
  ] as const) {
    await page.goto(server.address + path)
    await expect(page.getByRole('heading', { name: words })).toBeVisible()
    await expect(page.locator('main').getByRole('link').first()).toBeVisible()
  }
  await page.goto(`${server.address}/nowhere`)
  await expect(page.getByRole('link', { name: /Now/ }).first()).toBeVisible()
})
