import { expect, startDemo, test as base, type Demo, type Page } from './support/demo'
import { faultsOf } from './support/faults'
import { VIEWS } from './support/views'

/**
 * Every view of the demo, opened once, in a household of ounces and °F, on a phone and at a desk: no fault of access in either theme, large
 * enough for a thumb, within its width, headings in order, no metric figure, nothing that its policy refuses, no error.
 */
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

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21aa']
const CONTRAST = { type: 'rule' as const, values: ['color-contrast'] }
/** At a desk other parts stand on these than on a phone. */
const AT_A_DESK = ['Now', 'Batch', 'Plan', 'Shelf', 'Rack', 'Blend']
/** Looked at for a thumb and for large letters. */
const FOR_EVERYONE = [
  'Now',
  'Batch',
  'Resting',
  'Batches',
  'Plan',
  'Shelf',
  'Jar',
  'Intake',
  'Kitchen',
  'Food',
  'Workshop',
  'Household',
  'Alarms',
  'Insight',
  'Practice',
  'a lesson in play',
  'Drills',
  'Data',
]

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

/** In the dim theme nothing changes but colours: half-way between two, a colour is nobody's. */
async function dim(page: Page) {
  await page.evaluate(() => {
    localStorage.setItem('dulse.theme', 'dim')
    dispatchEvent(new StorageEvent('storage', { key: 'dulse.theme', newValue: 'dim', storageArea: localStorage }))
  })
  await expect(page.locator('html.dark')).toBeAttached()
  await page.evaluate(() => Promise.all(document.getAnimations().map(animation => animation.finished.catch(() => undefined))))
}

/**
 * What is pressed and is smaller than a thumb, 44 by 44 pixels (WCAG 2.2, 2.5.5). As there, links within a sentence may be smaller, and
 * what is large by its label: a box that stands in one.
 */
const tooSmall = (page: Page) =>
  page.evaluate(() => {
    const THUMB = 44
    const shown = [...document.querySelectorAll<HTMLElement>('main a[href], main button, main summary, main input, main select')].filter(
      element => element.checkVisibility({ visibilityProperty: true, opacityProperty: true }) && !element.closest('.visually-hidden, svg'),
    )
    return shown
      .filter(element => {
        const inSentence =
          element.tagName === 'A' && getComputedStyle(element).display === 'inline' && element.closest('p, li, dd, td, span, th')
        if (inSentence) return false
        const target = element.closest<HTMLElement>('label, .el-select, .el-input, .el-checkbox') ?? element
        const { width, height } = target.getBoundingClientRect()
        return width > 1 && (height < THUMB - 0.5 || width < THUMB - 0.5)
      })
      .map(element => {
        const { width, height } = element.getBoundingClientRect()
        return `${element.tagName.toLowerCase()} “${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 40)}” ${Math.round(width)} × ${Math.round(height)}`
      })
  })

/** Levels of headings that skip one, or do not begin with one; tables without a head. */
const outOfOrder = (page: Page) =>
  page.evaluate(() => {
    const shown = <Kind extends Element>(selector: string) =>
      [...document.querySelectorAll<Kind & HTMLElement>(selector)].filter(item => item.checkVisibility())
    const levels = shown('main h1, main h2, main h3, main h4').map(item => Number(item.tagName[1]))
    return [
      ...(levels[0] === 1 && levels.filter(level => level === 1).length === 1 ? [] : [`headings ${levels.join()}`]),
      ...levels.flatMap((level, i) => (i > 0 && level > levels[i - 1]! + 1 ? [`h${level} under h${levels[i - 1]}`] : [])),
      ...shown('main table').flatMap(table => (table.querySelector('th') ? [] : [table.outerHTML.slice(0, 80)])),
    ]
  })

/** Share of the window's height that stands fast at its edges, from side to side. */
const standsFast = (page: Page) =>
  page.evaluate(() => {
    window.scrollTo(0, 300)
    const fixed = [...document.querySelectorAll<HTMLElement>('body *')].filter(element => {
      const { position } = getComputedStyle(element)
      if ((position !== 'fixed' && position !== 'sticky') || !element.checkVisibility()) return false
      const { top, bottom, width, height } = element.getBoundingClientRect()
      return height > 4 && width > innerWidth / 2 && (top <= 1 || bottom >= innerHeight - 1)
    })
    return fixed.reduce((sum, element) => sum + element.getBoundingClientRect().height, 0) / innerHeight
  })
const widthOf = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth)

for (const [name, path] of Object.entries(VIEWS))
  test(`${name}: for everyone, in either theme, on a phone and at a desk`, async ({ page, pounds }) => {
    const wrong: string[] = []
    page.on('pageerror', error => wrong.push(error.message))
    page.on('console', message => {
      if (/Content Security Policy|violates the following/i.test(message.text())) wrong.push(message.text())
    })
    await page.addInitScript(() => localStorage.setItem('dulse.theme', 'light'))
    await page.setViewportSize({ width: 390, height: 844 })
    await page.goto(pounds.address + path(pounds))
    await expect(page.locator('main h1, main h2').first()).toBeVisible()
    const everyone = FOR_EVERYONE.includes(name)
    if (everyone) {
      await expect.poll(() => tooSmall(page)).toEqual([])
      expect(await outOfOrder(page)).toEqual([])
    }
    await expect.poll(() => widthOf(page)).toBeLessThanOrEqual(390)
    expect(await faultsOf(page, TAGS)).toEqual([])
    await page.evaluate(() => document.querySelectorAll('details').forEach(element => (element.open = true)))
    const metric = async () =>
      (await page.evaluate(() => document.body.innerText.split('\n'))).filter(
        line => METRIC.test(line) && !(AS_WRITTEN[name] ?? []).some(allowed => allowed.test(line)),
      )
    expect(await metric()).toEqual([])
    if (everyone) {
      // A browser at 200 % has half of the pixels to give (WCAG 1.4.4, 1.4.10).
      await page.setViewportSize({ width: 640, height: 400 })
      expect(await standsFast(page)).toBeLessThan(0.2)
      expect(await widthOf(page)).toBeLessThanOrEqual(640)
    }
    // Colours are the theme's: what stands on a page of its own kind is looked at in both, and at a desk.
    if (everyone || AT_A_DESK.includes(name)) {
      await page.setViewportSize({ width: 1280, height: 800 })
      if (name === 'Batch') await expect(page.locator('main svg').first()).toBeVisible()
      await dim(page)
      // What is still coming in is looked at once more when it stands.
      await expect.poll(() => faultsOf(page, AT_A_DESK.includes(name) ? TAGS : CONTRAST)).toEqual([])
      expect(await metric()).toEqual([])
    }
    expect(wrong).toEqual([])
  })

test('the look itself finds what is wrong: a picture without words, a pale line', async ({ page }) => {
  await page.setContent('<html lang="en"><main><h1>One</h1><img src="x.png"><p style="color:#bbb;background:#fff">pale</p></main></html>')
  const faults = (await faultsOf(page, TAGS)).join()
  expect(faults).toContain('image-alt: img')
  expect(faults).toContain('color-contrast: p')
  expect(await faultsOf(page, CONTRAST)).toHaveLength(1)
})

test('a ring of three to one shows what has the focus, in both themes', async ({ page, demo }) => {
  for (const theme of ['light', 'dim']) {
    await page.addInitScript(value => localStorage.setItem('dulse.theme', value), theme)
    await page.goto(`${demo.address}/workshop`)
    await expect(page.locator('main h1').first()).toBeVisible()
    await page.keyboard.press('Tab')
    const ratio = await page.evaluate(() => {
      const paint = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!
      const luminance = (...colours: string[]) => {
        paint.clearRect(0, 0, 1, 1)
        for (const colour of colours) {
          paint.fillStyle = colour
          paint.fillRect(0, 0, 1, 1)
        }
        const [red, green, blue] = [...paint.getImageData(0, 0, 1, 1).data].map(value => {
          const share = value / 255
          return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
        })
        return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!
      }
      const link = document.querySelector<HTMLElement>('main a[href]')!
      link.focus({ focusVisible: true } as FocusOptions)
      const ground = getComputedStyle(document.documentElement).backgroundColor
      const [one, other] = [luminance(ground, getComputedStyle(link).outlineColor), luminance(ground)].sort((a, b) => b - a)
      return (one! + 0.05) / (other! + 0.05)
    })
    expect(ratio).toBeGreaterThan(3)
  }
})

test('a new verdict is said, and every step of a batch has a name and a role for a screen reader', async ({ page, demo }) => {
  await page.goto(`${demo.address}/batches/${demo.ids.beetroot}`)
  const curve = page.getByRole('region', { name: 'Drying curve' })
  await expect(curve.getByRole('img').first()).toBeVisible()
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict.getByRole('status').filter({ hasText: /\w/ }).first()).toBeAttached()
  // What is heard, in the order in which it is read.
  const heard = await page.getByRole('main').ariaSnapshot()
  const order = [
    /heading "Beetroot.*" \[level=1\]/,
    /region "Weight tape"/,
    /img "Solids about .* water left about .* Dry at .*"/,
    /region "Drying curve"/,
    /img "Water in the food.* From .* now .* dry at .* 8 in 10 between .*"/,
    /region "Verdict"/,
    /heading "Keep drying" \[level=2\]/,
    /group "What to do"/,
    /button "Weigh.*"/,
  ].map(words => heard.search(words))
  expect(order.every((at, i) => at >= 0 && (i === 0 || at > order[i - 1]!))).toBe(true)
})
