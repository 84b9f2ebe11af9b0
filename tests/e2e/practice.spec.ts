import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { parse } from 'yaml'
import { expect, test } from './support/demo'
import { pressAct, gone } from './support/acts'

const LESSON_FILES = readdirSync('core/practice/lessons')
  .sort()
  .map(name => ({ name, text: readFileSync(join('core/practice/lessons', name), 'utf8') }))
const main = (page: Page) => page.locator('main')
const dialog = (page: Page) => page.getByRole('dialog').last()

/** Every file of the logbook's folder, byte for byte; what SQLite shares between processes is none of its content. */
function digest(folder: string): Record<string, string> {
  return Object.fromEntries(
    readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter(name => statSync(join(folder, name)).isFile() && !/-shm$|in-use/.test(name))
      .sort()
      .map(name => [
        name,
        createHash('sha256')
          .update(readFileSync(join(folder, name)))
          .digest('hex'),
      ]),
  )
}

async function begin(page: Page, address: string, lesson: string, kitchen: number | string = 12) {
  await page.goto(`${address}/practice/play/${lesson}?kitchen=${kitchen}`)
  await main(page)
    .getByRole('button', { name: /^Begin/ })
    .click()
}
const hours = async (page: Page, count: number) => {
  for (let i = 0; i < count; i++) await main(page).getByRole('button', { name: /^1 h/ }).click()
}
async function wholeLoad(page: Page) {
  await dialog(page).getByRole('radio', { name: 'All' }).click()
  await dialog(page)
    .getByRole('button', { name: /Put it on the scale/ })
    .click()
  await expect(dialog(page).getByLabel('Weight of the whole load')).not.toHaveValue('')
  await dialog(page).getByRole('button', { name: 'Enter' }).click()
}
async function weighAll(page: Page) {
  await pressAct(main(page), /^Weigh/)
  await wholeLoad(page)
  await gone(page.getByRole('dialog'))
}
async function guess(page: Page, [low, high]: [number, number], sure: string) {
  const card = main(page).getByRole('region', { name: 'What you believe' })
  await card.getByLabel('from', { exact: true }).first().fill(String(low))
  await card.getByLabel('to', { exact: true }).first().fill(String(high))
  await card.getByText(sure, { exact: true }).click()
  await card.getByRole('button', { name: 'Say it' }).click()
}

test('a lesson is played through the forms of real work, judged, shown within, and leaves the logbook byte for byte as it was', async ({
  page,
  demo,
}) => {
  const before = digest(demo.server.folder)
  const posts: string[] = []
  page.on('request', request => {
    if (request.method() !== 'GET') posts.push(request.url())
  })
  await begin(page, demo.address, 'night-off')
  await expect(main(page).getByText('On paper: nothing here enters your logbook')).toBeVisible()
  await hours(page, 3)
  await expect(main(page).getByText('22:00')).toBeVisible()
  await weighAll(page)
  // Dulse keeps still until one has said what one believes.
  await gone(main(page).getByRole('region', { name: 'Verdict' }))
  await guess(page, [30, 65], 'surely not')
  await expect(main(page).getByRole('region', { name: 'Verdict' }).getByText('Keep drying')).toBeVisible()
  await pressAct(main(page), /^Heat/)
  await dialog(page).getByText('Off', { exact: true }).click()
  await dialog(page).getByRole('button', { name: 'Set the heat' }).click()
  await gone(page.getByRole('dialog'))
  await main(page).getByRole('button', { name: 'To the morning' }).click()
  await expect(main(page).getByText('06:30').first()).toBeVisible()
  await pressAct(main(page), /^Feel/)
  await dialog(page).getByRole('button', { name: 'Feel them' }).click()
  await expect(dialog(page).getByText(/^From tray 1:/)).toBeVisible()
  await dialog(page).getByRole('button', { name: 'Log what was felt' }).click()
  await gone(page.getByRole('dialog'))
  await guess(page, [1, 4], 'surely')
  await main(page)
    .getByRole('button', { name: /I am done/ })
    .click()
  await expect(main(page).getByRole('heading', { name: 'Against the best there was to know' })).toBeVisible()
  // Taken out wet in the morning: it spoiled, and the window of one to four in a hundred did not hold.
  await expect(main(page).getByRole('row', { name: /^Lost/ })).toContainText(/mould|damp/)
  await expect(main(page).getByRole('row', { name: /How wet/ })).toContainText('1 of 2 held')
  await expect(main(page).getByText(/at the skin and .* in the core/)).toBeVisible()
  await expect(main(page).getByText(/of \d+ ways? of playing/)).toBeVisible({ timeout: 60_000 })
  await main(page).getByText('As it teaches').click()
  await expect(main(page).getByRole('columnheader', { name: 'as taught' })).toBeVisible()
  await page.goto(`${demo.address}/practice/sure`)
  await expect(main(page).getByText(/of 2 windows held|of 3 windows held/)).toBeVisible()
  expect(posts).toEqual([])
  expect(digest(demo.server.folder)).toEqual(before)
})

test('the clock runs by itself, stops at bedtime, and a night that is broken is counted', async ({ page, demo }) => {
  await begin(page, demo.address, 'bedtime', 5)
  await hours(page, 5)
  await page.keyboard.press('p')
  await expect(main(page).getByRole('region', { name: 'Bedtime' })).toBeVisible({ timeout: 15_000 })
  await main(page).getByRole('button', { name: 'Leave it on' }).click()
  await expect(main(page).getByText(/whatever is done now wakes you/)).toBeVisible()
  await weighAll(page)
  await main(page).getByRole('button', { name: 'Just show Dulse’s' }).click()
  await main(page)
    .getByRole('button', { name: /I am done/ })
    .click()
  await expect(main(page).getByRole('row', { name: /^Woken/ })).toContainText('1 time')
})

test('a lesson that was begun is there again after the page was left, as it was', async ({ page, demo }) => {
  await begin(page, demo.address, 'leather-outside', 7)
  await hours(page, 2)
  await weighAll(page)
  const row = main(page)
    .getByText(/^weighed /)
    .first()
  const weighed = await row.textContent()
  await page.reload()
  await expect(
    main(page)
      .getByText(/^weighed /)
      .first(),
  ).toHaveText(weighed!)
  await expect(main(page).getByText(/^\w+ \d+ \w+, 2\sh.* since it began/)).toBeVisible()
  // A deed that this kitchen does not know any more: the lesson begins anew instead of staying shut.
  await page.evaluate(() => {
    const all = JSON.parse(localStorage.getItem('dulse.practice.open')!) as Record<string, { steps: object[] }>
    all['leather-outside']!.steps.push({ do: 'grind', burstS: 8 })
    localStorage.setItem('dulse.practice.open', JSON.stringify(all))
  })
  await page.reload()
  await expect(main(page).getByRole('button', { name: /^Begin/ })).toBeVisible()
})

test('chilies are cut before the clock begins; a jar is looked at by day; powder sticks when it is warm', async ({ page, demo }) => {
  await page.goto(`${demo.address}/practice/play/whole-or-halved?kitchen=3`)
  await main(page).getByRole('button', { name: 'Halved lengthwise, with gloves' }).click()
  await expect(main(page).getByText('Fan box, 38 °C')).toBeVisible()

  await begin(page, demo.address, 'beads-on-day-two', 11)
  await pressAct(main(page), 'Rest in a jar')
  await dialog(page).getByRole('button', { name: 'Begin the rest' }).click()
  await gone(page.getByRole('dialog'))
  await main(page).getByRole('button', { name: 'A day' }).click()
  await main(page).getByRole('button', { name: 'A day' }).click()
  await pressAct(main(page), /^Look at the jar/)
  await dialog(page)
    .getByRole('button', { name: /Hold it to the light/ })
    .click()
  await dialog(page).getByRole('button', { name: 'Log the look' }).click()
  await gone(page.getByRole('dialog'))
  await expect(main(page).getByRole('region', { name: 'What you believe' })).toBeVisible()

  await begin(page, demo.address, 'powder-too-warm', 2)
  await pressAct(main(page), 'Grind')
  await dialog(page).getByText('60 s', { exact: true }).click()
  await dialog(page).getByRole('button', { name: 'Run the mill' }).click()
  await expect(dialog(page).getByText(/one warm lump|clings to the cup/)).toBeVisible()
})

/** What each deed asks of the hand, in the order of the work: through the same forms, with what they begin with. */
const DEEDS: [deed: string, name: RegExp, work: (page: Page) => Promise<unknown>][] = [
  ['weigh', /^Weigh/, wholeLoad],
  [
    'feel',
    /^Feel/,
    async page => {
      await dialog(page).getByRole('button', { name: 'Feel them' }).click()
      await expect(dialog(page).getByText(/^From tray \d/)).toBeVisible()
      await dialog(page).getByRole('button', { name: 'Log what was felt' }).click()
    },
  ],
  [
    'jarAir',
    /^Air in a closed jar/,
    async page => {
      await dialog(page)
        .getByRole('button', { name: /^Close the jar/ })
        .click()
      await dialog(page).getByRole('button', { name: 'Log the reading' }).click()
    },
  ],
  ['heat', /^Heat/, page => dialog(page).getByRole('button', { name: 'Set the heat' }).click()],
  ['swap', /^Change places/, () => Promise.resolve()],
  ['turn', /^Turn the sheets/, () => Promise.resolve()],
  ['move', /^Into the/, () => Promise.resolve()],
  ['takeOut', /^Take out/, page => dialog(page).getByRole('button', { name: 'Take out' }).click()],
  ['rest', /^Rest in a jar/, page => dialog(page).getByRole('button', { name: 'Begin the rest' }).click()],
  [
    'look',
    /^Look at the jar/,
    async page => {
      await dialog(page)
        .getByRole('button', { name: /^Hold it to the light/ })
        .click()
      await dialog(page).getByRole('button', { name: 'Log the look' }).click()
    },
  ],
  ['back', /^Back into the machine/, page => dialog(page).getByRole('button', { name: 'Put it back' }).click()],
  [
    'grind',
    /^Grind/,
    async page => {
      await dialog(page).getByRole('button', { name: 'Run the mill' }).click()
      await expect(dialog(page).getByText(/of powder, /)).toBeVisible()
      await dialog(page).getByRole('button', { name: 'Log the grinding' }).click()
    },
  ],
  ['ovenDry', /^Dry the powder/, page => dialog(page).getByRole('button', { name: 'Log the drying' }).click()],
  [
    'pack',
    /^Pack/,
    async page => {
      await expect(dialog(page).getByLabel('In this jar')).not.toHaveValue('')
      await dialog(page).getByRole('button', { name: 'Pack', exact: true }).click()
    },
  ],
  [
    'waterBack',
    /^Water back/,
    async page => {
      await dialog(page)
        .getByRole('textbox', { name: /^Water/ })
        .fill('900')
      await dialog(page).getByRole('button', { name: 'Pour it' }).click()
    },
  ],
]

/** Those that ask for every kind of deed between them; all of them are played by rule in `lessons.long.test.ts`. */
const BY_HAND = LESSON_FILES.filter(({ text }, i) => {
  const deedsOf = (lesson: string) => (parse(lesson) as { deeds: string[] }).deeds
  const before = new Set(LESSON_FILES.slice(0, i).flatMap(earlier => deedsOf(earlier.text)))
  return deedsOf(text).some(deed => !before.has(deed))
})
for (const { name, text } of BY_HAND) {
  const deeds = (parse(text) as { deeds: string[] }).deeds
  const key = name.replace(/^\d+-|\.yaml$/g, '')
  test(`every deed of the lesson in ${name} is done by hand, through its form, to the end`, async ({ page, demo }) => {
    const faults: string[] = []
    page.on('pageerror', error => faults.push(error.message))
    const { key: lesson } = parse(text) as { key: string }
    await page.goto(`${demo.address}/practice/play/${lesson}?kitchen=8`)
    await expect(main(page).getByRole('heading', { level: 1 }), key).toBeVisible()
    await main(page).locator('.story').getByRole('button').last().click()
    await main(page).getByRole('button', { name: /^1 h/ }).click()
    for (const [deed, words, work] of DEEDS.filter(([deed]) => deeds.includes(deed))) {
      // Another's place comes only where the machine is left, or the jar closed.
      const button = main(page).getByRole('button', { name: words }).first()
      if (!(await button.isVisible())) {
        expect([deed, ['heat', 'feel', 'weigh', 'takeOut', 'back', 'jarAir', 'look'].includes(deed)]).toEqual([deed, true])
        continue
      }
      await button.click()
      await work(page)
      await gone(page.getByRole('dialog'))
      expect([deed, await main(page).locator('[role=alert]').allInnerTexts()].join('').replace(deed, '').trim()).toBe('')
      const skip = main(page).getByRole('button', { name: 'Just show Dulse’s' })
      if (await skip.isVisible()) await skip.click()
    }
    await main(page)
      .getByRole('button', { name: /I am done/ })
      .click()
    await expect(main(page).getByRole('row', { name: /^In points/ })).toBeVisible()
    await expect(main(page).getByRole('row', { name: /^Lost/ })).not.toContainText('NaN')
    expect(faults).toEqual([])
  })
}

test('wrong addresses and figures are met in words', async ({ page, demo }) => {
  await page.goto(`${demo.address}/practice/play/night-off?kitchen=abc`)
  await expect(main(page).getByText(/A kitchen is a whole number above zero, such as 12; “abc” is none/)).toBeVisible()
  await page.goto(`${demo.address}/practice/play/moon?kitchen=3`)
  await expect(main(page).getByText('Nobody here knows a lesson called moon.')).toBeVisible()
  await begin(page, demo.address, 'night-off', 4)
  await weighAll(page)
  const card = main(page).getByRole('region', { name: 'What you believe' })
  await card.getByLabel('from', { exact: true }).first().fill('80')
  await card.getByLabel('to', { exact: true }).first().fill('20')
  await card.getByRole('button', { name: 'Say it' }).click()
  await expect(card.getByText('Water: the lower figure comes first.')).toBeVisible()
})

test('a lesson of one’s own: refused by field and line, taken when it is mended, played, taken out again', async ({ page, demo }) => {
  await page.goto(`${demo.address}/practice`)
  const own = readFileSync('core/practice/lessons/05-bedtime.yaml', 'utf8')
    .replace('key: bedtime', 'key: my-bedtime')
    .replace('title: Leave it on, or stop at bedtime', 'title: My own evening')
  const give = (text: string) =>
    main(page)
      .locator('input[type=file]')
      .setInputFiles({ name: 'mine.yaml', mimeType: 'application/yaml', buffer: Buffer.from(text) })
  await give(own.replace('heatC: 57', 'heatC: 400'))
  await expect(main(page).getByText(/Line \d+, heatC: Heat, °C: at most 120/)).toBeVisible()
  await give(own)
  await expect(main(page).getByText(/“My own evening” is among the lessons now/)).toBeVisible()
  await begin(page, demo.address, 'my-bedtime', 1)
  await expect(main(page).getByText('Hall rack, 57 °C')).toBeVisible()
  await page.goto(`${demo.address}/practice`)
  await main(page).getByRole('button', { name: 'Take it out' }).click()
  await gone(main(page).getByText('My own evening'))
})

test('drills are asked, answered, and told why', async ({ page, demo }) => {
  await page.goto(`${demo.address}/practice/drills`)
  await main(page).getByText('Which is dry?', { exact: true }).click()
  await expect(main(page).getByText(/Which of them is dry\?/)).toBeVisible()
  await main(page).getByText('First', { exact: true }).click()
  await main(page).getByRole('button', { name: 'That is it' }).click()
  await expect(main(page).getByText('Dry is what snaps clean and is the same within as at the rim.')).toBeVisible()
  await main(page).getByText('Dry from a basket', { exact: true }).click()
  await main(page)
    .getByLabel(/Your answer/)
    .fill('90000')
  await main(page).getByRole('button', { name: 'That is it' }).click()
  await expect(main(page).getByText('Not near enough.')).toBeVisible()
})

test('try it: on a basket, each turn in words, beside another, and taken over into the load', async ({ page, demo }) => {
  await page.goto(`${demo.address}/intake?food=tomato`)
  await main(page).getByLabel('Weight', { exact: false }).first().fill('3 kg')
  const tries = main(page).locator('details.try')
  await tries.locator('summary').click()
  const change = tries.getByRole('status')
  await expect(change).toHaveText('Turn at a knob: each change is told here.')
  await tries.getByRole('slider', { name: /^Thickness/ }).press('ArrowLeft')
  await tries.getByRole('slider', { name: /^Thickness/ }).press('ArrowLeft')
  await expect(change).toHaveText(/^1\smm thinner: .*\sh sooner/)
  await tries.getByText('Off', { exact: true }).click()
  await expect(change).toHaveText(/^Off at night: /)
  await tries.getByRole('button', { name: 'Another beside it' }).click()
  await tries.getByRole('slider', { name: /^Heat/ }).fill('65')
  await expect(change).toHaveText(/set to 65\s°C/i)
  await expect(tries.getByRole('button', { name: 'Try 2' })).toHaveAttribute('aria-pressed', 'true')
  await tries.getByRole('button', { name: 'Load it so, when it is in' }).click()
  await expect(main(page).getByText('Taken over: loading begins with this try.')).toBeVisible()
})

test('what was tried before loading is what the load form begins with', async ({ page, demo }) => {
  await page.goto(`${demo.address}/batches/${demo.ids.celery}`)
  const tries = main(page).locator('details.try')
  await tries.locator('summary').click()
  await tries.getByText('Kitchen oven', { exact: true }).click()
  await tries.getByRole('slider', { name: /^Heat/ }).fill('71')
  await expect(tries.getByRole('status')).toHaveText(/[Ss]et to 71\s°C/)
  await tries.getByRole('button', { name: 'Load it so' }).click()
  await expect(dialog(page).getByRole('radio', { name: /^Another/ })).toBeChecked()
  await expect(dialog(page).getByRole('textbox', { name: /°C/ }).first()).toHaveValue('71')
})

test('try it on a batch that runs: from what is believed of it now', async ({ page, demo }) => {
  await page.goto(`${demo.address}/batches/${demo.ids.beetroot}`)
  const tries = main(page).locator('details.try')
  await tries.locator('summary').click()
  await gone(tries.getByRole('slider', { name: /^Thickness/ }))
  await tries.getByText('Off', { exact: true }).click()
  await expect(tries.getByRole('status')).toHaveText(/^Off at night: /)
  await expect(tries.getByRole('button', { name: 'Set this heat' })).toBeVisible()
})

test('a run of one’s own once more: guess before Dulse, see what it was, and ask what if', async ({ page, demo }) => {
  await page.goto(`${demo.address}/practice/own`)
  const runs = main(page).locator('.runs a')
  await expect(runs.first()).toBeVisible()
  const before = digest(demo.server.folder)
  await runs.first().click()
  await main(page)
    .getByRole('button', { name: /^To the next look/ })
    .click()
  await guess(page, [1, 95], 'even')
  await expect(main(page).getByRole('heading', { name: /^It held .* water$/ })).toBeVisible()
  await expect(main(page).getByRole('cell', { name: '1 % to 95 %' })).toBeVisible()
  expect(digest(demo.server.folder)).toEqual(before)
})
