import { expect, test, type Page } from './support/demo'
import { VIEWS } from './support/views'

/** What holds for everyone: a thumb, a keyboard, a screen reader, large letters. */
test.describe.configure({ mode: 'parallel' })

const PAGES = [
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
].map(name => [name, VIEWS[name]!] as const)

async function open(page: Page, address: string) {
  await page.goto(address)
  await expect(page.locator('main h1').first()).toBeVisible()
  await page.waitForLoadState('networkidle')
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

for (const [name, path] of PAGES) {
  test(`${name}: large enough for a thumb, headings in order, tables headed`, async ({ page, demo }) => {
    await page.setViewportSize({ width: 390, height: 844 })
    await open(page, demo.address + path(demo))
    await expect.poll(() => tooSmall(page)).toEqual([])
    const levels = await page.evaluate(() =>
      [...document.querySelectorAll('main h1, main h2, main h3, main h4')]
        .filter(item => item.checkVisibility())
        .map(item => Number(item.tagName[1])),
    )
    expect(levels[0]).toBe(1)
    expect(levels.filter(level => level === 1)).toHaveLength(1)
    expect(levels.filter((level, i) => i > 0 && level > levels[i - 1]! + 1)).toEqual([])
    const unheaded = await page.evaluate(() =>
      [...document.querySelectorAll('main table')]
        .filter(table => table.checkVisibility() && !table.querySelector('th'))
        .map(table => table.outerHTML.slice(0, 80)),
    )
    expect(unheaded).toEqual([])
  })

  test(`${name}: at 200 % what stands still takes less than a fifth`, async ({ page, demo }) => {
    // A browser at 200 % has half of the pixels to give (WCAG 1.4.4, 1.4.10).
    await page.setViewportSize({ width: 640, height: 400 })
    await open(page, demo.address + path(demo))
    await page.evaluate(() => window.scrollTo(0, 300))
    const share = await page.evaluate(() => {
      const fixed = [...document.querySelectorAll<HTMLElement>('body *')].filter(element => {
        const { position } = getComputedStyle(element)
        if ((position !== 'fixed' && position !== 'sticky') || !element.checkVisibility()) return false
        const { top, bottom, width, height } = element.getBoundingClientRect()
        // What stands fast at the edge of the window, from side to side.
        return height > 4 && width > innerWidth / 2 && (top <= 1 || bottom >= innerHeight - 1)
      })
      return fixed.reduce((sum, element) => sum + element.getBoundingClientRect().height, 0) / innerHeight
    })
    expect(share).toBeLessThan(0.2)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640)
  })
}

test('a ring of three to one shows what has the focus, in both themes', async ({ page, demo }) => {
  for (const theme of ['light', 'dim']) {
    await page.addInitScript(value => localStorage.setItem('dulse.theme', value), theme)
    await open(page, `${demo.address}/workshop`)
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
  await open(page, `${demo.address}/batches/${demo.ids.beetroot}`)
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
