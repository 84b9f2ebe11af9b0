import { expect, test } from './support/demo'
import { faultsOf } from './support/faults'
import { VIEWS } from './support/views'

test.describe.configure({ mode: 'parallel' })

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
