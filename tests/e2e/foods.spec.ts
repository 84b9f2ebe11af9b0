import { expect, test, type Page } from '@playwright/test'
import { mouse } from './support/hands'
import { startDulse, type RunningServer } from './support/server'

/** The library: looked through, read, and added to by the household. */
let server: RunningServer
test.beforeEach(async ({ page }) => {
  server = await startDulse()
  await page.setViewportSize({ width: 1280, height: 800 })
})
test.afterEach(() => server.stop())
const main = (page: Page) => page.locator('main')

test('the library forgives spelling and knows other names', async ({ page }) => {
  await page.goto(`${server.address}/reference`)
  const look = page.getByRole('textbox', { name: 'Look for a food' })
  const foods = main(page).getByRole('link', { name: /% water/ })
  await expect(foods.first()).toBeVisible()
  expect(await foods.count()).toBeGreaterThanOrEqual(100)
  for (const [words, name] of [
    ['courgette', 'Zucchini'],
    ['zuchini', 'Zucchini'],
    ['aubergin', 'Eggplant'],
    ['chipotle', 'Jalapeño'],
    ['jalapeno', 'Jalapeño'],
    ['birds eye', 'Bird’s eye chili'],
    ['cilantro', 'Coriander leaf'],
    ['tomatoe', 'Tomato'],
  ] as const) {
    await look.fill(words)
    await expect(foods.first()).toContainText(name)
  }
  await look.fill('xylophone')
  await expect(main(page).getByText('Nothing fits “xylophone”.')).toBeVisible()
  await look.fill('')
  await main(page)
    .getByRole('button', { name: /^Seaweeds/ })
    .click()
  await expect(foods).toHaveCount(4)
  await foods.first().click()
  await expect(main(page).getByRole('region', { name: 'Method cards' })).toBeVisible()
})

test('a food of every family opens on its page with nothing missing', async ({ page }) => {
  const all = (await (await fetch(`${server.address}/api/foods`)).json()) as { key: string; name: string; group: string }[]
  expect(all.length).toBeGreaterThanOrEqual(100)
  // The pages of all foods are looked at in tests/unit/server/foods.test.ts; here, that they are drawn.
  const foods = [...new Map(all.map(food => [food.group, food])).values()]
  expect(foods.length).toBeGreaterThanOrEqual(20)
  const errors: string[] = []
  page.on('pageerror', error => errors.push(error.message))
  await page.goto(`${server.address}/reference`)
  await expect(
    main(page)
      .getByRole('link', { name: /% water/ })
      .first(),
  ).toBeVisible()
  for (const food of foods) {
    // Within the application, as a link would go.
    await page.evaluate(
      path => (window as unknown as { useNuxtApp: () => { $router: { push: (to: string) => void } } }).useNuxtApp().$router.push(path),
      `/reference/${food.key}`,
    )
    await expect(main(page).getByRole('heading', { level: 1 })).toContainText(food.name)
    const text = await main(page).innerText()
    expect(text).not.toMatch(/undefined|NaN|\{n\}|\[object/)
    for (const part of ['Ways of drying it', 'Dry is', 'Water', 'Keeps', 'Allergens', 'Where practitioners disagree'])
      expect(text).toContain(part)
  }
  expect(errors).toEqual([])
})

test('a food of one’s own is copied, refused where it makes no sense, used, and handed on as a file', async ({ page }) => {
  const hands = mouse(page)
  await page.goto(`${server.address}/reference/carrot`)
  await main(page).getByRole('button', { name: 'Copy as your own' }).click()
  await hands.fill('Name', 'Onion')
  await hands.fill('Water, %', '130 ± 2')
  await hands.press('Save')
  await expect(main(page).getByText(/130 is not possible/)).toBeVisible()
  await hands.fill('Water, %', '89 ± 1.5')
  await hands.press('Save')
  await expect(main(page).getByText(/There is “Onion” already/)).toBeVisible()
  await hands.fill('Name', 'Purple carrot')
  await main(page).getByLabel('Hours').first().fill('-3 to 8')
  await hands.press('Save')
  await expect(main(page).getByText('hours are not negative.')).toBeVisible()
  await main(page).getByLabel('Hours').first().fill('7 to 11')
  await hands.press('Save')
  await expect(main(page).getByRole('heading', { level: 1 })).toContainText('Purple carrot')
  await main(page).getByRole('button', { name: 'Own card' }).click()
  await hands.fill('Form', 'slices 9')
  await hands.fill('Hours in a dehydrator', '14 to 22')
  await hands.press('Save')
  await expect(main(page).getByRole('radio', { name: /9 mm slices/ })).toBeAttached()
  const file = await (await page.request.get(`${server.address}/api/foods/export`)).text()
  expect(file).toContain('name: Purple carrot')
  await page.goto(`${server.address}/intake`)
  await hands.pickFood('Purple carrot')
  await hands.fill('Weight', '1 kg')
  await hands.choose('Cut', '9 mm slices')
  await hands.press('Take it in')
  await expect(main(page).getByRole('heading', { level: 1, name: /Purple carrot/ })).toBeVisible()

  // A file with nonsense is refused by field and line; nothing of it is taken in.
  await page.goto(`${server.address}/reference`)
  const take = (text: string) =>
    main(page)
      .getByLabel('File of foods')
      .setInputFiles({ name: 'foods.yaml', mimeType: 'application/yaml', buffer: Buffer.from(text) })
  await take(
    `${file.replace('key: purple-carrot', 'key: other').replace('name: Purple carrot', 'name: Other carrot')}`.replace(
      '89 ± 1.5',
      '189 ± 1.5',
    ),
  )
  await expect(main(page).getByText(/Line \d+, foods\.0\.water: .*189 is not possible/)).toBeVisible()
  await take('carrots: 3\n')
  await expect(main(page).getByText(/A file of foods begins with “dulse: foods 1”/)).toBeVisible()
  await take(file)
  await expect(main(page).getByText(/1 food and 1 card taken in, 1 of them in place of older ones/)).toBeVisible()
})
