import { expect, test, type Page } from '@playwright/test'
import { parseWeight } from '#core/units'
import { pressAct, gone } from './support/acts'
import { mouse, type Hands } from './support/hands'
import { startDulse, type RunningServer } from './support/server'

// Each has a server of its own.
test.describe.configure({ mode: 'parallel' })

const HOUR = 3_600_000
const id = (n: number) => `018f3000-0000-7000-8000-00000000000${n}`
const MACHINES = [
  { id: id(1), name: 'Oven below', kind: 'oven', trays: 3, trayAreaM2: 0.16, lowC: 50, highC: 120, watts: 2400 },
  { id: id(2), name: 'Loft beam', kind: 'air', trays: 4, trayAreaM2: 0.25, lowC: 5, highC: 45, watts: 1 },
  { id: id(3), name: 'Ice chamber', kind: 'freeze-dryer', trays: 4, trayAreaM2: 0.12, lowC: 20, highC: 60, watts: 1100, iceG: 5000 },
]

/** A basket as a household of some units goes about it, and what somebody who has done it for years would expect of it (common practice). */
interface Scene {
  title: string
  us?: boolean
  food: string
  /** As the search is asked for it, where that is another word. */
  called?: string
  amount: string
  weighed?: 'Uncooked' | 'Cooked'
  and?: [food: string, amount: string]
  purpose: 'Pieces' | 'Flakes' | 'Fine powder'
  cut?: string
  /** Grams dry, and hours of one load. */
  friend: { dry: [number, number]; hours: [number, number] }
  machine: string
  prep?: (walk: Walk) => Promise<void>
  /** As typed. */
  loaded: string
  heat?: (walk: Walk) => Promise<void>
  during?: (walk: Walk) => Promise<void>
  weights: [hours: number, typed: string][]
  out: [hours: number, typed: string]
  rest: boolean
  powder?: string
  jar: string
  /** What the shelf then says. */
  kept: RegExp
}

class Walk {
  readonly hands: Hands
  private readonly begun = Date.now() - 20 * 24 * HOUR
  constructor(
    readonly page: Page,
    readonly server: RunningServer,
  ) {
    this.hands = mouse(page)
  }
  get main() {
    return this.page.locator('main')
  }
  get dialog() {
    return this.page.getByRole('dialog')
  }
  clock = (hours: number) => this.page.clock.setFixedTime(this.begun + hours * HOUR)
  async open(name: string | RegExp) {
    await pressAct(this.main, name)
    await expect(this.dialog).toBeVisible()
  }
  async save(name: string) {
    await this.dialog.getByRole('button', { name, exact: true }).click()
    await gone(this.dialog)
  }
  /** Ticks every caution that the form in front asks to have read. */
  async accept() {
    const boxes = this.page.locator('label').filter({ hasText: 'I have read this' })
    for (let i = 0; i < (await boxes.count()); i++) await boxes.nth(i).click()
  }
  async pick(combobox: string, words: string, name: string) {
    await this.page.getByRole('combobox', { name: combobox, exact: true }).click()
    await this.page.keyboard.type(words)
    await this.page.getByRole('option', { name, exact: true }).click()
  }
}

const cookTo = (degrees: string) => async (walk: Walk) => {
  await walk.clock(0.3)
  await walk.open('Log: Cook')
  await walk.accept()
  await walk.hands.fill(/Inside by thermometer/, degrees)
  await walk.save('Log this step')
}
const inCold = async (walk: Walk) => {
  await walk.open('Keep it for now')
  await walk.hands.choose('Kept', 'in the refrigerator')
  await walk.save('Log where it is')
}

const SCENES: Scene[] = [
  {
    title: 'raw chicken, by a thermometer in °F, never in the danger zone',
    us: true,
    food: 'Chicken',
    called: 'chicken breast',
    amount: '3 lb',
    weighed: 'Uncooked',
    purpose: 'Pieces',
    cut: 'Cooked mince',
    friend: { dry: [300, 420], hours: [4, 11] },
    machine: 'Dehydrator',
    prep: async walk => {
      await inCold(walk)
      await walk.clock(0.2)
      await walk.open('Take it up again')
      await walk.save('Log where it is')
      await cookTo('165')(walk)
    },
    loaded: '2 lb 3 oz',
    weights: [
      [4, '1 lb 2 oz'],
      [6, '14.2'],
      [7.5, '13.5'],
      [8.5, '13.4'],
    ],
    out: [8.6, '13.4'],
    rest: true,
    jar: '13.4',
    kept: /1 jar, 13\.4.oz/,
  },
  {
    title: 'two pumpkins, counted, roasted, on sheets that are turned over',
    food: 'Pumpkin',
    called: 'pie pumpkin',
    amount: '2 pumpkins',
    purpose: 'Fine powder',
    cut: 'Roasted purée on sheets',
    friend: { dry: [280, 800], hours: [8, 15] },
    machine: 'Dehydrator',
    prep: async walk => {
      await walk.clock(1)
      await walk.open('Log: Roast')
      await walk.hands.choose('Weighed', 'Before and after')
      await walk.hands.fill(/^Before/, '6400')
      await walk.hands.fill(/^After/, '5100')
      await walk.hands.fill(/Pot or bowl/, '700')
      await expect(walk.dialog.getByText(/1\.30.kg left/)).toBeVisible()
      await walk.save('Log this step')
      await walk.open('Log: Purée')
      await walk.save('Log this step')
    },
    loaded: '3600',
    during: async walk => {
      await walk.clock(8)
      await walk.page.reload()
      await expect(walk.main.getByRole('heading', { name: 'Turn the sheets over' })).toBeVisible()
      await walk.main.getByRole('button', { name: 'Turned over' }).click()
      await expect(walk.main.getByText(/food turned over/)).toBeVisible()
      await gone(walk.main.getByRole('heading', { name: 'Turn the sheets over' }))
    },
    weights: [
      [9, '820'],
      [12, '505'],
      [13.5, '488'],
      [14.5, '487'],
    ],
    out: [14.6, '487'],
    rest: true,
    powder: '470',
    jar: '470',
    kept: /1 jar, 470.g/,
  },
  {
    title: 'sweet peppers with a cup of habaneros among them',
    us: true,
    food: 'Sweet red pepper',
    called: 'bell peppers',
    amount: '12 peppers',
    and: ['Habanero', '1 cup'],
    purpose: 'Flakes',
    friend: { dry: [90, 210], hours: [9, 18] },
    machine: 'Dehydrator',
    prep: async walk => {
      await walk.clock(0.5)
      await walk.open('Log: Trim')
      // The mildest of baskets is as hot as the hottest in it.
      await expect(walk.dialog.getByText(/Extreme heat: goggles and a mask/)).toBeVisible()
      await walk.accept()
      await walk.hands.fill(/What came off/, '13')
      await walk.save('Log this step')
    },
    loaded: '3 lb 12 oz',
    weights: [
      [7, '1 lb'],
      [12, '5.6'],
      [14, '5.2'],
      [15, '5.2'],
    ],
    out: [15.1, '5.2'],
    rest: true,
    powder: '5',
    jar: '5',
    kept: /1 jar, 5(\.0)?.oz/,
  },
  {
    title: 'strawberries in a freeze dryer, packed at once',
    food: 'Strawberry',
    called: 'strawberries',
    amount: '2.2 kg',
    purpose: 'Pieces',
    cut: '6 mm slices',
    friend: { dry: [140, 260], hours: [12, 36] },
    machine: 'Ice chamber',
    loaded: '2000',
    weights: [],
    during: async walk => {
      const rounds = walk.main.getByRole('region', { name: 'Rounds of extra drying' })
      const [count] = /of (\d+) done/.exec(await rounds.innerText())!.slice(1)
      for (const hours of [26, 28.2]) {
        await walk.clock(hours)
        await walk.hands.press(/^Weigh/)
        for (let tray = 1; tray <= Number(count); tray++) {
          await walk.dialog.getByRole('textbox', { name: `Weight of tray ${tray}` }).fill('50.5')
          await walk.page.keyboard.press('Enter')
        }
        await gone(walk.dialog)
      }
      await expect(rounds.getByText(`${count} of ${count} done`)).toBeVisible()
    },
    out: [28.5, '202'],
    rest: false,
    jar: '202',
    kept: /1 jar, 202.g/,
  },
  {
    title: 'apple rings, pliable, in an oven at a heat of one’s own',
    food: 'Apple',
    called: 'apples',
    amount: '12 apples',
    purpose: 'Pieces',
    cut: '5 mm rings',
    friend: { dry: [230, 400], hours: [3, 9] },
    machine: 'Oven below',
    loaded: '1750',
    heat: async walk => {
      await walk.hands.choose('Heat', 'Another')
      await walk.hands.fill(/Set to/, '200')
      await walk.hands.press('Load')
      await expect(walk.dialog.getByText('At most 120.')).toBeVisible()
      await walk.hands.fill(/Set to/, '68')
    },
    weights: [
      [3, '700'],
      [5, '345'],
      [6, '318'],
      [7, '314'],
    ],
    out: [7.1, '314'],
    rest: true,
    jar: '314',
    kept: /1 jar, 314.g/,
  },
  {
    title: 'salsify, which nobody has heard of here, added in place',
    us: true,
    food: 'Salsify',
    amount: '2 lb',
    purpose: 'Fine powder',
    friend: { dry: [120, 220], hours: [6, 14] },
    machine: 'Dehydrator',
    loaded: '1 lb 10 oz',
    weights: [
      [5, '10.5'],
      [8, '6.7'],
      [9.5, '6.4'],
      [10.5, '6.4'],
    ],
    out: [10.6, '6.4'],
    rest: true,
    powder: '6.1',
    jar: '6.1',
    kept: /1 jar, 6\.1.oz/,
  },
]

test.describe('a household from basket to jar', () => {
  for (const scene of SCENES)
    test(`${scene.title}`, async ({ page }) => {
      const server = await startDulse()
      try {
        const put = async (path: string, body: unknown) =>
          expect(
            (
              await fetch(server.address + path, {
                method: 'PUT',
                headers: { 'content-type': 'application/json' },
                body: JSON.stringify(body),
              })
            ).status,
          ).toBe(200)
        for (const machine of MACHINES) await put('/api/machines', { ...machine, trayTareG: 0, trayTares: {} })
        const household = (await (await fetch(`${server.address}/api/household`)).json()) as object
        if (scene.us) await put('/api/household', { ...household, weightUnit: 'oz', temperatureUnit: 'F', measures: 'us', clockHours: 12 })
        await page.setViewportSize({ width: 1280, height: 800 })
        await live(new Walk(page, server), scene)
      } finally {
        await server.stop()
      }
    })
})

async function live(walk: Walk, scene: Scene) {
  const { page, main, hands } = walk
  const forecasts: { hoursPerLoad: { p10: number; p50: number; p90: number }; dryG: { p10: number; p50: number; p90: number } }[] = []
  page.on('response', response => {
    if (response.url().includes('/api/forecast?') && response.ok()) void response.json().then(answer => forecasts.push(answer as never))
  })
  await walk.clock(0)
  await page.goto(`${walk.server.address}/intake`)
  if (scene.food === 'Salsify') await addInPlace(walk)
  else await walk.pick('Food', scene.called ?? scene.food, scene.food)
  await expect(main.getByRole('group', { name: 'Cut' }).first()).toBeVisible()
  await hands.fill(/^Weight/, scene.amount)
  if (scene.weighed) await hands.choose('On the scale it was', scene.weighed)
  if (scene.and) {
    await hands.press('Several kinds in one basket')
    await walk.pick('Food 2 in the basket', scene.and[0], scene.and[0])
    await main
      .locator('.part')
      .getByLabel(/^Weight/)
      .fill(scene.and[1])
  }
  await hands.choose('For', scene.purpose)
  if (scene.cut) await main.getByRole('group', { name: 'Cut' }).last().getByText(scene.cut, { exact: true }).click()
  await hands.choose('In', scene.machine)
  await walk.accept()
  // What the knowledgeable friend would have said, before a knife is lifted.
  await expect
    .poll(() => {
      const { dryG, hoursPerLoad } = forecasts.at(-1) ?? { dryG: { p50: 0 }, hoursPerLoad: { p50: 0 } }
      const { dry, hours } = scene.friend
      return [dryG.p50 > dry[0] && dryG.p50 < dry[1], hoursPerLoad.p50 > hours[0] && hoursPerLoad.p50 < hours[1]].map(
        (good, i) => good || [dryG.p50, hoursPerLoad.p50][i],
      )
    })
    .toEqual([true, true])
  await hands.press('Take it in')
  await expect(main.getByRole('heading', { level: 1, name: new RegExp(scene.food) })).toBeVisible()

  if (scene.prep) await scene.prep(walk)
  await walk.clock(1.1)
  await walk.open('Load')
  await hands.choose('Where', scene.machine)
  await walk.accept()
  if (scene.machine === 'Ice chamber') {
    const each = parseWeight(scene.loaded).value! / 4
    const trays = walk.dialog.getByRole('textbox', { name: /^Tray \d/ })
    for (let i = 0; i < (await trays.count()); i++) await trays.nth(i).fill(String(each))
    await expect(walk.dialog.getByText(/% of the ice it holds: a cycle of/)).toBeVisible()
  } else {
    await hands.choose('Weighed', 'All together')
    await hands.fill('Food on the trays', scene.loaded)
  }
  if (scene.heat) await scene.heat(walk)
  await walk.save('Load')
  await expect(main.getByText(/Keep drying|Cool some|Nothing says yet/).first()).toBeVisible()
  if (scene.during) await scene.during(walk)
  for (const [hours, typed] of scene.weights) {
    await walk.clock(1.1 + hours)
    await walk.hands.press(/^Weigh/)
    await walk.dialog.getByRole('textbox').first().fill(typed)
    await page.keyboard.press('Enter')
    await gone(walk.dialog)
  }
  await gone(main.getByText('Too long in the warm'))
  await walk.clock(1.1 + scene.out[0])
  await walk.open('Take out')
  await hands.fill(/Dry weight/, scene.out[1])
  await walk.save('Take out')

  if (scene.rest) {
    await walk.open('Begin the rest')
    await walk.accept()
    await walk.save('Begin the rest')
    await walk.clock(1.1 + scene.out[0] + 24)
    await walk.open('Log a look')
    await hands.choose('Shaken, the jar shows', 'no moisture')
    await walk.save('Log the look')
    await walk.clock(1.1 + scene.out[0] + 7.3 * 24)
    await page.reload()
    await walk.open('End the rest')
    await walk.save('End the rest')
  } else {
    await walk.open('Go on to packing')
    await walk.save('End the rest')
  }
  if (scene.powder) {
    await walk.open('Log the grinding')
    await walk.accept()
    await hands.fill(/Powder out|Flakes out/, scene.powder)
    await walk.save('Log the grinding')
  }
  await walk.open('Pack a jar')
  await walk.accept()
  await hands.fill('In this jar', scene.jar)
  await hands.fill('Where it stands', 'Top board')
  await expect(walk.dialog.getByText(/^\s*Best by/)).toBeVisible()
  await walk.save('Pack')
  await page.goto(`${walk.server.address}/shelf`)
  await expect(main.getByRole('heading', { name: scene.kept })).toBeVisible()
}

async function addInPlace({ page, main }: Walk) {
  await page.getByRole('combobox', { name: 'Food', exact: true }).click()
  await page.keyboard.type('salsify')
  await page.getByRole('button', { name: 'Add it as your own', exact: true }).click()
  const form = main.getByRole('region', { name: 'A food of your own' })
  await form.getByRole('button', { name: 'Add it' }).click()
  await expect(form.getByText('Say what kind of food it is: its figures follow from that.')).toBeVisible()
  await form.getByLabel('Its name').fill('Salsify')
  await page.getByRole('combobox', { name: 'Kind of food' }).click()
  await page.getByRole('option', { name: 'Roots', exact: true }).click()
  await expect(form.getByLabel('Water, %')).not.toHaveValue('')
  await form.getByLabel('Water, %').fill('77')
  await form.getByRole('button', { name: 'Add it' }).click()
  await gone(form)
}
