import { expect, type Locator, type Page } from '@playwright/test'
import { pressAct } from './acts'

/** The ways in which a person works the interface. Names are what stands on the screen. */
export interface Hands {
  press(name: string | RegExp): Promise<void>
  fill(label: string | RegExp, text: string): Promise<void>
  choose(group: string | RegExp, option: string): Promise<void>
  pickFood(name: string): Promise<void>
  /** Opens the form to weigh and types one number. */
  weigh(numbers: string[]): Promise<void>
  /** Begins a new basket. */
  basket(): Promise<void>
}

/** The dialog in front, or the page. */
async function front(page: Page): Promise<Locator> {
  const dialog = page.getByRole('dialog').filter({ visible: true }).last()
  return (await dialog.count()) > 0 ? dialog : page.locator('main')
}

export function mouse(page: Page, phone = false): Hands {
  const hands: Hands = {
    async press(name) {
      await pressAct(await front(page), name)
    },
    async fill(label, text) {
      await (await front(page)).getByLabel(label).first().fill(text)
    },
    async choose(group, option) {
      await (await front(page)).getByRole('group', { name: group }).getByText(option, { exact: true }).click()
    },
    async pickFood(name) {
      await page.getByRole('combobox', { name: 'Food' }).click()
      await page.keyboard.type(name)
      await page.getByRole('option', { name, exact: true }).click()
    },
    async weigh(numbers) {
      await page
        .locator('main')
        .getByRole('button', { name: /^Weigh/ })
        .click()
      for (const number of numbers) {
        // The pad, digit by digit: what a wet thumb does.
        for (const digit of number) await page.getByRole('dialog').getByRole('button', { name: digit, exact: true }).click()
        await page.getByRole('dialog').getByRole('button', { name: 'Enter' }).click()
      }
    },
    async basket() {
      await (
        phone
          ? page.getByRole('navigation', { name: 'Places' }).getByRole('button', { name: 'Log' }).last()
          : page.getByRole('banner').getByRole('button', { name: /^Log/ })
      ).click()
      await page.getByRole('dialog').getByRole('button', { name: 'A basket came in' }).click()
    },
  }
  return hands
}

/** So near the last steps are watched one by one: what a list of fields says of the order is not quite what Tab does. */
const NEAR = 6

/** About how many steps of Tab lie before an element, by the order of the page; none where it lies behind. */
const tabsBefore = (target: Locator) =>
  target.evaluate(element => {
    const dialogs = [...document.querySelectorAll<HTMLElement>('.el-overlay [role=dialog]')].filter(dialog => dialog.checkVisibility())
    const stops = [
      ...(dialogs.at(-1) ?? document).querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, summary, [tabindex="0"]'),
    ].filter(
      stop =>
        stop.tabIndex >= 0 &&
        !(stop as HTMLButtonElement).disabled &&
        stop.checkVisibility() &&
        !(stop instanceof HTMLInputElement && stop.type === 'radio' && !stop.checked),
    )
    const at = (item: Element | null) => stops.findIndex(stop => stop === item || item?.contains(stop))
    return at(element) - at(document.activeElement)
  })

/** Nothing but keys: Tab, arrows, letters, Enter. */
export function keyboard(page: Page): Hands {
  async function tabTo(target: Locator) {
    await expect(target).toBeVisible()
    // Most of the way at a stretch, the last steps one by one.
    for (let i = await tabsBefore(target); i > NEAR; i--) await page.keyboard.press('Tab')
    for (let i = 0; i < 120; i++) {
      if (await target.evaluate(element => element === document.activeElement || element.contains(document.activeElement))) return
      await page.keyboard.press('Tab')
    }
    throw new Error(`Tab never reaches ${target}`)
  }
  return {
    async press(name) {
      const here = await front(page)
      const button = here.getByRole('button', { name }).first()
      const more = here.locator('summary', { hasText: 'More' }).first()
      await button.or(more).first().waitFor()
      if (!(await button.isVisible())) {
        await tabTo(more)
        await page.keyboard.press('Enter')
      }
      await tabTo(button)
      await page.keyboard.press('Enter')
    },
    async fill(label, text) {
      await tabTo((await front(page)).getByLabel(label).first())
      await page.keyboard.press('Control+A')
      await page.keyboard.type(text)
    },
    async choose(group, option) {
      const radios = (await front(page)).getByRole('group', { name: group })
      const wanted = radios.getByRole('radio', { name: option })
      const checked = radios.locator('input:checked')
      await tabTo((await checked.count()) > 0 ? checked : radios.getByRole('radio').first())
      for (let i = 0; i < 12 && !(await wanted.evaluate(element => element === document.activeElement)); i++)
        await page.keyboard.press('ArrowRight')
      if (!(await wanted.isChecked())) await page.keyboard.press('Space')
      await expect(wanted).toBeChecked()
    },
    async pickFood(name) {
      await tabTo(page.getByRole('combobox', { name: 'Food' }))
      await page.keyboard.type(name)
      await page.keyboard.press('Enter')
    },
    async weigh(numbers) {
      await page.keyboard.press('w')
      await expect(page.getByRole('dialog').getByRole('textbox')).toBeFocused()
      for (const number of numbers) {
        await page.keyboard.type(number)
        const told = page.getByRole('dialog').getByText('is logged')
        await page.keyboard.press('Enter')
        await told
          .first()
          .waitFor({ state: 'attached', timeout: 1500 })
          .catch(() => undefined)
      }
    },
    async basket() {
      await page.keyboard.press('l')
      const button = page.getByRole('dialog').getByRole('button', { name: 'A basket came in' })
      await tabTo(button)
      await page.keyboard.press('Enter')
    },
  }
}
