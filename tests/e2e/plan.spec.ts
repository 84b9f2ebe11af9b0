import { expect, test, type Page } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { logged } from './support/logged'
import { startDulse, type RunningServer } from './support/server'

/** From baskets in hand to loads and nights; and what stands in machines counts from the first forecast on. */
let server: RunningServer
test.beforeEach(async () => {
  server = await startDulse()
})
test.afterEach(() => server.stop())
const { call, onBatch } = logged(() => server)
const main = (page: Page) => page.locator('main')
const HOUR = 3_600_000

async function basket(weightG: number, more: object = {}): Promise<string> {
  const id = uuidv7()
  const body = { kind: 'intake', foodKey: 'tomato', source: 'Garden', weightG, purpose: 'powder', cardKey: 'slices-6', ...more }
  await call('POST', '/api/batches', { id, entry: { id: uuidv7(), at: Date.now() - HOUR, body } })
  return id
}

test('an empty plan says what it is for; a basket gets a time, a machine and places, and what is lost is said', async ({ page }) => {
  await page.goto(`${server.address}/plan`)
  await expect(main(page).getByRole('heading', { name: 'No basket waits' })).toBeVisible()
  await basket(2000)
  await page.goto(`${server.address}/plan`)
  await expect(main(page).getByRole('heading', { name: /^1 load, / })).toBeVisible()
  await expect(main(page).getByText('Tomato, 6 mm slices').first()).toBeVisible()
  await expect(main(page).getByText(/in 8 of 10 cases; it keeps until/)).toBeVisible()
  // Without hands nothing goes in, and it says so.
  await main(page).getByLabel('Hours for preparing, a day').fill('0')
  await main(page).getByLabel('Hours for preparing, a day').blur()
  await expect(main(page).getByText(/finds no place: the hands of these days are used up/)).toBeVisible()
})

test('the machine that was meant at intake is what loading begins with, and its free places are counted before', async ({ page }) => {
  const machines = (await call('GET', '/api/machines')) as { id: string; name: string; trays: number; kind: string }[]
  const first = machines.find(machine => machine.kind === 'dehydrator')!
  const settings = { kind: 'dehydrator', trayAreaM2: 0.1, trayTareG: 0, trayTares: {}, watts: 400, lowC: 35, highC: 70 }
  await call('PUT', '/api/machines', { ...settings, id: uuidv7(), name: 'Aaa small one', trays: 4 })
  const there = await basket(1500)
  const runId = uuidv7()
  await onBatch(there, 0.5, { kind: 'load', runId, machineId: first.id, positions: [1, 2], totalG: 1300 })
  await call('POST', `/api/runs/${runId}/entries`, { id: uuidv7(), at: Date.now() - HOUR / 2, body: { kind: 'heat', runId, setC: 57 } })
  await page.goto(`${server.address}/intake?food=tomato`)
  await page.getByLabel('Weight', { exact: true }).fill('900')
  await page.getByText(first.name, { exact: true }).click()
  await expect(main(page).getByText(new RegExp(`${first.trays - 2} of ${first.trays} places`))).toBeVisible()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(main(page).locator('h1')).toContainText('Tomato')
  await main(page).getByRole('button', { name: /^Load/ }).first().click()
  await expect(
    page
      .getByRole('dialog')
      .filter({ visible: true })
      .getByRole('radio', { name: new RegExp(first.name) }),
  ).toBeChecked()
})

test('a basket like an earlier one begins with its cut, machine and purpose, and shows what was done', async ({ page }) => {
  const before = await basket(1500, { cardKey: 'slices-12', purpose: 'pieces', source: 'Hill garden', cultivar: 'Oxblood' })
  await onBatch(before, 0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 120 })
  await page.goto(`${server.address}/batches/${before}`)
  await main(page).getByRole('link', { name: 'Same again' }).click()
  await expect(main(page).getByRole('heading', { name: 'As batch 1' })).toBeVisible()
  await expect(main(page).getByRole('region', { name: 'As last time' }).getByText(/120.g/)).toBeVisible()
  await expect(page.getByLabel('Where from')).toHaveValue('Hill garden')
  await expect(page.getByRole('radio', { name: /12 mm slices/ })).toBeChecked()
  await expect(page.getByRole('radio', { name: /^Pieces/ })).toBeChecked()
})
