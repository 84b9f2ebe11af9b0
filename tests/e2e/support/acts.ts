import { expect, type Locator, type Page } from '@playwright/test'

/** Waits until none of them is there: watched in the page, where asking again and again would be a second late. */
export const gone = (what: Locator): Promise<void> => what.first().waitFor({ state: 'detached' })

/** Presses what a page offers to do; what stands behind “More” is opened first. */
export async function pressAct(scope: Locator, name: string | RegExp): Promise<void> {
  const button = scope.getByRole('button', { name }).first()
  const more = scope.locator('summary', { hasText: 'More' }).first()
  await button.or(more).first().waitFor()
  // A page that is still coming in may draw its steps once more, closed: nobody is so quick, a test is.
  let pressed = false
  await expect(async () => {
    // A press that came through after its time has opened its form already.
    if (pressed && (await scope.page().getByRole('dialog').filter({ visible: true }).count()) > 0) return
    if (!(await button.isVisible())) await more.click({ timeout: 2000 })
    pressed = true
    await button.click({ timeout: 2000 })
  }).toPass()
}

/** Leaves the form in front without saving: what was typed is thrown away, where that is asked. */
export async function leaveForm(page: Page): Promise<void> {
  await page.keyboard.press('Escape')
  const away = page.getByRole('button', { name: 'Throw it away' })
  await away
    .waitFor({ timeout: 1500 })
    .then(() => away.click())
    .catch(() => undefined)
}
