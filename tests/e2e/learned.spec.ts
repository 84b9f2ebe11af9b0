import { expect, test } from '@playwright/test'
import { startDemo, type Demo } from './support/demo'
import { faultsOf } from './support/faults'

/** What the invented household's runs have taught, opened and put right by hand. */
let demo: Demo
test.beforeAll(async () => {
  demo = await startDemo()
})
test.afterAll(() => demo.server.stop())

test('what runs taught of a machine is opened; one is left out with its reason, and counted again', async ({ page }) => {
  const machines = (await (await fetch(`${demo.server.address}/api/machines`)).json()) as { id: string; name: string }[]
  await page.goto(`${demo.server.address}/machines/${machines.find(machine => machine.name === 'Round stack')!.id}`)
  const card = page.getByRole('region', { name: 'Calibration' })
  const told = await card.getByText(/from \d+ runs\./).textContent()
  const runs = Number(/from (\d+) runs/.exec(told!)![1])
  await card.getByRole('button', { name: 'The runs behind it' }).click()
  const dialog = page.getByRole('dialog', { name: 'What runs taught of Round stack' })
  await expect(dialog.getByRole('listitem')).toHaveCount(runs)
  const first = dialog.getByRole('listitem').first()
  await first.getByRole('button', { name: 'Leave out' }).click()
  await first.getByRole('button', { name: 'Leave it out' }).click()
  await expect(dialog.getByText('Say why, such as: the door stood open.')).toBeVisible()
  await first.getByLabel('Why it is not like the others').fill('The door stood open.')
  await first.getByRole('button', { name: 'Leave it out' }).click()
  await expect(dialog.getByText(`from ${runs - 1} runs.`)).toBeVisible()
  await expect(first.getByText('left out')).toBeVisible()
  await expect(first.getByText('The door stood open.')).toBeVisible()
  expect(await faultsOf(page, { type: 'tag', values: ['wcag2a', 'wcag2aa'] })).toEqual([])
  await first.getByRole('button', { name: 'Count it again' }).click()
  await expect(dialog.getByText(`from ${runs} runs.`)).toBeVisible()
})

test('a food’s page tells the hours in one’s own machines as intake and loading do', async ({ page }) => {
  await page.goto(`${demo.server.address}/reference/tomato`)
  const cards = page.getByRole('region', { name: 'Method cards' })
  await cards.getByText('6 mm slices', { exact: true }).click()
  const row = cards.getByRole('row').filter({ has: page.getByRole('link', { name: 'Tall cabinet' }) })
  const hours = /(\d+) to (\d+) h/.exec((await row.textContent())!)!
  await expect(page.getByText(/yours: .* from \d+ lots/)).toBeVisible()
  await page.goto(`${demo.server.address}/intake?food=tomato`)
  await expect(page.getByText(`${hours[1]} to ${hours[2]} h`).first()).toBeVisible()
})

test('insight shows how well hours were told as runs came', async ({ page }) => {
  await page.goto(`${demo.server.address}/insight`)
  const learned = page.getByRole('region', { name: 'What it learned' })
  await expect(learned.getByRole('img', { name: /Off by .* at first and .* now; said within .* at first/ })).toBeVisible()
  await expect(learned.locator('svg').getByText('said within')).toBeVisible()
})
