import { expect, test, type Page } from '@playwright/test'
import { leaveForm, pressAct, gone } from './support/acts'
import { mouse, type Hands } from './support/hands'
import { startDulse, type RunningServer } from './support/server'

// Each has a server of its own.
test.describe.configure({ mode: 'parallel' })

/** Each way of drying walked once, on a food of its own, from basket to where it is packed or goes on. */
const HOUR = 3_600_000
let server: RunningServer
let hands: Hands
const id = (n: number) => `018f2000-0000-7000-8000-00000000000${n}`
const MACHINES = [
  { id: id(1), name: 'Oven below', kind: 'oven', trays: 3, trayAreaM2: 0.16, lowC: 50, highC: 120, watts: 2400 },
  { id: id(2), name: 'Smoke box', kind: 'smoker', trays: 3, trayAreaM2: 0.12, lowC: 60, highC: 120, watts: 800 },
  { id: id(3), name: 'Wall racks', kind: 'sun', trays: 4, trayAreaM2: 0.3, lowC: 10, highC: 60, watts: 1 },
  { id: id(4), name: 'Loft beam', kind: 'air', trays: 4, trayAreaM2: 0.25, lowC: 5, highC: 45, watts: 1 },
  { id: id(5), name: 'Ice chamber', kind: 'freeze-dryer', trays: 3, trayAreaM2: 0.12, lowC: 20, highC: 60, watts: 1100, iceG: 3000 },
]
test.beforeEach(async ({ page }) => {
  server = await startDulse()
  for (const machine of MACHINES) {
    const answer = await fetch(`${server.address}/api/machines`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...machine, trayTareG: 0, trayTares: {} }),
    })
    expect(answer.status).toBe(200)
  }
  await page.setViewportSize({ width: 1280, height: 800 })
  hands = mouse(page)
})
test.afterEach(() => server.stop())

/** Seven in the morning, twelve days ago: what the sun does depends on the hour. */
const begun = Math.floor(Date.now() / (24 * HOUR)) * 24 * HOUR - (12 * 24 - 7) * HOUR
const clock = (page: Page, hours: number) => page.clock.setFixedTime(begun + hours * HOUR)
const main = (page: Page) => page.locator('main')
const dialog = (page: Page) => page.getByRole('dialog')
async function open(page: Page, name: string | RegExp) {
  await pressAct(main(page), name)
  await expect(dialog(page)).toBeVisible()
}
async function save(page: Page, name: string) {
  await dialog(page).getByRole('button', { name, exact: true }).click()
  await gone(dialog(page))
}
/** Ticks every caution that the form in front asks to have read. */
async function accept(page: Page) {
  const boxes = page.locator('label').filter({ hasText: 'I have read this' })
  for (let i = 0; i < (await boxes.count()); i++) await boxes.nth(i).click()
}
/** Takes a basket in. */
async function basket(page: Page, food: string, weight: string, more: { cut?: string; purpose?: string } = {}) {
  await clock(page, 0)
  await page.goto(`${server.address}/intake`)
  await hands.pickFood(food)
  await hands.fill('Weight', weight)
  if (more.purpose) await hands.choose('For', more.purpose)
  // With its cuts the food's cautions are there too.
  await expect(main(page).getByRole('group', { name: 'Cut' })).toBeVisible()
  if (more.cut) await hands.choose('Cut', more.cut)
  await accept(page)
  await hands.press('Take it in')
  await expect(main(page).getByRole('heading', { level: 1, name: new RegExp(food) })).toBeVisible()
}
/** Loads what is there into a machine, by all weights together; where that is much less than was expected, it is all there was. */
async function load(page: Page, hours: number, machine: string, grams: string, { verb = 'Load', isLess = false } = {}) {
  await clock(page, hours)
  await open(page, verb)
  await hands.choose('Where', machine)
  await accept(page)
  await hands.choose('Weighed', 'All together')
  await hands.fill('Food on the trays', grams)
  if (isLess) await hands.choose(/is not on the trays/, 'nothing is left')
  await save(page, 'Load')
}
async function takeOut(page: Page, hours: number, grams: string) {
  await clock(page, hours)
  await open(page, 'Take out')
  await hands.fill(/Dry weight/, grams)
  await save(page, 'Take out')
}
const weigh = async (page: Page, hours: number, grams: string) => {
  await clock(page, hours)
  await hands.weigh([grams])
  await gone(dialog(page))
}
/** What Now asks for: asked until it is so, since a form closes over what is still on its way. */
const todos = async () =>
  ((await (await fetch(`${server.address}/api/now`)).json()) as { todos: { kind: string; title: string }[] }).todos.map(todo => todo.kind)

test('oven: its caution is read once, looks are hourly, it ends in hours', async ({ page }) => {
  await basket(page, 'Hot red chili', '900')
  await clock(page, 0.3)
  await open(page, 'Log: Trim')
  await hands.press('Log this step')
  await expect(dialog(page).getByText('Read the caution and tick that you have.')).toBeVisible()
  await accept(page)
  await hands.fill(/What came off/, '90')
  await save(page, 'Log this step')
  await load(page, 0.5, 'Oven below', '800')
  await expect(main(page).getByText(/Oven below, trays .*75.°C/)).toBeVisible()
  await expect(main(page).getByText(/read and accepted: An oven ajar/)).toBeVisible()
  await expect.poll(todos).toContain('turn')
  await weigh(page, 2, '260')
  await takeOut(page, 3.4, '104')
  // The caution is not asked again.
  await basket(page, 'Cayenne', '600', { cut: 'Halves, cut side up' })
  await clock(page, 5)
  await open(page, 'Load')
  await hands.choose('Where', 'Oven below')
  await gone(dialog(page).getByRole('checkbox', { name: 'I have read this' }))
})

test('smoker: part of the water, then another machine the same day', async ({ page }) => {
  await basket(page, 'Jalapeño', '2 kg')
  await load(page, 0.5, 'Smoke box', '1850')
  await expect(
    main(page)
      .getByText(/in the smoke, 85.°C/)
      .first(),
  ).toBeVisible()
  await expect.poll(todos).toEqual(expect.arrayContaining(['turn', 'endSmoke']))
  await weigh(page, 4.4, '1320')
  await takeOut(page, 4.5, '1320')
  await expect(main(page).getByRole('heading', { name: 'Now into the dryer' })).toBeVisible()
  await load(page, 4.7, 'Dehydrator', '1320', { verb: 'Load a machine' })
  // Not weighed since: its water is told, and what went in.
  await expect(main(page).getByText(/of 1\.32.kg loaded, by its hours/)).toBeVisible()
  await expect(main(page).getByRole('heading', { name: 'Keep drying' })).toBeVisible()
  await weigh(page, 12, '205')
  await takeOut(page, 18, '160')
  // Even odds by its weight: it is tested before it is closed in.
  await expect(main(page).getByRole('heading', { name: 'Test it before it is closed in' })).toBeVisible()
})

test('sun: out by day, in at dusk and before rain, nights do not count', async ({ page }) => {
  await basket(page, 'Apricot', '3 kg', { purpose: 'Pieces' })
  await clock(page, 0.5)
  await open(page, 'Load')
  await hands.choose('Where', 'Wall racks')
  await accept(page)
  await hands.fill('Food on the trays', '2700')
  await hands.fill('In at dusk', 'evening')
  await hands.press('Load')
  await expect(dialog(page).getByText('Say when it comes in at dusk, such as 18:30.')).toBeVisible()
  await hands.fill('In at dusk', '18:00')
  await hands.fill(/Outdoors/, '27')
  await hands.fill('Humidity outdoors, %', '70')
  await expect(dialog(page).getByText(/30.°C and above and under 60.% humidity/)).toBeVisible()
  await save(page, 'Load')
  await expect.poll(todos).toContain('bringIn')
  await expect(main(page).getByRole('heading', { name: 'Out in the sun' })).toBeVisible()
  await open(page, 'Dusk and rain')
  await hands.choose('Rain', 'Today')
  await save(page, 'Log the weather')
  await expect(
    main(page)
      .getByText(/rain expected/)
      .first(),
  ).toBeVisible()
  await clock(page, 8.5)
  await open(page, 'Bring it in')
  await hands.choose('It is', 'Brought in')
  await save(page, 'Set the heat')
  await expect(main(page).getByRole('heading', { name: 'Indoors, covered' })).toBeVisible()
  await expect.poll(todos).toContain('takeOutside')
  await clock(page, 24)
  await open(page, 'Put it out')
  await save(page, 'Set the heat')
  await clock(page, 26)
  await page.reload()
  // Ten hours out, of which the first half hours of each morning dried nothing: so much by the season.
  await expect(main(page).getByText(/[89].h(?:.\d+.min)? of sun so far/)).toBeVisible()
  await takeOut(page, 80, '480')
})

test('strung and hung in the air: days, no heat to set', async ({ page }) => {
  await basket(page, 'Mint', '600', { cut: 'Small bunches, hung', purpose: 'Flakes' })
  await clock(page, 0.5)
  await open(page, 'Load')
  await expect(dialog(page).getByRole('radio', { name: /Loft beam/ })).toBeChecked()
  await hands.fill('Food on the trays', '350')
  // Measured or not, the room decides how dry it gets.
  await expect(dialog(page).getByText(/At a usual 55 % .* Finish it in a machine/)).toBeVisible()
  await hands.fill(/Room, /, '23')
  await hands.fill('Room humidity, %', '45')
  await expect(dialog(page).getByText(/Finish it in a machine/)).toBeVisible()
  await hands.choose(/is not on the trays/, 'nothing is left')
  await save(page, 'Load')
  await expect(main(page).getByRole('heading', { name: 'Hanging' })).toBeVisible()
  await takeOut(page, 170, '75')
})

test('freeze dryer: frozen trays, its ice, rounds to constant weight, packed at once', async ({ page }) => {
  await basket(page, 'Raspberry', '2.2 kg', { cut: 'Whole' })
  await clock(page, 0.5)
  await open(page, 'Load')
  await hands.choose('Where', 'Ice chamber')
  await accept(page)
  await hands.choose('Frozen solid', 'Some')
  await expect(dialog(page).getByText(/the advantage is lost for all/)).toBeVisible()
  await hands.choose('Frozen solid', 'Every tray')
  const fields = dialog(page).getByRole('textbox', { name: /^Tray \d/ })
  const count = await fields.count()
  for (let i = 0; i < count; i++) await fields.nth(i).fill('700')
  await expect(dialog(page).getByText(/of water to remove, .* % of the ice it holds: a cycle of/)).toBeVisible()
  await save(page, 'Load')
  await expect.poll(todos).toEqual(['round'])
  const rounds = main(page).getByRole('region', { name: 'Rounds of extra drying' })
  await expect(rounds.getByText(`0 of ${count} done`)).toBeVisible()
  // Its display is read off: the next weighing follows it.
  await clock(page, 22)
  await rounds.getByRole('button', { name: 'What the machine shows' }).click()
  await dialog(page).getByRole('textbox', { name: 'Hours left' }).fill('5')
  await save(page, 'Log it')
  await expect(rounds.getByText(/By its display it is through/)).toBeVisible()
  for (const [hours, grams] of [
    [27, '112'],
    [29.3, '111.8'],
  ] as const) {
    await clock(page, hours)
    for (let tray = 1; tray <= count; tray++) {
      const answer = await fetch(`${server.address}/api/batches/${page.url().split('/').at(-1)}/entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          id: crypto.randomUUID(),
          at: begun + hours * HOUR + tray,
          body: { kind: 'weigh', trays: [{ position: tray, weightG: Number(grams) }] },
        }),
      })
      expect(answer.status).toBe(200)
    }
  }
  await page.reload()
  await expect(rounds.getByText(`${count} of ${count} done`)).toBeVisible()
  await expect.poll(todos).toEqual(['takeOut'])
  await open(page, /^(?:Cool and feel|Feel)/)
  await hands.choose('Take a piece from the middle of a tray. It is', 'light and chalky, like foam')
  await hands.choose('Broken, its core is', 'as pale as the rim')
  await hands.choose('The pieces were', 'cooled')
  await hands.choose('Taken from', 'three or more')
  await save(page, 'Log what was felt')
  await takeOut(page, 29.6, String(112 * count))
  await expect(main(page).getByRole('heading', { name: 'Pack or grind it at once' })).toBeVisible()
  await open(page, 'Go on to grinding')
  await save(page, 'End the rest')
  await expect(main(page).getByRole('heading', { name: 'Grind' })).toBeVisible()
})

test('already dried goods are crisped', async ({ page }) => {
  await basket(page, 'Dried mild chili', '400')
  await expect(main(page).getByText(/Rinse off the dust/)).toBeVisible()
  await load(page, 0.5, 'Oven below', '350')
  await expect(main(page).getByText(/loaded 350.g on/)).toBeVisible()
  await takeOut(page, 2, '322')
})

test('leaf the quick way: dry, grind, dry, grind', async ({ page }) => {
  await basket(page, 'Parsley', '700', { cut: 'Leaves with stalks, ground twice' })
  await load(page, 0.5, 'Dehydrator', '450', { isLess: true })
  await takeOut(page, 8, '70')
  await open(page, 'Go on without a rest')
  await save(page, 'End the rest')
  await clock(page, 8.1)
  await open(page, 'Log the grinding')
  await hands.fill('Powder out', '68')
  await save(page, 'Log the grinding')
  await load(page, 8.3, 'Dehydrator', '68', { verb: 'Back to the machine' })
  await expect(main(page).getByText(/loaded 68.g/)).toBeVisible()
  await takeOut(page, 9.4, '64')
  await expect(main(page).getByRole('heading', { name: /64.g to pack/ })).toBeVisible()
  await open(page, 'Grind it again')
  await hands.fill('Powder in', '64')
  await hands.fill('Powder out', '62')
  await save(page, 'Log the grinding')
  await expect(main(page).getByRole('heading', { name: /62.g to pack/ })).toBeVisible()
  // Damp after all: dried thin in the oven that is off.
  await open(page, 'Dry the powder')
  await hands.fill('Before', '62')
  await hands.fill('After', '70')
  await hands.press('Log the drying')
  await expect(dialog(page).getByText(/Powder only gets lighter/)).toBeVisible()
  await hands.fill('After', '61')
  await save(page, 'Log the drying')
  await expect(main(page).getByRole('heading', { name: /61.g to pack/ })).toBeVisible()
})

test('dehydrator: the whole ledger of a roasted purée, a timer, a night cold, a part for something else', async ({ page }) => {
  await basket(page, 'Butternut squash', '5 kg')
  const plan = main(page).getByRole('region', { name: 'Before the tray' })
  await plan.getByRole('button', { name: /^Timer: Roast/ }).click()
  await expect(page.getByRole('region', { name: 'Timers' }).getByText('Roast, butternut squash')).toBeVisible()
  await page.getByRole('button', { name: /^Stop the timer/ }).click()
  await clock(page, 0.2)
  await open(page, 'A part of it')
  await hands.fill('This part', '900')
  await hands.choose('Cut', '6 mm slices')
  await hands.fill(/What it is/, 'for soup')
  await save(page, 'Log this part')
  await expect(main(page).getByText('900 g became a batch of its own: for soup')).toBeVisible()
  await clock(page, 0.5)
  await open(page, 'Log: Roast')
  await hands.choose('How hot to roast?', '120 °C, about 2 h')
  await hands.fill(/Water that left/, '1100')
  await save(page, 'Log this step')
  await expect(plan.getByText(/Still guessed: what is trimmed off/)).toBeVisible()
  await clock(page, 1)
  await open(page, 'Keep it for now')
  await hands.choose('Kept', 'in the refrigerator')
  await save(page, 'Log where it is')
  await expect(main(page).getByText(/^\s*Kept in the refrigerator since/)).toBeVisible()
  await expect.poll(todos).toContain('held')
  await clock(page, 14)
  await open(page, 'Take it up again')
  await save(page, 'Log where it is')
  await open(page, 'Log: Purée')
  await save(page, 'Log this step')
  await clock(page, 14.5)
  await open(page, 'Load')
  await hands.fill('Food on the trays', '2100')
  await hands.fill('Sheets spread alike', '4')
  await hands.fill(/Purée on each/, '480')
  await save(page, 'Load')
  await expect(main(page).getByRole('heading', { name: 'Keep drying' })).toBeVisible()
  await takeOut(page, 26, '330')
  // A failed rest goes back to the machine.
  await open(page, 'Begin the rest')
  await save(page, 'Begin the rest')
  await clock(page, 50)
  await open(page, 'Log a look')
  await hands.choose('Shaken, the jar shows', 'beads of moisture')
  await save(page, 'Log the look')
  await load(page, 51, 'Dehydrator', '332', { verb: 'Back to the machine' })
  await takeOut(page, 53, '318')
  // The part has its own batch, of the same lot.
  await page.goto(`${server.address}/batches`)
  await expect(main(page).getByText('Butternut squash, 6 mm slices').first()).toBeVisible()
})

test('a caution that stops does stop, and its way out is taken', async ({ page }) => {
  await basket(page, 'Chicken', '1 kg', { purpose: 'Pieces' })
  await clock(page, 0.4)
  await open(page, 'Load')
  await hands.choose('Where', 'Dehydrator')
  await expect(dialog(page).getByText('This must not be done')).toBeVisible()
  await hands.fill('Food on the trays', '800')
  await hands.press('Load')
  await expect(
    dialog(page)
      .getByText(/Cook it through, measure the inside/)
      .last(),
  ).toBeVisible()
  await leaveForm(page)
  await gone(dialog(page))
  await open(page, 'Log: Cook')
  await hands.fill(/Inside by thermometer/, '76')
  await save(page, 'Log this step')
  await expect(main(page).getByText(/cook, 76.°C inside/)).toBeVisible()
  await load(page, 0.8, 'Dehydrator', '720')
  await expect(main(page).getByRole('heading', { name: 'Keep drying' })).toBeVisible()
})

test('garlic under oil is not put on the shelf, mould ends a batch', async ({ page }) => {
  await basket(page, 'Garlic', '800')
  await load(page, 0.5, 'Dehydrator', '650')
  await takeOut(page, 11, '290')
  await open(page, 'Go on without a rest')
  await save(page, 'End the rest')
  await open(page, 'Log the grinding')
  await hands.fill('Powder out', '280')
  await save(page, 'Log the grinding')
  await open(page, 'Pack a jar')
  await hands.choose('Under oil', 'Yes')
  await expect(dialog(page).getByText(/botulism grows where there is no air/)).toBeVisible()
  await hands.press('Pack')
  await expect(dialog(page)).toBeVisible()
  await hands.choose('Kept', 'In the refrigerator')
  await expect(dialog(page).getByText(/used within 4 days/)).toBeVisible()
  await save(page, 'Pack')
  await basket(page, 'Carrot', '900')
  await load(page, 12, 'Dehydrator', '780')
  await takeOut(page, 22, '95')
  await open(page, 'Begin the rest')
  await save(page, 'Begin the rest')
  await open(page, 'Log a look')
  await hands.choose('Shaken, the jar shows', 'mould')
  await save(page, 'Log the look')
  await expect(main(page).getByRole('heading', { name: 'Discard it', level: 2 }).first()).toBeVisible()
  await open(page, 'It is discarded')
  await save(page, 'Finish')
})
