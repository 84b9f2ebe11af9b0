import { expect, test, type Page } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { gone } from './support/acts'
import { mouse } from './support/hands'
import { logged } from './support/logged'
import { startDulse, type RunningServer } from './support/server'

/** From the jar to the pot: water back, flour, fresh, blends and dishes, with the wrong figure too. */
let server: RunningServer
const log = logged(() => server)
test.beforeAll(async () => {
  server = await startDulse()
})
test.afterAll(() => server.stop())

const main = (page: Page) => page.locator('main')
const dialog = (page: Page) => page.getByRole('dialog').filter({ visible: true }).last()
const open = async (page: Page, path: string) => {
  await page.goto(server.address + path)
  await expect(page.locator('main h1').first()).toBeVisible()
}
const jarPage = (jarId: string) =>
  log.call('GET', `/api/jars/${jarId}`) as Promise<{
    leftG: number
    foodName: string
    heat?: { low: number; high: number }
    saltShare: number
    packets: { name: string }[]
    pedigree: unknown[]
    entries: { body: { use?: string } }[]
    allergens: string[]
  }>
const stock = async (foodKey: string, netG: number, more: object = {}) => {
  const jarId = uuidv7()
  await log.onJar(jarId, 2, {
    kind: 'stock',
    jarId,
    foodKey,
    purpose: 'powder',
    netG,
    packageKey: 'screw-jar',
    place: 'Spice shelf',
    ...more,
  })
  return jarId
}
const pick = async (page: Page, label: string, words: RegExp) => {
  await main(page).getByLabel(label, { exact: true }).click()
  await page.getByRole('option', { name: words }).click()
  // One list at a time: the next one holds the same names.
  await gone(page.getByRole('option'))
}

test('an empty kitchen says what it is for and leads on', async ({ page }) => {
  const own = await startDulse()
  await page.goto(`${own.address}/kitchen`)
  await expect(main(page).getByRole('heading', { name: 'Nothing to cook with yet' })).toBeVisible()
  await main(page).getByRole('button', { name: 'Put in what was bought' }).click()
  await expect(dialog(page).getByText('Spices from a shop')).toBeVisible()
  await own.stop()
})

test('pumpkin purée: powder and water by weight, more than the jar holds refused, the jar drawn down', async ({ page }) => {
  const { jarId } = await log.packed(100, { foodKey: 'pumpkin', cardKey: 'sheet', dryG: 200, weightG: 3000 })
  await open(page, `/kitchen?jar=${jarId}`)
  const hands = mouse(page)
  const answer = main(page).getByRole('region', { name: 'What to weigh' })
  await expect(answer.getByText(/solids$/).first()).toBeVisible()
  await hands.choose('Into', 'By solids')
  await hands.fill('Solids, percent', '10')
  await hands.fill('So much of it', '570')
  // 57 g of solids in powder of 6 % water are 60.6 g of it.
  await expect(answer.getByText('61.g', { exact: true }).or(answer.getByText(/^61.g$/))).toBeVisible()
  await expect(answer.getByText(/^509.g$/)).toBeVisible()
  await expect(answer.getByText(/Hold back 51.g/)).toBeVisible()
  await hands.fill('So much of it', '4 kg')
  await expect(answer.getByText(/are missing/)).toBeVisible()
  await expect(answer.getByRole('button', { name: /^Take/ })).toBeDisabled()
  await hands.fill('So much of it', '-5')
  await expect(answer.getByText('Say how much.')).toBeVisible()
  await hands.fill('So much of it', '570')
  await answer.getByRole('button', { name: /^Take/ }).click()
  await expect(answer.getByRole('status')).toContainText('taken from jar')
  const jar = await jarPage(jarId)
  expect(jar.leftG).toBeCloseTo(190 - 60.6, 1)
  expect(jar.entries.at(-1)!.body.use).toMatch(/570 g/)
})

test('solids drier than the powder are refused with the reason', async ({ page }) => {
  const { jarId } = await log.packed(95)
  await open(page, `/kitchen?jar=${jarId}`)
  const hands = mouse(page)
  await hands.choose('Into', 'By solids')
  await hands.fill('Solids, percent', '96')
  await expect(main(page).getByText(/The powder itself holds 6.% water: what is made of it must hold more/)).toBeVisible()
  await hands.fill('Solids, percent', 'thick')
  await hands.fill('So much of it', '200')
  await expect(main(page).getByText('“thick” is not a number.')).toBeVisible()
})

test('a spoon is weighed once, and spoons are the jar’s own from then on', async ({ page }) => {
  const { jarId } = await log.packed(90, { foodKey: 'carrot', cardKey: 'shreds' })
  await open(page, `/kitchen/fresh?jar=${jarId}`)
  await main(page).getByRole('button', { name: 'Weigh a level spoon' }).click()
  await main(page).getByLabel('A level tablespoon holds').fill('9')
  await main(page).getByRole('button', { name: 'Keep it' }).click()
  await expect(main(page).getByText(/level tablespoon of this jar weighs 9.g, as weighed/)).toBeVisible()
  await expect(
    main(page)
      .getByRole('row', { name: /1 tablespoon/ })
      .first(),
  ).toContainText('9')
})

test('fresh both ways: a medium carrot and a spoon of its powder, by dry matter', async ({ page }) => {
  const { jarId } = await log.packed(85, { foodKey: 'carrot', cardKey: 'shreds' })
  await open(page, `/kitchen/fresh?jar=${jarId}`)
  await expect(main(page).getByRole('row', { name: /a medium carrot/ })).toContainText(/60.g/)
  await main(page).getByLabel('So much fresh').fill('1 kg')
  // 11.7 % dry matter fresh (USDA), 94 % in the jar.
  await expect(main(page).getByText(/^12[345].g$/)).toBeVisible()
})

test('flour: a third at most, by volume, and the water that it drinks', async ({ page }) => {
  const { jarId } = await log.packed(75)
  await open(page, `/kitchen/flour?jar=${jarId}`)
  const hands = mouse(page)
  const answer = main(page).getByRole('region', { name: 'What to weigh' })
  await hands.fill('Flour in the recipe', '530')
  await expect(answer.getByText(/^477.g$/)).toBeVisible()
  await hands.choose('In place of', 'A third')
  await expect(answer.getByText(/^353.g$/)).toBeVisible()
  await hands.fill('Flour in the recipe', '2 cups')
  await expect(answer.getByText(/^177.g$/)).toBeVisible()
  await hands.fill('Flour in the recipe', 'some')
  await expect(main(page).getByText(/not a weight/)).toBeVisible()
})

test('a blend: bought-in spice, wanted heat solved for, made, and its jar knows where all came from', async ({ page }) => {
  const mild = await stock('dried-mild-chili', 200)
  const hot = await stock('hot-chili', 80)
  const hands = mouse(page)
  await open(page, '/shelf')
  await main(page).getByRole('button', { name: 'Put in what was bought' }).click()
  await dialog(page).getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(dialog(page).getByText(/Choose what it is/)).toBeVisible()
  await dialog(page).getByLabel('What it is').click()
  await page.keyboard.type('mustard pow')
  await page.getByRole('option', { name: /^Mustard powder/ }).click()
  await hands.fill('It weighs, without the jar', '50')
  await dialog(page).getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(main(page).getByRole('heading', { name: 'Mustard powder, fine powder' })).toBeVisible()
  const mustard = page.url().split('/').at(-1)!

  await open(page, `/kitchen/blend?jar=${mild}`)
  for (let i = 2; i <= 3; i++) await main(page).getByRole('button', { name: 'Another jar' }).click()
  await pick(page, 'Jar 2', /^Hot red chili/)
  await pick(page, 'Jar 3', /^Mustard powder/)
  for (const [i, grams] of [
    [1, '60'],
    [2, '6'],
    [3, '14'],
  ] as const) {
    await main(page).getByLabel(`Weight ${i}`, { exact: true }).fill(grams)
    await main(page).getByLabel(`Weight ${i}`, { exact: true }).press('Tab')
  }
  const becomes = main(page).getByRole('region', { name: 'What it becomes' })
  await expect(becomes.getByText(/mustard/)).toBeVisible()
  await expect(becomes.getByText(/Gloves/)).toBeVisible()
  // A line that cannot be read is not left out in silence: neither of the solver nor of the jar.
  await main(page).getByLabel('Weight 2', { exact: true }).fill('a pinch')
  await main(page).getByLabel('Weight 2', { exact: true }).press('Tab')
  await main(page).getByLabel('Its name').fill('Quay rub')
  for (const name of ['Find the weights', /^Fill/]) {
    await main(page).getByRole('button', { name }).click()
    await expect(main(page).getByText('Put the marked lines right first, or take them out.').last()).toBeVisible()
  }
  await main(page).getByLabel('Its name').fill('')
  await main(page).getByLabel('Weight 2', { exact: true }).fill('6')
  await main(page).getByLabel('Weight 2', { exact: true }).press('Tab')
  await main(page).getByLabel('Hold line 3 fast').check({ force: true })
  await hands.fill('So much of it', '80')
  await hands.choose('Heat', 'A figure')
  await hands.fill('Scoville units', '900000')
  await main(page).getByRole('button', { name: 'Find the weights' }).click()
  await expect(main(page).getByText(/Nothing in it is that hot/)).toBeVisible({ timeout: 20_000 })
  await hands.fill('Scoville units', '6000')
  await main(page).getByRole('button', { name: 'Find the weights' }).click()
  await expect(main(page).getByLabel('Weight 2', { exact: true })).not.toHaveValue('6 g')
  await expect(main(page).getByLabel('Weight 3', { exact: true })).toHaveValue('14 g')
  await main(page).getByLabel('Toasted to 3').fill('13.2')
  await main(page).getByLabel('Toasted to 3').press('Tab')
  await main(page).getByRole('button', { name: /^Fill/ }).click()
  await expect(main(page).getByText(/Give the blend a name/)).toBeVisible()
  await hands.fill('Its name', 'Harbour heat')
  await main(page).getByRole('button', { name: /^Fill/ }).click()
  await expect(main(page).getByRole('heading', { name: 'Harbour heat, fine powder' })).toBeVisible()
  await expect(main(page).getByText('contains mustard')).toBeVisible()
  const made = await jarPage(page.url().split('/').at(-1)!)
  expect(made.packets.map(packet => packet.name).sort()).toEqual(['Dried mild chili', 'Hot red chili', 'Mustard powder'])
  const middle = Math.sqrt(made.heat!.low * made.heat!.high)
  expect(middle).toBeGreaterThan(4000)
  expect(middle).toBeLessThan(9000)
  expect(made.leftG).toBeCloseTo(79.2, 0)
  expect((await jarPage(mustard)).leftG).toBeCloseTo(36, 6)
  expect((await jarPage(hot)).leftG).toBeLessThan(74)
  const label = await (await fetch(`${server.address}/api/jars/${page.url().split('/').at(-1)}/label.svg`)).text()
  expect(label).toMatch(/SHU/)
  expect(label).toMatch(/Contains mustard/)
  await main(page).getByRole('link', { name: 'Every jar of this packet' }).first().click()
  await expect(main(page).getByRole('row', { name: /Harbour heat/ })).toBeVisible()
})

test('whole spoons only: every weight is one that a spoon can do', async ({ page }) => {
  const salt = await stock('salt', 400)
  await stock('cumin', 90)
  await open(page, `/kitchen/blend?jar=${salt}`)
  await main(page).getByRole('button', { name: 'Another jar' }).click()
  await pick(page, 'Jar 2', /^Cumin/)
  // A tablespoon of 15 mL at 0.45 g/mL.
  await main(page).getByLabel('Weight 2', { exact: true }).fill('1 tbsp')
  await main(page).getByLabel('Weight 2', { exact: true }).press('Tab')
  await expect(main(page).getByLabel('Weight 2', { exact: true })).toHaveValue('6.8 g')
  await main(page).getByLabel('Weight 2', { exact: true }).fill('31')
  await main(page).getByLabel('Weight 2', { exact: true }).press('Tab')
  await mouse(page).fill('So much of it', '43')
  await main(page).getByText('Whole spoons only').click()
  await main(page).getByRole('button', { name: 'Find the weights' }).click()
  // Half a teaspoon of cumin at 0.45 g/mL is 1.125 g.
  await expect(async () => {
    const grams = Number.parseFloat(await main(page).getByLabel('Weight 2', { exact: true }).inputValue())
    expect(grams).not.toBe(31)
    expect(Math.abs(grams / 1.125 - Math.round(grams / 1.125))).toBeLessThan(0.45)
  }).toPass({ timeout: 20_000 })
})

test('a dish is written down, cooked twice over, and its jars are drawn down by their own density', async ({ page }) => {
  const { jarId } = await log.packed(80, { foodKey: 'celery', cardKey: 'slices-6', dryG: 210 })
  const hands = mouse(page)
  await open(page, '/kitchen/recipes')
  await main(page).getByRole('button', { name: 'A new dish' }).click()
  await main(page).getByRole('button', { name: 'Keep it' }).click()
  await expect(main(page).getByText('Give the dish a name.')).toBeVisible()
  await expect(main(page).getByText('Powder 1: say how much, above zero.')).toBeVisible()
  await hands.fill('Name', 'Quay broth')
  await main(page).getByLabel('Of', { exact: true }).click()
  await page.getByRole('option', { name: 'Celery', exact: true }).click()
  await hands.fill('So much', '40')
  await main(page).getByRole('combobox', { name: 'in', exact: true }).press('Enter')
  await page.getByRole('option', { name: 'grams of the fresh food' }).click()
  await main(page).getByText('Water back first').click()
  await hands.fill('The rest, a line each', '1 L water\nsalt')
  await main(page).getByRole('button', { name: 'Keep it' }).click()
  await expect(main(page).getByRole('heading', { name: 'Quay broth' })).toBeVisible()
  await expect(main(page).getByText('Contains celery')).toBeVisible()
  await expect(main(page).getByText('First its water back')).toBeVisible()
  await hands.choose('How much of it', 'Twice')
  await expect(main(page).getByText('2 L water')).toBeVisible()
  const before = (await jarPage(jarId)).leftG
  await main(page).getByRole('button', { name: 'Take them from the jars' }).click()
  await expect(main(page).getByRole('status')).toHaveText('Taken from 1 jar.')
  // 80 g fresh of 95.4 % water (USDA), powder of 6 %: 3.9 g.
  expect(before - (await jarPage(jarId)).leftG).toBeCloseTo(3.9, 1)
  await main(page).getByRole('button', { name: 'Remove it' }).click()
  await main(page).getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(main(page).getByText('None yet.')).toBeVisible()
  await main(page).getByText('Changed or removed: 1').click()
  await main(page)
    .getByRole('button', { name: /^Take back Quay broth, removed/ })
    .click()
  await expect(main(page).getByRole('link', { name: /Quay broth/ })).toBeVisible()
})

test('the household’s units hold in the kitchen, on labels and in exports', async ({ page }) => {
  const own = await startDulse()
  const there = logged(() => own)
  const { jarId } = await there.packed(50, { foodKey: 'tomato', cardKey: 'slices-6' })
  await page.goto(`${own.address}/workshop/household`)
  const hands = mouse(page)
  await hands.choose('Weights', 'Pounds and ounces')
  await hands.choose('Temperatures', '°F')
  await hands.choose('Spoons and cups', 'US')
  await page.getByRole('combobox', { name: 'How dates are written' }).press('Enter')
  await page.getByRole('option', { name: /United States/ }).click()
  await page.getByRole('button', { name: 'Save the household' }).click()
  await expect(page.getByRole('status').filter({ hasText: /\w/ })).toBeVisible()
  await page.goto(`${own.address}/kitchen?jar=${jarId}`)
  await hands.fill('So much of it', '1 lb')
  const answer = main(page).getByRole('region', { name: 'What to weigh' })
  await expect(answer.getByText(/^1.lb$/)).toBeVisible()
  await expect(answer.getByText(/oz$/).first()).toBeVisible()
  const label = await (await fetch(`${own.address}/api/jars/${jarId}/label.svg`)).text()
  expect(label).toMatch(/oz/)
  expect(await (await fetch(`${own.address}/api/export/tables/temperatures.csv`)).text()).toMatch(/set_f/)
  expect(await (await fetch(`${own.address}/api/export/tables/jars.csv`)).text()).toMatch(/left_oz/)
  await own.stop()
})
