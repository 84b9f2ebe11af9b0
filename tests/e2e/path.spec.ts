import { expect, test, type Page } from '@playwright/test'
import { leaveForm, gone } from './support/acts'
import { keyboard, mouse, type Hands } from './support/hands'
import { startDulse, type RunningServer } from './support/server'

// Each has a server of its own.
test.describe.configure({ mode: 'parallel' })

const HOUR = 3_600_000
let server: RunningServer
test.beforeEach(async () => {
  server = await startDulse()
})
test.afterEach(async () => {
  await server.stop()
})

/** From an empty logbook to a labelled jar, as a person would go about it over ten days. */
async function walk(page: Page, hands: Hands) {
  const begun = Date.now() - 11 * 24 * HOUR
  const clock = (hours: number) => page.clock.setFixedTime(begun + hours * HOUR)
  const main = page.locator('main')
  const dialog = page.getByRole('dialog')
  const open = async (name: string | RegExp) => {
    await hands.press(name)
    await expect(dialog).toBeVisible()
  }
  const save = async (name: string) => {
    await hands.press(name)
    await gone(dialog)
  }

  await clock(0)
  await page.goto(server.address)
  await expect(main.getByRole('heading', { name: 'Nothing is drying yet' })).toBeVisible()

  // Intake, with the forecast before it is accepted, and a word where something is missing.
  await hands.basket()
  await gone(dialog)
  await expect(main.getByRole('heading', { name: 'A basket came in' })).toBeVisible()
  await hands.press('Take it in')
  await expect(main.getByText('Choose the food.')).toBeVisible()
  await hands.pickFood('Beetroot')
  await hands.fill('Weight', 'heavy')
  await hands.press('Take it in')
  await expect(main.getByText(/How much is “heavy”\?/)).toBeVisible()
  await hands.fill('Weight', '4 lb 8 oz')
  await expect(main.getByText(/2\.04.kg/)).toBeVisible()
  const forecast = page.getByRole('region', { name: 'Forecast' })
  await expect(forecast.getByText(/trays?$/).first()).toBeVisible()
  await expect(forecast.getByText(/started now it ends/)).toBeVisible()
  await expect(forecast.getByText(/about .* of powder/)).toBeVisible()
  await hands.press('Take it in')
  await expect(main.getByRole('heading', { name: 'Beetroot, 3 mm slices' })).toBeVisible()

  // Prep.
  await clock(0.4)
  await open('Log a step')
  await hands.fill(/What came off/, '310')
  await save('Log this step')
  await expect(main.getByText(/trim, 310.g off/)).toBeVisible()

  // Load: too much first.
  await clock(0.8)
  await open('Load')
  await hands.fill('Food on the trays', '2.5 kg')
  await hands.press('Load')
  await expect(page.getByRole('dialog').getByText(/2\.50\skg on the trays is more than the 1\.73\skg there can be/)).toBeVisible()
  await hands.fill('Food on the trays', '1720')
  await save('Load')
  await expect(main.getByText(/loaded 1\.72.kg on trays/)).toBeVisible()
  await expect(main.getByText(/heat on, 57.°C/)).toBeVisible()
  await expect(main.getByRole('heading', { name: 'Keep drying' })).toBeVisible()

  // Dry: weigh-ins, one of them wrong and corrected, the heat off and on again.
  await clock(4)
  await hands.weigh(['980'])
  await expect(main.getByText(/980.g now/)).toBeVisible()
  await gone(dialog)
  await expect(main.getByText(/Dry .*, 8 in 10/)).toBeVisible()
  await clock(6.8)
  await hands.weigh(['5300'])
  await expect(page.getByRole('dialog').getByText(/5\.30\skg is more than the 1\.72\skg that was loaded/)).toBeVisible()
  await leaveForm(page)
  await gone(page.getByRole('dialog'))
  await hands.weigh(['570'])
  await expect(main.getByText(/570.g now/)).toBeVisible()
  await gone(dialog)
  await open(/^Correct: weighed 570/)
  await hands.fill('Whole load, food only', '530')
  await save('Save the correction')
  await expect(main.getByText(/530.g now/)).toBeVisible()
  await expect(main.getByText(/corrected; was: weighed 570/)).toBeVisible()
  await clock(7)
  await open(/^Heat/)
  await hands.choose('Heat', 'Off')
  await save('Set the heat')
  await expect(main.getByText('The heat is off: there is no finish until it is on again.')).toBeVisible()
  await clock(8)
  await open(/^Heat/)
  await save('Set the heat')
  await expect(main.getByText(/57.°C, 6.h/)).toBeVisible()
  for (const [hours, grams] of [
    [10, '318'],
    [13, '252'],
    [15, '240'],
    [17, '238'],
  ] as const) {
    await clock(hours)
    await hands.weigh([grams])
    await expect(main.getByText(new RegExp(`${grams}.g now`))).toBeVisible()
    await gone(dialog)
  }

  // Test.
  await open(/^(?:Cool and feel|Feel)/)
  await hands.choose('Bend a thick piece. It', 'snaps clean')
  await hands.choose('Break it open. The middle is', 'as dry as the rim')
  await hands.choose('The pieces were', 'cooled')
  await hands.choose('Taken from', 'three or more')
  await save('Log what was felt')
  await expect(main.getByRole('heading', { name: /Dry enough to rest|Keep drying|Cool some/ })).toBeVisible()
  await expect(main.getByText('Snaps clean, as dry as the rim', { exact: true })).toBeVisible()

  // Rest, grind, pack.
  await open('Take out')
  await hands.fill(/Dry weight/, '237')
  await save('Take out')
  await open('Begin the rest')
  await save('Begin the rest')
  await expect(main.getByRole('heading', { name: 'Day 0 of 7 in the jar' })).toBeVisible()
  await clock(42)
  await open('Log a look')
  await hands.choose('Shaken, the jar shows', 'no moisture')
  await save('Log the look')
  await expect(main.getByText('looked: no moisture')).toBeVisible()
  await clock(17 + 7.2 * 24)
  await page.reload()
  await expect(main.getByRole('heading', { name: 'The rest is over' })).toBeVisible()
  await open('End the rest')
  await save('End the rest')
  await open('Log the grinding')
  await hands.fill('Powder out', '260')
  await hands.press('Log the grinding')
  await expect(page.getByRole('dialog').getByText(/260\sg of powder is more than the 237\sg that went in/)).toBeVisible()
  await hands.fill('Powder out', '226')
  await save('Log the grinding')
  await expect(main.getByRole('heading', { name: /226.g to pack/ })).toBeVisible()
  await open('Pack a jar')
  await hands.fill('In this jar', '300')
  await hands.press('Pack')
  await expect(page.getByRole('dialog').getByText(/Only 226\sg of powder is left to pack/)).toBeVisible()
  await hands.fill('In this jar', '120')
  await hands.fill('Where it stands', 'Top board')
  await expect(dialog.getByText(/^\s*Best by/)).toBeVisible()
  await save('Pack')
  await expect(main.getByRole('heading', { name: /106.g to pack/ })).toBeVisible()
  await open('Pack a jar')
  await hands.fill('In this jar', '106')
  await save('Pack')
  await expect(main.getByText(/packed 106.g/)).toBeVisible()

  // The shelf, the jar, its label.
  await page.goto(`${server.address}/shelf`)
  await expect(main.getByRole('heading', { name: /2 jars, 226.g/ })).toBeVisible()
  const jar = main.getByRole('link', { name: /Beetroot/ }).first()
  await jar.focus()
  await page.keyboard.press('Enter')
  await expect(main.getByText('Where it came from')).toBeVisible()
  await open('Take some')
  await hands.fill('Taken', '15')
  await save('Take')
  await expect(main.getByText(/took 15.g/)).toBeVisible()
  await hands.press('Label')
  await expect(main.getByRole('img', { name: /label as it is printed/ })).toBeVisible()
  const address = page.url()
  const svg = await (await page.request.get(`${server.address}/api${new URL(address).pathname.replace('/label', '/label.svg')}`)).text()
  expect(svg).toContain('Beetroot')
  expect(svg).toContain('Batch 1 · jar')
  const pdf = await page.request.get(`${server.address}/api${new URL(address).pathname.replace('/label', '/label.pdf')}`)
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')

  // The basket’s whole way stands in the log, the wrong weight too.
  const log = await (await page.request.get(`${server.address}/api/export.csv`)).text()
  for (const kind of ['intake', 'prep', 'load', 'heat', 'weigh', 'feel', 'unload', 'rest', 'look', 'restEnd', 'grind', 'pack', 'take'])
    expect(log).toContain(`,${kind},`)
  expect(log).toContain('570')
  expect(log).not.toContain('5300')
}

test.describe('with its fades', () => {
  test.use({ viewport: { width: 1280, height: 800 }, contextOptions: { reducedMotion: 'no-preference' } })
  test('by mouse at 1280 × 800', async ({ page }) => {
    await walk(page, mouse(page))
  })
})

test('by keyboard alone', async ({ page }) => {
  // Every field is reached by Tab, key by key.
  test.setTimeout(480_000)
  await page.setViewportSize({ width: 1280, height: 800 })
  await walk(page, keyboard(page))
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('by thumb at 390 × 844', async ({ page }) => {
    await walk(page, mouse(page, true))
    const wide = await page.evaluate(() => document.documentElement.scrollWidth)
    expect(wide).toBeLessThanOrEqual(390)
  })
})
