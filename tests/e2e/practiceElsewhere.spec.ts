import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { parse } from 'yaml'
import { gone } from './support/acts'
import { expect, startDemo, test as base, type Demo } from './support/demo'
import { faultsOf } from './support/faults'

/** Practice and trying in a household of pounds, °F and twelve hours, on a phone, by keys alone: what holds at the desk holds here. */
const test = base.extend<object, { elsewhere: Demo }>({
  elsewhere: [
    // eslint-disable-next-line no-empty-pattern -- the test runner wants a pattern here
    async ({}, use) => {
      const demo = await startDemo()
      const household = (await (await fetch(`${demo.address}/api/household`)).json()) as Record<string, unknown>
      await fetch(`${demo.address}/api/household`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...household, weightUnit: 'oz', temperatureUnit: 'F', measures: 'us', clockHours: 12 }),
      })
      await use(demo)
      await demo.server.stop()
    },
    { scope: 'worker' },
  ],
})
test.use({ viewport: { width: 390, height: 844 } })

const LESSONS = readdirSync('core/practice/lessons')
  .sort()
  .map(name => (parse(readFileSync(join('core/practice/lessons', name), 'utf8')) as { key: string }).key)
const main = (page: Page) => page.locator('main')
const dialog = (page: Page) => page.getByRole('dialog').last()
/** Grams, kilograms, millilitres, degrees Celsius and a clock of 24 hours: none of them is this household's. */
const METRIC = /\d[\s\u00A0]?(?:k?g|ml|°C)\b|\b(?:1[3-9]|2[0-3]):[0-5]\d\b/
const wide = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth).then(over => Math.max(0, over))

/** Goes on with Tab until what is named has the focus, as a hand without a mouse does. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 150; i++) {
    await page.keyboard.press('Tab')
    const now = await page.evaluate(() => {
      const element = document.activeElement
      return (element?.getAttribute('aria-label') ?? element?.textContent ?? '').trim().replace(/\s+/g, ' ')
    })
    if (name.test(now)) return
  }
  throw new Error(`Tab never came to ${name}`)
}

/** The first, one of a jar, one of the open air: their words are of one make, which `lessons.long.test.ts` reads whole. */
for (const lesson of LESSONS.filter((_, i) => i % 5 === 0))
  test(`the lesson ${lesson} is told, played and ended in pounds and °F on a phone`, async ({ page, elsewhere }) => {
    await page.goto(`${elsewhere.address}/practice/play/${lesson}?kitchen=6`)
    const story = main(page).locator('.story')
    await expect(story).toBeVisible()
    await expect(main(page)).not.toContainText(METRIC)
    expect(await wide(page)).toBe(0)
    await story.getByRole('button').last().click()
    await main(page).getByRole('button', { name: /^1 h/ }).click()
    await expect(main(page).getByText(/1[\s\u00A0]h.* since it began/)).toBeVisible()
    await expect(main(page)).not.toContainText(METRIC)
    await main(page)
      .getByRole('button', { name: /I am done/ })
      .click()
    await expect(main(page).getByRole('row', { name: /^In points/ })).toBeVisible()
    // The end begins at its title, wherever the button stood.
    await expect(main(page).getByRole('heading', { level: 1 })).toBeFocused()
    await expect(main(page).getByRole('heading', { level: 1 })).toBeInViewport()
    await expect(main(page)).not.toContainText(METRIC)
    expect(await wide(page)).toBe(0)
    expect(await faultsOf(page, { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })).toEqual([])
  })

test('a heat that a machine of a lesson has not is refused in °F, and nothing is done', async ({ page, elsewhere }) => {
  await page.goto(`${elsewhere.address}/practice/play/night-off?kitchen=6`)
  await main(page)
    .getByRole('button', { name: /^Begin, at 7:00/ })
    .click()
  await main(page).getByRole('button', { name: /^Heat/ }).click()
  const field = dialog(page).getByRole('textbox', { name: /°F/ }).first()
  await field.fill('750')
  await dialog(page).getByRole('button', { name: 'Set the heat' }).click()
  const alert = dialog(page).getByRole('alert').filter({ hasText: /\S/ }).first()
  await expect(alert).toContainText('°F')
  await expect(alert).not.toContainText('°C')
  await field.fill('150')
  await dialog(page).getByRole('button', { name: 'Set the heat' }).click()
  await gone(page.getByRole('dialog'))
  await expect(main(page).getByText(/Corner rack, 150\s°F/)).toBeVisible()
})

test('a lesson goes by keys alone, from its story to its end', async ({ page, elsewhere }) => {
  await page.goto(`${elsewhere.address}/practice/play/bedtime?kitchen=9`)
  await expect(main(page).locator('.story')).toBeVisible()
  // Before the story has begun a key of the rack does nothing.
  await page.keyboard.press('w')
  await gone(page.getByRole('dialog'))
  await tabTo(page, /^Begin, at/)
  await page.keyboard.press('Enter')
  for (let i = 0; i < 2; i++) {
    await page.keyboard.press('.')
    await expect(main(page).getByText(new RegExp(`${i + 1}[\\s\\u00A0]h since it began`))).toBeVisible()
  }
  await page.keyboard.press('w')
  await expect(dialog(page)).toBeVisible()
  await tabTo(page, /^Put it on the scale/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Enter$/)
  await page.keyboard.press('Enter')
  // The pad goes on to the next tray.
  await expect(dialog(page).getByLabel('Weight of tray 2')).toBeVisible()
  await page.keyboard.press('Escape')
  await gone(page.getByRole('dialog'))
  await tabTo(page, /^Just show Dulse’s/)
  await page.keyboard.press('Enter')
  await expect(main(page).getByRole('region', { name: 'Verdict' })).toBeVisible()
  await tabTo(page, /^I am done/)
  await page.keyboard.press('Enter')
  await expect(main(page).getByRole('row', { name: /^In points/ })).toBeVisible()
  await tabTo(page, /^The same kitchen once more/)
})

test('drills ask and answer in the units of the household', async ({ page, elsewhere }) => {
  await page.goto(`${elsewhere.address}/practice/drills`)
  for (const kind of ['Dry from a basket', 'Water back', 'Spoons', 'Best by', 'Which is dry?']) {
    await main(page).getByText(kind, { exact: true }).first().click()
    await expect(main(page).getByRole('region', { name: 'The drill' }).getByRole('paragraph').first()).toHaveText(kind)
    await expect(main(page)).not.toContainText(METRIC)
  }
  expect(await wide(page)).toBe(0)
})

test('a try is turned by arrow keys and answers in pounds and °F, too slow and too damp in words', async ({ page, elsewhere }) => {
  await page.goto(`${elsewhere.address}/intake?food=tomato`)
  await main(page).getByLabel('Weight', { exact: false }).first().fill('6 lb')
  const tries = main(page).locator('details.try')
  await tries.locator('summary').click()
  const change = tries.getByRole('status')
  await expect(change).toHaveText('Turn at a knob: each change is told here.')
  const heat = tries.getByRole('slider', { name: /^Heat/ })
  await expect(heat).toHaveAttribute('aria-valuetext', /°F$/)
  await heat.focus()
  await page.keyboard.press('ArrowRight')
  await expect(change).toHaveText(/^Set to \d+\s°F: /)
  await expect(tries).not.toContainText(METRIC)
  // As mild as the machine goes, in air as damp as it gets: never, and why.
  await heat.focus()
  await page.keyboard.press('Home')
  const damp = tries.getByRole('slider', { name: /^Room, humidity/ })
  await damp.focus()
  await page.keyboard.press('End')
  await expect(tries.getByText('never, in this air and heat')).toBeVisible()
  await expect(change).toHaveText(/not as dry as it should be|not dry enough|no drier than/)
  expect(await wide(page)).toBe(0)
})
