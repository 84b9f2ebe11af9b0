import { expect, test, type Page } from './support/demo'

/** Every form of every stage, on a phone and with letters twice as large: within its card, and its saving in sight. */
test.describe.configure({ mode: 'parallel' })
const SIZES = [
  { width: 390, height: 844 },
  { width: 640, height: 400 },
]
const dialogOf = (page: Page) => page.locator('.el-dialog').filter({ visible: true })
/** What was opened covers the page: it is a form, and no other page. */
const isOpen = async (page: Page) =>
  await dialogOf(page)
    .waitFor({ timeout: 4000 })
    .then(() => true)
    .catch(() => false)

/** What stands outside of its card once it is scrolled to, and what is wider than it. */
async function outside(page: Page): Promise<string[]> {
  return await dialogOf(page).evaluate(async dialog => {
    const said: string[] = []
    // A card that still comes in is not yet where it will stand.
    const ending = document.getAnimations().filter(each => Number(each.effect?.getComputedTiming().endTime) < 5000)
    await Promise.all(ending.map(each => each.finished.catch(() => undefined)))
    const card = dialog.getBoundingClientRect()
    const nameOf = (element: Element) => element.getAttribute('aria-label') ?? (element.textContent?.trim().slice(0, 30) || element.tagName)
    const within = (box: DOMRect, name: string) => {
      if (box.left < card.left - 1 || box.right > card.right + 1 || box.top < card.top - 1 || box.bottom > card.bottom + 1)
        said.push(`${name}: ${Math.round(box.top)}–${Math.round(box.bottom)} of ${Math.round(card.top)}–${Math.round(card.bottom)}`)
    }
    if (card.top < 0 || card.left < 0 || card.bottom > innerHeight + 1 || card.right > innerWidth + 1)
      said.push('the card itself is not on the screen')
    const bar = dialog.querySelector('.save-bar')
    if (bar) within(bar.getBoundingClientRect(), 'the bar that saves')
    const controls = [...dialog.querySelectorAll<HTMLElement>('input, button, textarea, select, summary, a[href]')]
    for (const control of controls) {
      if (!control.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true })) continue
      control.scrollIntoView({ block: 'center', inline: 'nearest' })
      await new Promise(resolve => requestAnimationFrame(resolve))
      const shown = control.closest('label') ?? control.closest('.el-input, .el-select') ?? control
      within(shown.getBoundingClientRect(), nameOf(shown))
    }
    const body = dialog.querySelector('.el-dialog__body')!
    if (body.scrollWidth > body.clientWidth + 1) said.push(`wider than its card by ${body.scrollWidth - body.clientWidth}`)
    return said
  })
}

const STAGES = ['intake', 'celery', 'beetroot', 'raspberry', 'plum', 'tomato', 'carrot', 'jar'] as const
for (const size of SIZES)
  // With letters twice as large the forms of one stage each of before, in and after the machine.
  for (const stage of STAGES.filter(name => size.width === 390 || ['celery', 'beetroot', 'carrot'].includes(name)))
    test(`forms of ${stage} at ${size.width}×${size.height}`, async ({ page, demo }) => {
      const errors: string[] = []
      page.on('pageerror', error => errors.push(error.message))
      await page.setViewportSize(size)
      const path = stage === 'jar' ? `/jars/${demo.ids.jar}` : stage === 'intake' ? '/intake?food=tomato' : `/batches/${demo.ids[stage]}`
      await page.goto(demo.address + path)
      const doing = page.getByRole('group', { name: 'What to do' }).first()
      if (stage === 'intake') {
        await expect(page.getByRole('button', { name: 'Take it in' })).toBeInViewport()
        expect(errors).toEqual([])
        return
      }
      await expect(doing).toBeVisible()
      // The next step of a batch stands on the first screen, at whatever size.
      if (stage !== 'jar') await expect(doing.getByRole('button').first()).toBeInViewport({ ratio: 0.5 })
      for (const more of await doing.locator('details').all()) await more.evaluate(element => ((element as HTMLDetailsElement).open = true))
      const names = await doing.getByRole('button').allTextContents()
      let opened = 0
      // What leads to another page is no form.
      for (const name of names.map(text => text.trim()).filter(text => !/^(?:Rack|Sheet|In the kitchen|Label)/.test(text))) {
        await doing.locator('details').evaluateAll(all => all.forEach(element => ((element as HTMLDetailsElement).open = true)))
        const button = doing.getByRole('button').filter({ hasText: name }).first()
        if (!(await button.isEnabled())) continue
        await button.click()
        if (await isOpen(page)) {
          // A large form is fetched when it is first wanted.
          await expect(dialogOf(page).locator('input, button[type=submit]').filter({ visible: true }).first()).toBeVisible()
          expect([name, await outside(page)]).toEqual([name, []])
          opened++
          await page.keyboard.press('Escape')
          await expect(dialogOf(page)).toBeHidden()
        } else {
          await page.goto(demo.address + path)
          await expect(doing).toBeVisible()
        }
      }
      expect(opened).toBeGreaterThan(1)
      expect(errors).toEqual([])
    })

test('what is typed is not dropped by a tap beside, Esc or Back; the pad’s Done writes it', async ({ page, demo }) => {
  const path = `/batches/${demo.ids.celery}`
  // Within the program: over a whole new page it is the browser that asks.
  await page.goto(`${demo.address}/batches`)
  await page.locator(`a[href="${path}"]`).first().click()
  await page.waitForURL(`**${path}`)
  await page
    .getByRole('button', { name: 'Note' })
    .first()
    .or(page.locator('summary', { hasText: 'More' }).first())
    .first()
    .click()
  const note = page.getByRole('button', { name: /^Note/ }).first()
  if (!(await dialogOf(page).isVisible())) await note.click()
  const field = dialogOf(page).getByRole('textbox').first()
  await field.fill('half of it smells odd')
  await page.keyboard.press('Escape')
  await expect(dialogOf(page).getByText('What you typed is not saved.')).toBeVisible()
  await dialogOf(page).getByRole('button', { name: 'Go on with it' }).click()
  await page.mouse.click(4, 400)
  await expect(dialogOf(page).getByText('What you typed is not saved.')).toBeVisible()
  await dialogOf(page).getByRole('button', { name: 'Go on with it' }).click()
  await page.goBack()
  await expect(dialogOf(page).getByText('What you typed is not saved.')).toBeVisible()
  await expect(field).toHaveValue('half of it smells odd')
  await dialogOf(page).getByRole('button', { name: 'Throw it away' }).click()
  await expect(dialogOf(page)).toBeHidden()
  expect(new URL(page.url()).pathname).toBe(path)
})
