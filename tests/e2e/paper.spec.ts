import type { Page } from '@playwright/test'
import { expect, test, startDemo, type Demo } from './support/demo'

/** What goes on paper, and what comes back from it. */
let own: Demo
test.beforeAll(async () => {
  own = await startDemo()
})
test.afterAll(() => own.server.stop())
const main = (page: Page) => page.locator('main')

test('on paper there is the list and nothing of the screen', async ({ page }) => {
  for (const path of ['/print/day', '/print/shelf']) {
    await page.emulateMedia({ media: 'screen' })
    await page.goto(own.address + path)
    await expect(main(page).getByRole('table').first()).toBeVisible()
    await expect(main(page).getByRole('button', { name: 'Print' })).toBeVisible()
    await page.emulateMedia({ media: 'print' })
    await expect(main(page).getByRole('button', { name: 'Print' })).toBeHidden()
    await expect(page.getByRole('banner')).toBeHidden()
    await expect(main(page).getByRole('heading', { level: 1 })).toBeVisible()
  }
})

test('what was counted comes in in the paper’s order: less is taken, more is questioned, the rest stays', async ({ page }) => {
  await page.goto(`${own.address}/print/shelf`)
  await expect(main(page).getByRole('table').first()).toBeVisible()
  const onPaper = await main(page).locator('.paper-lines tbody tr td:first-child').allInnerTexts()
  await main(page).getByRole('button', { name: 'Type in what was counted' }).click()
  await expect(main(page).getByRole('heading', { name: 'Count the shelf' })).toBeVisible()
  const inForm = await main(page).locator('.counted label strong').allInnerTexts()
  expect(inForm).toEqual(onPaper.map(words => words.trim()))
  const shelf = async () => ((await (await fetch(`${own.address}/api/shelf`)).json()) as { jars: { number: number; leftG: number }[] }).jars
  const left = async (number: string) => (await shelf()).find(jar => jar.number === Number(number))?.leftG ?? 0
  const [first, second, third, fourth] = inForm as [string, string, string, string]
  const before = { first: await left(first), second: await left(second), third: await left(third), fourth: await left(fourth) }
  const field = (number: string) =>
    main(page)
      .locator('.counted')
      .filter({ has: page.locator(`strong:text-is("${number}")`) })
      .getByRole('textbox')
  await field(first).fill(String(before.first - 5))
  await field(second).fill(String(before.second + 40))
  await field(third).fill('0')
  await main(page).getByRole('button', { name: 'Log what was counted' }).click()
  await expect(main(page).getByText(/The log has .* only/)).toBeVisible()
  await expect(main(page).getByText('Nothing was logged yet: put these right first.')).toBeVisible()
  expect(await left(first)).toBeCloseTo(before.first, 3)
  await field(second).fill('some')
  await main(page).getByRole('button', { name: 'Log what was counted' }).click()
  await expect(main(page).getByText(/“some” is not a weight/)).toBeVisible()
  await field(second).fill('')
  await main(page).getByRole('button', { name: 'Log what was counted' }).click()
  await expect(main(page).getByText(/^2 jars put right/)).toBeVisible()
  expect([await left(first), await left(second), await left(third), await left(fourth)].map(grams => Math.round(grams * 10) / 10)).toEqual(
    [before.first - 5, before.second, 0, before.fourth].map(grams => Math.round(grams * 10) / 10),
  )
})
