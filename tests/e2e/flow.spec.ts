import { expect, test, type Page } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { gone } from './support/acts'
import { mouse, type Hands } from './support/hands'
import { logged } from './support/logged'
import { startDulse, type RunningServer } from './support/server'

/** What people do with a basket beside drying all of it at once; the figures are reckoned by hand in `docs/method.md`. */
test.describe.configure({ mode: 'parallel' })

const HOUR = 3_600_000
let server: RunningServer
test.beforeEach(async () => {
  server = await startDulse()
})
test.afterEach(async () => {
  await server.stop()
})
const { call, onBatch, dried, packed } = logged(() => server)

interface FlowOf {
  batches: {
    batchId: string
    number: number
    flow: {
      basket: { weightG: number }
      arrows: { kind: string; weightG: number; leftG: number; form?: string }[]
      open: { form: string; place: string; weightG: { p50: number } }[]
    }
  }[]
}
const flowOf = async (batchId: string) => ((await call('GET', `/api/batches/${batchId}/flow`)) as FlowOf).batches
/** What left, by its kind, in whole grams. */
const left = ({ flow }: FlowOf['batches'][number]) =>
  flow.arrows.filter(({ kind }) => kind !== 'dried').map(({ kind, weightG }) => [kind, Math.round(weightG)])

async function intake(more: object, hoursAgo: number): Promise<string> {
  const id = uuidv7()
  const at = Math.round(Date.now() - hoursAgo * HOUR)
  const body = { kind: 'intake', source: 'Garden', purpose: 'powder', ...more }
  await call('POST', '/api/batches', { id, entry: { id: uuidv7(), at, body } })
  return id
}

interface Walk {
  hands: Hands
  main: ReturnType<Page['locator']>
  save: (name: string) => Promise<void>
  open: (name: string | RegExp) => Promise<void>
}
function walkOn(page: Page): Walk {
  const hands = mouse(page)
  const dialog = page.getByRole('dialog')
  return {
    hands,
    main: page.locator('main'),
    open: async name => {
      await hands.press(name)
      await expect(dialog).toBeVisible()
    },
    save: async name => {
      await hands.press(name)
      await gone(dialog)
    },
  }
}

test('the rest of a basket waits in the cold, is loaded as a part of its own, and is in the account', async ({ page }) => {
  const batchId = await intake({ foodKey: 'pumpkin', weightG: 5000, cardKey: 'slices-6' }, 3)
  await onBatch(batchId, 2, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 1600 })
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/batches/${batchId}`)
  await expect(main.getByText(/About 3\.40.kg should be there/)).toBeVisible()
  await open('Load')
  await hands.fill('Food on the trays', '2.4 kg')
  await expect(page.getByRole('dialog').getByText(/About 1\.00.kg is not on the trays/)).toBeVisible()
  await hands.press('Load')
  await expect(page.getByRole('dialog').getByText(/Say what becomes of the other 1\.00.kg/)).toBeVisible()
  await hands.choose(/is not on the trays/, 'the refrigerator')
  await save('Load')
  await expect(main.getByText(/Part batch 2, 1\.00.kg in the refrigerator/)).toBeVisible()
  expect((await flowOf(batchId)).map(left)).toEqual([
    [
      ['waste', 1600],
      ['part', 1000],
    ],
    [],
  ])

  // The part has its own clock on Now, and goes into the machine as what it is: trimmed once, and no more.
  await page.goto(server.address)
  await expect(main.getByText(/Pumpkin.*waits|waits.*pumpkin/i).first()).toBeVisible()
  await page.goto(`${server.address}/b/2`)
  await expect(main.getByText(/Part of batch 1/)).toBeVisible()
  await expect(main.getByText(/About 1\.00.kg should be there/)).toBeVisible()
  await page.goto(`${server.address}/batches/${batchId}/flow`)
  await expect(main.getByText(/Kept apart: batch 2/)).toBeVisible()
})

test('one dried load becomes pieces, flakes and powder', async ({ page }) => {
  const batchId = await dried(4)
  await onBatch(batchId, 3, { kind: 'restEnd' })
  const { hands, main, save, open } = walkOn(page)
  const pack = async (form: string | undefined, grams: string) => {
    await open(/^Pack/)
    if (form) await hands.choose('What goes in', form)
    await hands.fill('In this jar', grams)
    await save('Pack')
  }
  const grind = async (makes: string, dryIn: string, out: string) => {
    await open(/^Grind|^Log the grinding/)
    await hands.choose('It becomes', makes)
    await hands.fill('Dry in', dryIn)
    await hands.fill(makes === 'flakes' ? 'Flakes out' : 'Powder out', out)
    await save('Log the grinding')
  }
  await page.goto(`${server.address}/batches/${batchId}`)
  await open('Pack pieces of it')
  await hands.fill('In this jar', '60')
  await save('Pack')
  await expect(main.getByText(/packed 60.g of pieces/)).toBeVisible()
  await grind('flakes', '100', '95')
  await expect(main.getByRole('heading', { name: /95.g to pack/ })).toBeVisible()
  await pack('flakes', '95')
  await expect(main.getByRole('heading', { name: /64.g still to grind/ })).toBeVisible()
  await grind('powder', '64', '61')
  // More than there is of it is refused, in its form.
  await open(/^Pack/)
  await hands.fill('In this jar', '160')
  await hands.press('Pack')
  await expect(page.getByRole('dialog').getByText(/Only 61.g of powder is left to pack/)).toBeVisible()
  await hands.fill('In this jar', '61')
  await save('Pack')
  await expect(main.getByRole('heading', { name: 'It stands on the shelf' })).toBeVisible()
  const [whole] = await flowOf(batchId)
  expect(whole!.flow.arrows.filter(({ kind }) => kind === 'jar').map(({ form, weightG }) => [form, weightG])).toEqual([
    ['pieces', 60],
    ['flakes', 95],
    ['powder', 61],
  ])
  expect(left(whole!).filter(([kind]) => kind === 'mill')).toEqual([
    ['mill', 5],
    ['mill', 3],
  ])
  expect(whole!.flow.open).toEqual([])
  // Each jar is of its own form, on the shelf too.
  const { jars } = (await call('GET', `/api/batches/${batchId}/recall`)) as { jars: { purpose: string }[] }
  expect(jars.map(jar => jar.purpose).sort()).toEqual(['flakes', 'pieces', 'powder'])
})

test('a bowl is eaten on the way, and the best slices are kept apart for gifts', async ({ page }) => {
  const batchId = await intake({ foodKey: 'apple', weightG: 3000, cardKey: 'rings-5' }, 2)
  await onBatch(batchId, 1.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 })
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/batches/${batchId}`)
  await open('A part of it')
  await hands.fill('This part', '3 kg')
  await hands.choose('It is', 'eaten')
  await hands.press('Log this part')
  await expect(page.getByRole('dialog').getByText(/Only about 2\.70.kg is there/)).toBeVisible()
  await hands.fill('This part', '200')
  await save('Log this part')
  await expect(main.getByText(/200.g eaten/)).toBeVisible()
  await open('A part of it')
  await hands.fill('This part', '500')
  await hands.choose('For', 'Pieces')
  await hands.fill('What it is', 'best rings, for gifts')
  await save('Log this part')
  await expect(main.getByText(/About 2\.00.kg should be there/)).toBeVisible()
  const batches = await flowOf(batchId)
  expect(batches.map(left)).toEqual([
    [
      ['waste', 300],
      ['eaten', 200],
      ['part', 500],
    ],
    [],
  ])
  // What the two hold and what left is what came in.
  const openG = batches.map(({ flow }) => Math.round(flow.open[0]!.weightG.p50))
  expect(openG).toEqual([2000, 500])
  await page.goto(`${server.address}/batches/${batchId}/flow`)
  await expect(main.getByText('Eaten')).toBeVisible()
  await expect(main.getByText(/500.g.*17.%/)).toBeVisible()
})

test('what is not dry goes back, and the dry trays stay out', async ({ page }) => {
  const batchId = await dried(2, { dryG: 300 })
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/batches/${batchId}`)
  await open('Back to the machine')
  await hands.fill('Food on the trays', '100')
  await hands.choose(/About 200.g is not on the trays/, 'kept apart, dry')
  await save('Load')
  await expect(main.getByText(/Part batch 2, 200.g/)).toBeVisible()
  const [first, second] = await flowOf(batchId)
  expect(left(first!).filter(([kind]) => kind === 'part')).toEqual([['part', 200]])
  expect(second!.flow.open.map(({ form, weightG }) => [form, Math.round(weightG.p50)])).toEqual([['pieces', 200]])
  await page.goto(`${server.address}/b/2`)
  await expect(main.getByText(/200.g to grind/)).toBeVisible()
})

test('ground coarse, dried for an hour, and ground again', async ({ page }) => {
  const batchId = await dried(3, { weightG: 900, dryG: 106 })
  await onBatch(batchId, 2.5, { kind: 'choose', question: 'powderDry', school: 'between' })
  await onBatch(batchId, 2, { kind: 'restEnd' })
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/batches/${batchId}`)
  await open('Log the grinding')
  await hands.fill('Powder out', '104')
  await save('Log the grinding')
  await expect(main.getByRole('heading', { name: 'Dry the coarse powder' })).toBeVisible()
  await page.goto(server.address)
  await expect(main.getByText('Dry the coarse beetroot powder')).toBeVisible()
  await page.goto(`${server.address}/batches/${batchId}`)
  await open('Dry the powder')
  await hands.fill('Minutes', '60')
  await hands.fill('Before', '104')
  await hands.fill('After', '101')
  await save('Log the drying')
  await open('Grind it again')
  await expect(page.getByRole('dialog').getByLabel('Powder in')).toHaveValue(/^101/)
  await hands.fill('Powder out', '99')
  await save('Log the grinding')
  await expect(main.getByRole('heading', { name: /99.g to pack/ })).toBeVisible()
  const [whole] = await flowOf(batchId)
  expect(left(whole!).slice(-3)).toEqual([
    ['mill', 2],
    ['powder dried', 3],
    ['mill', 2],
  ])
})

test('in pounds, on a phone, without a scale: what finds no place on the trays is eaten', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const household = (await call('GET', '/api/household')) as object
  await call('PUT', '/api/household', { ...household, weightUnit: 'oz', temperatureUnit: 'F', measures: 'us', clockHours: 12 })
  // Ten pounds of carrots, an ounce and a half of each pound trimmed off: 9 lb 1 oz are more than six trays take.
  const batchId = await intake({ foodKey: 'carrot', weightG: 4536, cardKey: 'slices-3' }, 1)
  await onBatch(batchId, 0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 425 })
  const hands = mouse(page, true)
  const main = page.locator('main')
  await page.goto(`${server.address}/batches/${batchId}`)
  await expect(main.getByText(/About 9\slb\s1\soz should be there/)).toBeVisible()
  await hands.press('Load')
  await hands.choose('Weighed', 'Not weighed')
  const dialog = page.getByRole('dialog')
  const asked = dialog.getByText(/About \d\slb\s.*is not on the trays/)
  await expect(asked).toBeVisible()
  await asked.scrollIntoViewIfNeeded()
  await hands.choose(/is not on the trays/, 'eaten')
  await hands.press('Load')
  await gone(dialog)
  const [whole] = await flowOf(batchId)
  const [trimmed, eaten] = left(whole!) as [string, number][]
  expect([trimmed, eaten![0]]).toEqual([['waste', 425], 'eaten'])
  // Loaded is what the trays take of it, and both together are what there was, to the scale.
  const onTrays = whole!.flow.open[0]!
  expect(Math.abs(onTrays.weightG.p50 + eaten![1] - 4111)).toBeLessThan(25)
  await page.goto(`${server.address}/batches/${batchId}/flow`)
  await expect(main.getByText(/15.oz, 9\.4.%/)).toBeVisible()
})

test('two citrus are ground in one cup, each with its share', async ({ page }) => {
  const lemon = await dried(3, { foodKey: 'lemon', cardKey: 'slices-6', weightG: 1000, dryG: 130 })
  const orange = await dried(3, { foodKey: 'orange', cardKey: 'slices-6', weightG: 1000, dryG: 140 })
  for (const id of [lemon, orange]) await onBatch(id, 2, { kind: 'restEnd' })
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/batches/${lemon}/grind`)
  await main.getByText('Others into the same cup').click()
  await expect(main.getByRole('button', { name: 'Put them together' })).toBeDisabled()
  await main.getByText(/^Batch 2: Orange/).click()
  await hands.fill('Of batch 1', '60')
  await hands.fill('Of batch 2', '140')
  await hands.press('Put them together')
  await expect(main.getByRole('heading', { name: 'Grind orange and lemon' })).toBeVisible()
  await hands.fill('Powder in all', '194')
  await hands.press('Log the grinding')
  await expect(main.getByRole('heading', { name: /194.g to pack/ })).toBeVisible()
  await open(/^Pack/)
  await hands.fill('In this jar', '194')
  await save('Pack')
  await expect(main.getByRole('heading', { name: 'It stands on the shelf' })).toBeVisible()
  // What is left of the lemon is there still; the orange is all used.
  const batches = await flowOf(lemon)
  expect(batches.map(({ number, flow }) => [number, flow.open.map(lot => Math.round(lot.weightG.p50))])).toEqual([
    [1, [70]],
    [3, []],
  ])
})

test('purée is poured on sheets by the cup, and weighs what cups of it weigh', async ({ page }) => {
  const household = (await call('GET', '/api/household')) as object
  await call('PUT', '/api/household', { ...household, weightUnit: 'oz', temperatureUnit: 'F', measures: 'us', clockHours: 12 })
  const batchId = await intake({ foodKey: 'pumpkin', weightG: 4536, cardKey: 'sheet' }, 5)
  const { hands, main } = walkOn(page)
  await page.goto(`${server.address}/batches/${batchId}`)
  await hands.press('Load')
  const dialog = page.getByRole('dialog')
  await hands.fill('Food on the trays', '5 cups')
  // 5 × 236.6 mL × 1.03 = 1218 g, 2 lb 11 oz.
  await expect(dialog.getByText(/about 2\slb\s11\soz/)).toBeVisible()
  await hands.choose(/is not on the trays/, 'the freezer, to dry later')
  await hands.press('Load')
  await gone(dialog)
  const [first, second] = await flowOf(batchId)
  expect(Math.abs(first!.flow.open[0]!.weightG.p50 - 1218)).toBeLessThan(12)
  expect(second!.flow.open.map(({ form, place }) => [form, place])).toEqual([['prepared', 'freezer']])
  await expect(main.getByText(/loaded about 2\slb\s11\soz, not weighed/)).toBeVisible()
})

test('stems that come off are kept apart, dry on trays of their own, and are a batch with its jar', async ({ page }) => {
  const batchId = await intake({ foodKey: 'mushroom', weightG: 2000, cardKey: 'slices-6' }, 1)
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/batches/${batchId}`)
  await open('A part of it')
  await hands.choose('A part', 'of what came off it')
  await hands.fill('This part', '400')
  await hands.choose('For', 'Pieces')
  await hands.fill('What it is', 'stems')
  await save('Log this part')
  await page.goto(`${server.address}/b/2`)
  await expect(main.getByText(/Part of batch 1/)).toBeVisible()
  await expect(main.getByText(/400.g/).first()).toBeVisible()
  await open('Load')
  await hands.fill('Food on the trays', '400')
  await save('Load')
  const [caps, stems] = await flowOf(batchId)
  expect(left(caps!)).toEqual([['part', 400]])
  expect(stems!.flow.open.map(({ form, weightG }) => [form, Math.round(weightG.p50 / 10)])).toEqual([['drying', 40]])
  // The caps are what is left of the basket.
  expect(caps!.flow.open.map(({ weightG }) => Math.round(weightG.p50))).toEqual([1600])
})

test('old powder from a jar is ground once more and packed: it keeps its age, and nothing is trimmed of it', async ({ page }) => {
  const { jarId } = await packed(24 * 20)
  const { hands, main, save, open } = walkOn(page)
  await page.goto(`${server.address}/jars/${jarId}`)
  await open('Dry or grind again')
  await hands.fill('Out of the jar', '100')
  await save('Begin')
  await expect(main.getByText(/100.g/).first()).toBeVisible()
  await open(/^Grind/)
  await hands.fill('Powder out', '98')
  await save('Log the grinding')
  await open(/^Pack/)
  await hands.fill('In this jar', '98')
  await save('Pack')
  await expect(main.getByRole('heading', { name: 'It stands on the shelf' })).toBeVisible()
  const batchId = page.url().split('/').at(-1)!
  const [again] = await flowOf(batchId)
  // 100 − 2 of dust − 98 packed.
  expect(left(again!)).toEqual([
    ['mill', 2],
    ['jar', 98],
  ])
  expect(again!.flow.open).toEqual([])
})
