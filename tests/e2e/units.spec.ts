import { VIEWS } from './support/views'
import { expect, startDemo, test as base, type Demo } from './support/demo'

/** Every page of the demo in an ounce and °F household: no metric figure. Its own server, since its settings are changed. */
const test = base.extend<object, { pounds: Demo }>({
  pounds: [
    // eslint-disable-next-line no-empty-pattern -- the test runner wants a pattern here
    async ({}, use) => {
      const demo = await startDemo()
      const at = `${demo.address}/api/household`
      const settings = (await (await fetch(at)).json()) as object
      const answer = await fetch(at, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...settings, weightUnit: 'oz', temperatureUnit: 'F', measures: 'us' }),
      })
      if (!answer.ok) throw new Error(await answer.text())
      await use(demo)
      await demo.server.stop()
    },
    { scope: 'worker' },
  ],
})
test.describe.configure({ mode: 'parallel' })

/** A figure with a unit that such a household does not have. What people wrote themselves, and paper sizes, are theirs. */
const METRIC = /(?:^|[\s(])[\d.,½¼¾]+[ \u00A0](?:g|kg|mm|cm|mL|L|°C)(?![\p{L}²³/])/u
const AS_WRITTEN: Record<string, RegExp[]> = {
  // Sheets of labels are sold by their millimetres.
  Label: [/× [\d.]+ mm/],
  Labels: [/× [\d.]+ mm/],
  // A dish's other lines are what somebody wrote.
  Dish: [/ flour$| salt$| water$/],
  DishEdit: [/ flour$| salt$| water$/],
  // The file that people edit is metric, and says so.
  Own: [/./],
}
for (const [name, path] of Object.entries(VIEWS))
  test(`${name} in pounds and °F`, async ({ page, pounds }) => {
    await page.goto(pounds.address + path(pounds))
    await expect(page.locator('main h1, main h2').first()).toBeVisible()
    await page.waitForLoadState('networkidle').catch(() => undefined)
    await page.evaluate(() => document.querySelectorAll('details').forEach(element => (element.open = true)))
    const lines = await page.evaluate(() => document.body.innerText.split('\n'))
    const metric = lines.filter(line => METRIC.test(line) && !(AS_WRITTEN[name] ?? []).some(allowed => allowed.test(line)))
    expect(metric).toEqual([])
  })
