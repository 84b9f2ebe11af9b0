import { expect, test, type Demo } from './support/demo'
import { faultsOf } from './support/faults'

test.describe.configure({ mode: 'parallel' })

/** Every view, in the demo. */
const VIEWS: Record<string, (demo: Demo) => string> = {
  Now: () => '/',
  Batch: demo => `/batches/${demo.ids.beetroot}`,
  Batches: () => '/batches',
  Plan: () => '/plan',
  Garden: () => '/plan/garden',
  'Side by side': () => '/plan/compare',
  Year: () => '/plan/year',
  Fridge: () => '/plan/fridge',
  Home: () => '/home',
  Counter: () => '/counter',
  Scan: () => '/scan',
  Shelf: () => '/shelf',
  Jar: demo => `/jars/${demo.ids.jar}`,
  Label: demo => `/jars/${demo.ids.jar}/label`,
  Intake: () => '/intake?food=tomato',
  Reference: () => '/reference',
  Food: () => '/reference/hot-chili',
  Schools: () => '/reference/schools',
  Own: () => '/reference/own?from=carrot',
  Ledger: demo => `/batches/${demo.ids.celery}`,
  Freeze: demo => `/batches/${demo.ids.raspberry}`,
  Sun: demo => `/batches/${demo.ids.plum}`,
  Workshop: () => '/workshop',
  Tools: () => '/workshop/tools',
  Household: () => '/workshop/household',
  Places: () => '/workshop/places',
  Devices: () => '/workshop/devices',
  Alarms: () => '/workshop/alarms',
  Rack: demo => `/machines/${demo.ids.cabinet}`,
  Logger: () => '/logger',
  Compare: () => '/compare?food=beetroot',
  Labels: () => '/labels',
  Insight: () => '/insight',
  Practice: () => '/practice',
  'a lesson in play': () => '/practice/play/night-off?kitchen=2',
  Drills: () => '/practice/drills',
  'your own runs': () => '/practice/own',
  'how sure you are': () => '/practice/sure',
  Grind: demo => `/batches/${demo.ids.carrot}/grind`,
  Resting: demo => `/batches/${demo.ids.tomato}`,
  Recall: demo => `/batches/${demo.ids.carrot}/recall`,
  Paper: demo => `/batches/${demo.ids.beetroot}/paper`,
  Kitchen: () => '/kitchen',
  Flour: () => '/kitchen/flour',
  Fresh: () => '/kitchen/fresh',
  Blend: demo => `/kitchen/blend?recipe=${demo.ids.blend}`,
  Recipes: () => '/kitchen/recipes',
  Dish: demo => `/kitchen/recipes/${demo.ids.dish}`,
  DishEdit: demo => `/kitchen/recipes/edit?id=${demo.ids.dish}`,
  'Day on paper': () => '/print/day',
  'Shelf on paper': () => '/print/shelf',
  Count: () => '/count',
  Data: () => '/data',
  Import: () => '/data/import',
}

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21aa']
for (const [name, path] of Object.entries(VIEWS)) {
  test(`${name} has no fault of access in either theme, and fits a phone`, async ({ page, demo }) => {
    const errors: string[] = []
    page.on('pageerror', error => errors.push(error.message))
    await page.addInitScript(() => localStorage.setItem('dulse.theme', 'light'))
    await page.goto(demo.address + path(demo))
    await expect(page.locator('main h1, main h2').first()).toBeVisible()
    if (name === 'Batch') await expect(page.locator('main svg').first()).toBeVisible()
    expect(await faultsOf(page, TAGS)).toEqual([])
    // The dim theme changes colours and nothing else.
    await page.evaluate(() => {
      localStorage.setItem('dulse.theme', 'dim')
      dispatchEvent(new StorageEvent('storage', { key: 'dulse.theme', newValue: 'dim', storageArea: localStorage }))
    })
    await expect(page.locator('html.dark')).toBeAttached()
    // Colours fade into one another: a half-way colour is nobody's.
    await page.evaluate(() => Promise.all(document.getAnimations().map(animation => animation.finished.catch(() => undefined))))
    // What is still coming in is looked at once more when it stands.
    await expect.poll(() => faultsOf(page, { type: 'rule', values: ['color-contrast'] })).toEqual([])
    await page.setViewportSize({ width: 390, height: 844 })
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    // Other parts stand on a phone than at the desk.
    expect(await faultsOf(page, TAGS)).toEqual([])
    expect(errors).toEqual([])
  })
}

test('the look itself finds what is wrong: a picture without words, a pale line', async ({ page }) => {
  await page.setContent('<html lang="en"><main><h1>One</h1><img src="x.png"><p style="color:#bbb;background:#fff">pale</p></main></html>')
  const faults = (await faultsOf(page, TAGS)).join()
  expect(faults).toContain('image-alt: img')
  expect(faults).toContain('color-contrast: p')
  expect(await faultsOf(page, { type: 'rule', values: ['color-contrast'] })).toHaveLength(1)
})
