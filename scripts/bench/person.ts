import { chromium, type Browser, type Locator, type Page } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from '../steps.mjs'

const HOUR = 3_600_000
/** A phone with a slow processor against this machine's. */
const SLOWER = 4
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, reducedMotion: 'reduce' as const }

/** Somebody at the phone: every touch is counted, and every sign that is typed. */
class Person {
  taps = 0
  signs = 0
  constructor(readonly page: Page) {}

  private front = async (): Promise<Locator> => {
    const dialog = this.page.getByRole('dialog').filter({ visible: true }).last()
    return (await dialog.count()) > 0 ? dialog : this.page.locator('main')
  }
  async tap(target: Locator): Promise<void> {
    await target.tap()
    this.taps++
  }
  /** A button of the dialog in front, or of the page; what stands behind “More” takes a touch more. */
  async press(name: string | RegExp): Promise<void> {
    const here = await this.front()
    const button = here.getByRole('button', { name }).first()
    const more = here.locator('summary', { hasText: 'More' }).first()
    await button.or(more).first().waitFor()
    if (!(await button.isVisible())) await this.tap(more)
    await this.tap(button)
  }
  /** Opens a form by a button. */
  async form(name: string | RegExp): Promise<void> {
    await this.press(name)
    await this.page.getByRole('dialog').filter({ visible: true }).last().waitFor()
  }
  async choose(group: string | RegExp, words: string): Promise<void> {
    await this.tap((await this.front()).getByRole('group', { name: group }).getByText(words, { exact: true }))
  }
  /** Touches a field and types into it; what stands in it is typed over. */
  async fill(label: string | RegExp, text: string): Promise<void> {
    const field = (await this.front()).getByLabel(label).first()
    await this.tap(field)
    await field.fill(text)
    this.signs += text.length
  }
  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text)
    this.signs += text.length
  }
  /** Waits until the dialog is gone. */
  closed = () => this.page.locator('.el-overlay').filter({ visible: true }).waitFor({ state: 'hidden' })
}

const open = () => chromium.launch({ executablePath: findChromium(), args: BROWSER_ARGS })

export interface WalkFigures {
  taps: number
  signs: number
  /** Of one weigh-in, without its digits. */
  weighTaps: number
}

/**
 * From an empty logbook to a jar with its label on the screen, at the phone, as somebody does it who knows what they have: basket, load,
 * five weighings, the feel, rest with a look, grind, pack.
 * @param address of a Dulse with an empty logbook
 */
export async function walkToJar(address: string): Promise<WalkFigures> {
  const browser = await open()
  try {
    const page = await (await browser.newContext(PHONE)).newPage()
    const me = new Person(page)
    const main = page.locator('main')
    const begun = Date.now() - 11 * 24 * HOUR
    const clock = (hours: number) => page.clock.setFixedTime(begun + hours * HOUR)
    await clock(0)
    await page.goto(address)
    await me.press('A basket came in')
    await me.tap(page.getByRole('combobox', { name: 'Food' }))
    await me.type('beetr')
    await me.tap(page.getByRole('option', { name: 'Beetroot', exact: true }))
    await me.fill(/^Weight/, '2040')
    await me.press('Take it in')
    await main.getByRole('heading', { level: 1, name: /^Beetroot/ }).waitFor()
    await clock(0.8)
    await me.form('Load')
    await me.fill('Food on the trays', '1720')
    await me.press('Load')
    await me.closed()
    let weighTaps = 0
    for (const [hours, grams] of [
      [4, '980'],
      [7, '530'],
      [10, '318'],
      [14, '243'],
      [17, '238'],
    ] as const) {
      await clock(hours)
      const before = me.taps
      await me.form(/^Weigh/)
      const pad = page.getByRole('dialog').last()
      for (const digit of grams) {
        await pad.getByRole('button', { name: digit, exact: true }).tap()
        me.signs++
      }
      await me.tap(pad.getByRole('button', { name: 'Enter' }))
      await me.closed()
      weighTaps = me.taps - before
    }
    await me.form(/^(?:Cool and feel|Feel)/)
    await me.choose('Bend a thick piece. It', 'snaps clean')
    await me.choose('Break it open. The middle is', 'as dry as the rim')
    await me.choose('The pieces were', 'cooled')
    await me.choose('Taken from', 'three or more')
    await me.press('Log what was felt')
    await me.closed()
    await me.form(/^Take out/)
    await me.fill(/Dry weight/, '237')
    await me.press('Take out')
    await me.closed()
    await me.form('Begin the rest')
    await me.press('Begin the rest')
    await me.closed()
    await clock(42)
    await me.press(/: dry$/)
    await main
      .getByText(/looked/)
      .first()
      .waitFor()
    await clock(17 + 7.2 * 24)
    await page.reload()
    await me.form('End the rest')
    await me.press('End the rest')
    await me.closed()
    await me.form('Log the grinding')
    await me.fill('Powder out', '226')
    await me.press('Log the grinding')
    await me.closed()
    await me.form('Pack a jar')
    await me.fill('In this jar', '226')
    await me.press('Pack')
    await me.closed()
    await me.tap(main.getByRole('link', { name: 'Label', exact: true }).first())
    await main.getByRole('img', { name: /label as it is printed/ }).waitFor()
    return { taps: me.taps, signs: me.signs, weighTaps }
  } finally {
    await browser.close()
  }
}

async function slowPhone(browser: Browser): Promise<Page> {
  const page = await (await browser.newContext(PHONE)).newPage()
  const session = await page.context().newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })
  return page
}

/**
 * From a phone in the pocket, nothing of Dulse open or kept, its processor four times as slow, to a weight in the log.
 * @param batchId a batch that dries; each turn weighs a gram less than `weightG`
 * @returns ms, one for each turn, the touches at the pace of the machine
 */
export async function coldWeighIn(address: string, batchId: string, weightG: number, turns = 5): Promise<number[]> {
  const browser = await open()
  const times: number[] = []
  try {
    for (let turn = 0; turn < turns; turn++) {
      const page = await slowPhone(browser)
      const begun = performance.now()
      await page.goto(`${address}/batches/${batchId}`, { waitUntil: 'commit' })
      await page
        .locator('main')
        .getByRole('button', { name: /^Weigh/ })
        .first()
        .tap()
      const pad = page.getByRole('dialog').last()
      for (const digit of String(weightG - turn)) await pad.getByRole('button', { name: digit, exact: true }).tap()
      const written = page.waitForResponse(answer => answer.request().method() === 'POST' && answer.ok())
      await pad.getByRole('button', { name: 'Enter' }).tap()
      await written
      times.push(performance.now() - begun)
      await page.context().close()
    }
  } finally {
    await browser.close()
  }
  return times
}

/** From the page of Now to a jar, by its number in the finder: ms, one for each turn, on the slow phone. */
export async function findJar(address: string, number: number, turns = 5): Promise<number[]> {
  const browser = await open()
  const times: number[] = []
  try {
    for (let turn = 0; turn < turns; turn++) {
      const page = await slowPhone(browser)
      await page.goto(address)
      await page.locator('main h1').first().waitFor()
      await page.waitForLoadState('networkidle')
      const begun = performance.now()
      await page.keyboard.press('Control+k')
      await page.getByRole('dialog').waitFor()
      await page.keyboard.type(`jar ${number}`)
      await page.getByRole('dialog').getByText(`Jar ${number}`).first().waitFor()
      await page.keyboard.press('Enter')
      await page.locator('main').getByText(`Jar ${number}`).first().waitFor()
      times.push(performance.now() - begun)
      await page.context().close()
    }
  } finally {
    await browser.close()
  }
  return times
}

/**
 * What a picture of twelve megapixels costs: the longest frame while it is made small, and what the logbook's folder grows by.
 * @param picture its file: bytes that are handed over through the test's own line would hold up the page
 */
export async function takePhotograph(
  address: string,
  batchId: string,
  picture: string,
): Promise<{ longestFrameMs: number; frames: number; ms: number; bytes: number }> {
  const browser = await open()
  try {
    const page = await (await browser.newContext(PHONE)).newPage()
    await page.goto(`${address}/batches/${batchId}`)
    const me = new Person(page)
    await page
      .locator('main')
      .getByRole('button', { name: /^Weigh/ })
      .first()
      .waitFor()
    await page.waitForLoadState('networkidle')
    await me.form(/^Picture$/)
    const form = page.getByRole('dialog').last()
    // As text: what the compiler adds to functions is not there in the page.
    await page.evaluate(`
      window.frames12 = []
      let last = performance.now()
      const look = at => { window.frames12.push(at - last); last = at; requestAnimationFrame(look) }
      requestAnimationFrame(look)
    `)
    const begun = performance.now()
    await form.locator('input[type=file]').setInputFiles(picture)
    await form.getByRole('img', { name: /Picture 1/ }).waitFor()
    const ms = performance.now() - begun
    const frames = (await page.evaluate('window.frames12')) as number[]
    const sent = page.waitForResponse(answer => answer.url().endsWith('/api/pictures'))
    await me.press('Keep it')
    const { bytes } = (await (await sent).json()) as { bytes: number }
    return { longestFrameMs: Math.max(...frames.slice(1)), frames: frames.length, ms, bytes }
  } finally {
    await browser.close()
  }
}
