import { expect, test, type Locator, type Page } from '@playwright/test'
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
  await expect(main(page).getByRole('heading', { name: /^2.00.kg of fresh food, dry by / })).toBeVisible()
  await expect(main(page).getByText('Tomato, 6 mm slices').first()).toBeVisible()
  await expect(main(page).getByText(/Nothing spoils · nobody is woken/)).toBeVisible()
  // Without hands nothing goes in, and it says so.
  await main(page).getByRole('link', { name: 'Harvests and days' }).click()
  await main(page).getByLabel('Hours for preparing, a day').fill('0')
  await main(page).getByRole('form', { name: 'Hands', exact: true }).getByRole('button', { name: 'Save' }).click()
  await main(page).getByRole('link', { name: 'The board' }).click()
  await expect(main(page).getByText(/finds no place: the hours of work of these days are used up/)).toBeVisible()
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

const bar = (page: Page) =>
  main(page)
    .getByRole('group', { name: 'Machines over the days' })
    .getByRole('button', { name: /^Tomato/ })

/** What is looked for is found: nothing moves any more but by hand. */
const settled = (page: Page) =>
  expect(
    main(page)
      .getByRole('status')
      .getByText(/No other plan is better|The best that was found/),
  ).toBeVisible()

test('a run is moved by keys and by the mouse; what breaks is said in words, undone and done again', async ({ page }) => {
  await basket(2000)
  await page.goto(`${server.address}/plan`)
  await settled(page)
  await bar(page).focus()
  const before = await bar(page).getAttribute('aria-label')
  await page.keyboard.press('ArrowRight')
  await expect(bar(page)).toHaveAccessibleName(/pinned/)
  await expect(bar(page)).not.toHaveAccessibleName(before!)
  await expect(main(page).getByText('Changed by hand.')).toBeVisible()
  // Ten days on it would be spoiled, and cannot be taken.
  for (let i = 0; i < 24; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect(
    main(page)
      .getByRole('region', { name: 'What breaks' })
      .getByText(/by then it would be spoiled/),
  ).toBeVisible()
  await expect(main(page).getByRole('button', { name: 'Work by this plan' })).toBeDisabled()
  await main(page).getByRole('button', { name: 'Put all back' }).click()
  await expect(bar(page)).not.toHaveAccessibleName(/pinned/)
  await page.keyboard.press('Control+z')
  await expect(main(page).getByText(/by then it would be spoiled/)).toBeVisible()
  await main(page).getByRole('button', { name: 'Redo' }).click()
  await expect(main(page).getByText(/by then it would be spoiled/)).toBeHidden()
  await settled(page)
  // By the mouse: three hours along its lane.
  const box = (await bar(page).boundingBox())!
  const grip = { x: box.x + 30, y: box.y + box.height / 2 }
  await page.mouse.move(grip.x, grip.y)
  await page.mouse.down()
  await page.mouse.move(grip.x + 20, grip.y, { steps: 4 })
  await page.mouse.move(grip.x + 77, grip.y, { steps: 6 })
  await page.mouse.up()
  await expect(bar(page)).toHaveAccessibleName(/pinned/)
  await main(page).getByRole('button', { name: 'Plan the rest around it' }).click()
  await expect(bar(page)).toHaveAccessibleName(/pinned/)
})

test('a plan that is taken dates Now, begins the load form, and stands on the fridge door', async ({ page }) => {
  const id = await basket(2000)
  await page.goto(`${server.address}/plan`)
  await main(page).getByRole('button', { name: 'Work by this plan' }).click()
  await expect(main(page).getByText('You work by this plan')).toBeVisible()
  await expect(
    main(page)
      .getByRole('region', { name: 'The plan that you work by' })
      .getByText(/Tomato/),
  ).toBeVisible()
  await main(page).getByRole('button', { name: 'For the fridge door' }).click()
  await expect(main(page).getByRole('row', { name: /Tomato, 6 mm slices, load: / })).toBeVisible()
  await page.goto(server.address)
  await expect(
    main(page)
      .getByText(/By the plan: /)
      .first(),
  ).toBeVisible()
  const { planned } = (await call('GET', `/api/batches/${id}`)) as { planned: { machineId: string } }
  expect(planned.machineId).toMatch(/^[0-9a-f-]{36}$/)
  await page.goto(`${server.address}/plan`)
  await main(page).getByRole('button', { name: 'Work by no plan' }).click()
  await expect(main(page).getByRole('region', { name: 'The plan that you work by' })).toBeHidden()
})

async function pickTomato(page: Page, form: Locator) {
  await form.getByRole('combobox', { name: 'Food' }).click()
  await page.keyboard.type('tomato')
  await page.getByRole('option', { name: 'Tomato', exact: true }).filter({ visible: true }).click()
}

test('harvests and wishes are entered, past ones refused in words; the board keeps them places, the year counts them', async ({ page }) => {
  const day = (ahead: number) => new Date(Date.now() + ahead * 24 * HOUR).toISOString().slice(0, 10)
  await page.goto(`${server.address}/plan/garden`)
  await main(page).getByRole('button', { name: 'Add a harvest' }).click()
  const form = main(page).getByRole('form', { name: 'A harvest' })
  await pickTomato(page, form)
  await form.getByLabel('A poor picking').fill('1.5 kg')
  await form.getByLabel('A good picking').fill('2.5 kg')
  await form.getByLabel('First picking').fill(day(-30))
  await form.getByLabel('Last picking').fill(day(-20))
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(form.getByText(/This harvest is over/)).toBeVisible()
  await form.getByLabel('First picking').fill(day(2))
  await form.getByLabel('Last picking').fill(day(30))
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(
    main(page)
      .getByRole('region', { name: 'Harvests' })
      .getByText(/1.50.kg to 2.50.kg every 7 days/),
  ).toBeVisible()
  await main(page).getByRole('button', { name: 'Add a wish' }).click()
  const wish = main(page).getByRole('form', { name: 'A wish' })
  await pickTomato(page, wish)
  await wish.getByLabel('The shelf is to hold').fill('200 g')
  await wish.getByLabel('By', { exact: true }).fill(day(60))
  await wish.getByRole('button', { name: 'Save' }).click()
  await expect(
    main(page)
      .getByRole('region', { name: 'Wishes' })
      .getByText(/200.g fine powder by/),
  ).toBeVisible()
  await main(page).getByRole('link', { name: 'The board' }).click()
  await expect(bar(page).first()).toBeVisible()
  await main(page).getByRole('link', { name: 'The year' }).click()
  await expect(main(page).getByRole('heading', { name: 'Every month is wide enough' })).toBeVisible()
  await expect(
    main(page)
      .getByRole('region', { name: 'Wishes counted back' })
      .getByText(/200.g to make, from about/),
  ).toBeVisible()
  await main(page).getByRole('link', { name: 'Side by side' }).click()
  await expect(main(page).getByRole('row', { name: /Half of it into the freezer .*kWh/ })).toBeVisible({ timeout: 30_000 })
})
