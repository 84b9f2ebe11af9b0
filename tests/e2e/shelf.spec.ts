import { expect, test, type Page } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { pressAct, gone } from './support/acts'
import { mouse } from './support/hands'
import { logged } from './support/logged'
import { startDulse, type RunningServer } from './support/server'

/** From dry to shelf, as somebody does it at the table, with full hands and with the wrong figure too. */
let server: RunningServer
const log = logged(() => server)
test.beforeAll(async () => {
  server = await startDulse()
})
test.afterAll(() => server.stop())

const main = (page: Page) => page.locator('main')
const dialog = (page: Page) => page.getByRole('dialog').filter({ visible: true }).last()
const saved = async (page: Page, name: string) => {
  await dialog(page).getByRole('button', { name, exact: true }).click()
  await gone(page.getByRole('dialog').filter({ visible: true }))
}
const open = async (page: Page, path: string) => {
  await page.goto(server.address + path)
  await expect(page.locator('main h1').first()).toBeVisible()
}

test('two jars rest: a look is one tap each, and a mouldy one goes while the other rests on', async ({ page }) => {
  const batchId = await log.dried(30)
  const hands = mouse(page)
  await open(page, `/batches/${batchId}`)
  await main(page).getByRole('button', { name: 'Begin the rest' }).click()
  await hands.fill('Size of the jars', '750')
  await hands.press('One jar more')
  const fields = dialog(page).getByLabel(/^Jar \d/)
  while ((await fields.count()) > 2) await hands.press('One less')
  await fields.nth(0).fill('Red lid')
  await fields.nth(1).fill('Blue lid')
  await saved(page, 'Begin the rest')
  const rest = main(page).getByRole('region', { name: 'Jars at rest' })
  await rest.getByRole('button', { name: 'Red lid: hung, fell when knocked' }).click()
  await expect(rest.getByRole('status')).toHaveText('Red lid: packed only, it fell when knocked.')
  // A slow house: between its arrival and the page's next look at the server what was logged stays in sight.
  let slow = true
  await page.route(`**/api/batches/${batchId}`, async route => {
    if (slow) await new Promise(resolve => setTimeout(resolve, 2500))
    await route.continue()
  })
  const written = page.waitForResponse(answer => answer.request().method() === 'POST')
  await rest.getByRole('button', { name: 'Blue lid: mould' }).click()
  const next = main(page).getByRole('region', { name: 'What comes next' })
  await expect(next.getByRole('heading', { name: 'Discard it' })).toBeVisible()
  await written
  await page.waitForTimeout(500)
  await expect(next.getByRole('heading', { name: 'Discard it' })).toBeVisible({ timeout: 1 })
  slow = false
  await main(page).getByRole('button', { name: 'That jar is thrown away' }).click()
  // The form is there as a whole before it is pressed: it grows while it comes in.
  await expect(dialog(page).getByLabel('What was in it')).toBeVisible()
  await dialog(page).getByText('Blue lid', { exact: true }).click()
  await hands.fill('What was in it', '900')
  await hands.press('Log it')
  await expect(dialog(page).getByText(/Only 224\sg is at rest in all its jars/)).toBeVisible()
  await hands.fill('What was in it', '100')
  await saved(page, 'Log it')
  await expect(rest.getByText('thrown away: mould')).toBeVisible()
  await expect(main(page).getByRole('heading', { name: /Day \d of 7 in the jar/ })).toBeVisible()
  await expect(main(page).getByText('124 g', { exact: true })).toBeVisible()
})

test('beads in one of two jars send all of it back to the machine', async ({ page }) => {
  const batchId = await log.dried(30)
  await log.onBatch(batchId, 29, { kind: 'rest', jars: [{ name: 'Left' }, { name: 'Right' }] })
  await open(page, `/batches/${batchId}`)
  await main(page).getByRole('button', { name: 'Right: beads' }).click()
  await expect(main(page).getByRole('heading', { name: 'Dry it again' })).toBeVisible()
  await expect(main(page).getByText(/all go back to the machine today/)).toBeVisible()
})

test('a round at the grinder runs by one tap, tells by word, and is kept over a closed page', async ({ page }) => {
  const batchId = await log.dried(60)
  await log.onBatch(batchId, 50, { kind: 'restEnd' })
  await log.call('PUT', '/api/tools', {
    id: uuidv7(),
    kind: 'grinder',
    name: 'Spice mill',
    cupMl: 300,
    watts: 150,
    cupCm: 7,
    fineness: 'fine',
  })
  await log.call('PUT', '/api/tools', { id: uuidv7(), kind: 'sieve', name: 'Strainer', openingUm: 600 })
  await log.call('PUT', '/api/tools', { id: uuidv7(), kind: 'sieve', name: 'Flour sieve', openingUm: 250 })
  await page.clock.install({ time: Date.now() - 15 * 60_000 })
  await open(page, `/batches/${batchId}`)
  await main(page).getByRole('button', { name: 'With the round timer' }).click()
  const plan = main(page).getByRole('region', { name: 'Plan' })
  await expect(plan.getByRole('heading', { name: /\d+ rounds of about/ })).toBeVisible()
  await expect(plan.getByText(/the lid stays shut/)).toBeVisible()
  // Space starts it where nothing is being typed; the clock does the rest.
  await page.keyboard.press('Space')
  const timer = main(page).getByRole('button', { name: /the round$/ })
  await expect(timer).toContainText('Burst 1 of')
  await page.clock.runFor(40_000)
  await expect(timer).toContainText(/Let it cool|Grind/)
  await page.clock.runFor(400_000)
  await expect(timer).toContainText('Open it')
  await main(page)
    .getByLabel(/^Into the cup/)
    .fill('112')
  await main(page)
    .getByLabel(/^Out of the cup/)
    .fill('108')
  await main(page).getByRole('button', { name: 'This round is done' }).click()
  await expect(main(page).getByText(/Round 1: 112.g in, 108.g out/)).toBeVisible()
  await page.reload()
  await expect(main(page).getByText(/Round 1: 112.g in, 108.g out/)).toBeVisible()
  await main(page)
    .getByLabel(/^Into the cup/)
    .fill('112')
  await main(page)
    .getByLabel(/^Out of the cup/)
    .fill('105')
  await main(page).getByRole('button', { name: 'This round is done' }).click()
  // Sieves go from coarse to fine; the other way round is refused at once.
  const sieve = main(page).getByRole('region', { name: 'Sieve' })
  const pass = async (name: string, through: string, over: string) => {
    await sieve.getByText(name, { exact: true }).click()
    await sieve.getByLabel(/^Fell through/).fill(through)
    await sieve.getByLabel(/^Stayed on top/).fill(over)
    await sieve.getByRole('button', { name: 'Add this pass' }).click()
  }
  await pass('Flour sieve', '150', '60')
  await expect(sieve.getByText(/71.% is through/)).toBeVisible()
  await pass('Strainer', '190', '20')
  await expect(sieve.getByText(/go from coarse to fine/)).toBeVisible()
  await pass('Flour sieve', '45', '12')
  await expect(sieve.getByText(/93.% is through: fine, for drinks and blends/)).toBeVisible()
  const out = main(page).getByRole('region', { name: 'What came out' })
  await expect(out.getByLabel(/^Powder in all/)).toHaveValue('213 g')
  await out.getByText(/^\s*Where 11.g went/).click()
  await out.getByLabel(/^Film in the cup/).fill('40')
  await main(page).getByRole('button', { name: 'Log the grinding' }).click()
  await expect(main(page).getByText(/losses add up to 40\sg, but only 11\sg is missing/)).toBeVisible()
  await out.getByLabel(/^Film in the cup/).fill('4')
  await main(page).getByRole('button', { name: 'Log the grinding' }).click()
  await expect(main(page).getByText(/ground 224.g to 213.g in 2 rounds, sifted 2×/)).toBeVisible()
  await expect(main(page).getByRole('heading', { name: /213.g to pack/ })).toBeVisible()
})

test('powder is dried with its gain, packed by size, with starch and one sachet but never both without a word', async ({ page }) => {
  const batchId = await log.dried(60)
  await log.onBatch(batchId, 50, { kind: 'restEnd' })
  await log.onBatch(batchId, 49, { kind: 'grind', dryInG: 224, powderOutG: 212 })
  const hands = mouse(page)
  await open(page, `/batches/${batchId}`)
  await main(page).getByRole('button', { name: 'Dry the powder' }).click()
  await hands.fill(/^After/, '208')
  await expect(dialog(page).getByText(/4.g of water gone: about [\d.]+.% before, [\d.]+.% now/)).toBeVisible()
  await saved(page, 'Log the drying')
  await main(page).getByRole('button', { name: 'Pack a jar' }).click()
  await hands.fill('In this jar', '208')
  await dialog(page).getByText('Another lid', { exact: true }).click()
  await hands.press('Pack')
  await expect(dialog(page).getByText(/Nobody knows what this lid lets in/)).toBeVisible()
  await hands.fill(/^The gel gained/, '0.05')
  await expect(
    dialog(page)
      .getByText(/mg a day/)
      .first(),
  ).toBeVisible()
  await dialog(page)
    .getByText(/^\s*Beside it/)
    .click()
  await hands.choose('Sachet', 'Both')
  await expect(dialog(page).getByText(/mL of air, and 21 % of it/)).toBeVisible()
  await hands.press('Pack')
  await expect(dialog(page).getByText(/An absorber and silica gel together: tick/)).toBeVisible()
  await dialog(page).locator('label').filter({ hasText: 'Silica gel' }).filter({ hasText: 'against clumping' }).click()
  await hands.fill(/^Starch against caking/, '6')
  await expect(dialog(page).getByText(/Not for what goes into drinks/)).toBeVisible()
  await saved(page, 'Pack')
  await main(page)
    .getByRole('link', { name: /^Jar \d/ })
    .first()
    .click()
  await expect(main(page).getByText(/6.g starch\s+in it/)).toBeVisible()
  await expect(main(page).getByText(/214.g of 214.g/)).toBeVisible()
})

test('a jar is topped up by its like, never by damper; it is then as old as its oldest part, and known both ways', async ({ page }) => {
  const old = await log.packed(24 * 90, { moisture: 0.05 })
  const batchId = await log.dried(40, { dryG: 200 })
  await log.onBatch(batchId, 38, { kind: 'jarAir', shown: 0.6, closedHours: 6, celsius: 20, calibration: { offset: 0, gain: 1, sd: 0.02 } })
  await log.onBatch(batchId, 37, { kind: 'restEnd' })
  await log.onBatch(batchId, 36, { kind: 'grind', dryInG: 200, powderOutG: 190 })
  const hands = mouse(page)
  await open(page, `/batches/${batchId}`)
  await main(page).getByRole('button', { name: 'Pack a jar' }).click()
  const { number } = (await log.call('GET', `/api/jars/${old.jarId}`)) as { number: number }
  await dialog(page).getByText(`Onto jar ${number}`, { exact: true }).click()
  await expect(dialog(page).getByText(/as old as its oldest part/)).toBeVisible()
  await hands.fill('In this jar', '60')
  await hands.press('Pack')
  await expect(dialog(page).getByText(/The addition holds \d+(\.\d)?.% water and the jar 5.%/)).toBeVisible()
  await hands.press('Cancel')
  // Dried again: the air says dry now.
  await log.onBatch(batchId, 30, {
    kind: 'jarAir',
    shown: 0.15,
    closedHours: 6,
    celsius: 20,
    calibration: { offset: 0, gain: 1, sd: 0.02 },
  })
  await page.reload()
  await main(page).getByRole('button', { name: 'Pack a jar' }).click()
  await dialog(page).getByText(`Onto jar ${number}`, { exact: true }).click()
  await hands.fill('In this jar', '60')
  await saved(page, 'Pack')
  await expect(main(page).getByText(/topped up with 60.g/)).toBeVisible()
  await open(page, `/jars/${old.jarId}`)
  await expect(
    main(page)
      .getByText(/oldest part/)
      .first(),
  ).toBeVisible()
  const from = main(page).getByRole('region', { name: 'Where it came from' })
  await expect(from.getByRole('link', { name: /^Batch/ })).toHaveCount(2)
  // The topping up stands in the log of the other batch, and is put right from here all the same.
  await main(page)
    .getByRole('button', { name: /^Correct: topped up with 60/ })
    .click()
  await hands.fill('In this jar', '55')
  await saved(page, 'Save the correction')
  await expect(main(page).getByText(/topped up with 55.g/)).toBeVisible()
  await from.getByRole('link', { name: 'Every jar of this basket' }).first().click()
  await expect(main(page).getByRole('heading', { name: 'Every jar of this basket' })).toBeVisible()
  await expect(main(page).getByRole('row')).toHaveCount(2)
  await expect(main(page).getByText(/with 1 other basket/)).toBeVisible()
})

test('a jar is split, its spoon weighed, smelt, looked at, and begun again', async ({ page }) => {
  const { jarId } = await log.packed(24 * 20)
  const hands = mouse(page)
  await open(page, `/jars/${jarId}`)
  await pressAct(main(page), 'Split')
  await hands.fill('Out of this jar', '500')
  await hands.press('Fill it')
  await expect(dialog(page).getByText(/Only 213\sg are left in this jar/)).toBeVisible()
  await hands.fill('Out of this jar', '50')
  await hands.fill('Where it stands', 'By the stove')
  await saved(page, 'Fill it')
  await expect(main(page).getByText(/163.g of 213.g/)).toBeVisible()
  await expect(main(page).getByText(/50.g went into a new jar, By the stove/)).toBeVisible()
  await pressAct(main(page), 'Weigh a spoon')
  await hands.fill('It holds', '900')
  await hands.press('Keep the weight')
  await expect(dialog(page).getByText(/is not a powder/)).toBeVisible()
  await hands.fill('It holds', '8')
  await saved(page, 'Keep the weight')
  await expect(main(page).getByText(/20 to 21 level tablespoons|2\d level tablespoons/)).toBeVisible()
  await main(page).getByRole('button', { name: 'Smell test' }).click()
  await dialog(page).getByText('weaker', { exact: true }).click()
  await saved(page, 'Log the smell')
  await expect(main(page).getByText(/by \d+ smell tests? of this food here/)).toBeVisible()
  await main(page).getByRole('button', { name: 'Look', exact: true }).click()
  await dialog(page).getByText('hard clumps', { exact: true }).click()
  await expect(dialog(page).getByText(/that is moisture/)).toBeVisible()
  await saved(page, 'Log the look')
  await main(page).getByRole('link', { name: 'Open it' }).click()
  await expect(main(page).getByText('By the stove', { exact: true })).toBeVisible()
  await pressAct(main(page), 'Dry or grind again')
  await hands.fill('Out of the jar', '50')
  await hands.press('Begin')
  await expect(main(page).getByRole('heading', { name: /50.g to pack/ })).toBeVisible()
  await expect(main(page).getByRole('button', { name: 'Dry the powder' })).toBeVisible()
})

test('the shelf is found by words, says what is low, and keeps a wish', async ({ page }) => {
  await log.packed(24 * 10, { foodKey: 'onion', cardKey: 'rings-5' })
  await open(page, '/shelf')
  await main(page).getByRole('textbox', { name: 'Only jars with these words' }).fill('onion')
  await expect(main(page).getByRole('listitem')).toHaveCount(1)
  await main(page).getByRole('textbox', { name: 'Only jars with these words' }).fill('kelp')
  await expect(main(page).getByText('No jar has these words.')).toBeVisible()
  await main(page).getByText('What there is').click()
  const wish = main(page).getByLabel('Keep at least of Onion')
  await wish.fill('plenty')
  await wish.blur()
  await expect(main(page).getByText(/is not a weight|Write a weight/)).toBeVisible()
  await wish.fill('2 kg')
  await wish.blur()
  await expect(main(page).getByRole('row', { name: /Onion/ }).getByText('low')).toBeVisible()
  await main(page).getByText('By place').click()
  await expect(main(page).getByText(/Running low/)).toBeVisible()
})

test('labels of several jars go on one sheet from the first free place, and the short address finds the jar', async ({ page }) => {
  const { jarId } = await log.packed(30)
  await open(page, '/labels')
  await main(page).getByRole('button', { name: 'None' }).click()
  await expect(main(page).getByText('Choose a jar.')).toBeVisible()
  await main(page).getByRole('button', { name: 'All in the list' }).click()
  await main(page).getByRole('button', { name: 'Begin at place 5' }).click()
  await expect(main(page).getByText(/4 places used already/)).toBeVisible()
  const href = await main(page).getByRole('link', { name: 'PDF at true scale' }).getAttribute('href')
  const pdf = await page.request.get(server.address + href)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  const { number } = (await log.call('GET', `/api/jars/${jarId}`)) as { number: number }
  await open(page, `/j/${number}`)
  await expect(page).toHaveURL(`${server.address}/jars/${jarId}`)
  await open(page, '/j/999')
  await expect(main(page).getByText('There is no jar 999.')).toBeVisible()
})

test('what was noted for next time is told when the same comes in again', async ({ page }) => {
  const { batchId } = await log.packed(24 * 60)
  const hands = mouse(page)
  await open(page, `/batches/${batchId}`)
  await pressAct(main(page), 'For next time')
  await dialog(page).getByText('Yes, but changed', { exact: true }).click()
  await hands.press('Keep it')
  await expect(dialog(page).getByText('Say what to change.')).toBeVisible()
  await hands.press('Cut it thinner')
  await saved(page, 'Keep it')
  await expect(main(page).getByText('next time: again, but changed. Cut it thinner')).toBeVisible()
  await open(page, '/intake?food=beetroot')
  await expect(main(page).getByRole('region', { name: 'From earlier times' }).getByText('Cut it thinner')).toBeVisible()
})

test('two batches are laid side by side and the difference is said', async ({ page }) => {
  await log.packed(24 * 50)
  await log.packed(24 * 40, { dryG: 180 })
  await open(page, '/compare?food=beetroot')
  const boxes = main(page).getByRole('checkbox', { name: /side by side/ })
  await boxes.nth(0).check()
  await boxes.nth(1).check()
  await main(page).getByRole('button', { name: 'Say the difference' }).click()
  await expect(main(page).getByRole('region', { name: 'The difference' }).getByRole('listitem').first()).toHaveText(/done alike|differ in/)
  await open(page, '/insight')
  await expect(main(page).getByRole('row', { name: /Beetroot/ })).toBeVisible()
  await main(page)
    .getByRole('row', { name: /Beetroot/ })
    .getByRole('button', { name: 'More' })
    .click()
  await main(page).getByLabel('The shop asks a kilogram').fill('30')
  await main(page).getByRole('button', { name: 'Compare' }).click()
  await expect(main(page).getByText(/against €.30 a kilogram in the shop/)).toBeVisible()
})

test('figures from the card at the wall are typed in line by line; a wrong one stays with its reason', async ({ page }) => {
  const batchId = uuidv7()
  const runId = uuidv7()
  const [machine] = (await log.call('GET', '/api/machines')) as { id: string }[]
  const loaded = new Date(Date.now() - 20 * 3_600_000)
  await log.call('POST', '/api/batches', {
    id: batchId,
    entry: {
      id: uuidv7(),
      at: loaded.getTime() - 60_000,
      body: { kind: 'intake', foodKey: 'carrot', source: 'Market', weightG: 1000, purpose: 'powder', cardKey: 'slices-3' },
    },
  })
  await log.onBatch(batchId, 20, { kind: 'load', runId, machineId: machine!.id, positions: [1], totalG: 900 })
  await open(page, `/batches/${batchId}/paper`)
  const zone = ((await log.call('GET', '/api/household')) as { timeZone: string }).timeZone
  const clock = (hours: number) =>
    new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone }).format(loaded.getTime() + hours * 3_600_000)
  const fill = async (line: number, time: string, weight: string, note = '') => {
    await main(page).getByLabel(`Time of line ${line}`, { exact: true }).fill(time)
    await main(page).getByLabel(`Weight of line ${line}`, { exact: true }).fill(weight)
    if (note) await main(page).getByLabel(`Note of line ${line}`, { exact: true }).fill(note)
  }
  await fill(1, clock(3), '620', 'turned')
  await fill(2, '25:70', '400')
  await main(page).getByRole('button', { name: 'Log all lines' }).click()
  await expect(main(page).getByText('“25:70” is not a time: write 18:40.')).toBeVisible()
  await fill(2, clock(6), '1900')
  await main(page).getByRole('button', { name: 'Log all lines' }).click()
  await expect(main(page).getByText(/1 line logged. Put the next one right/)).toBeVisible()
  await expect(main(page).getByText(/1\.90\skg is more than the 900\sg/)).toBeVisible()
  // The weight goes in, its endless note does not: put right, the note follows and the weight is not sent again.
  await fill(2, clock(6), '390', 'x'.repeat(2001))
  await main(page).getByRole('button', { name: 'Log all lines' }).click()
  await expect(main(page).getByText(/Its weight is logged; its note is not/)).toBeVisible()
  await main(page).getByLabel('Note of line 2', { exact: true }).fill('crisp at the rim')
  await main(page).getByRole('button', { name: 'Log all lines' }).click()
  await expect(main(page).getByText('1 line logged.', { exact: true })).toBeVisible()
  const { entries } = (await log.call('GET', `/api/batches/${batchId}`)) as { entries: { body: { kind: string; totalG?: number } }[] }
  expect(entries.filter(entry => entry.body.kind === 'weigh').map(entry => entry.body.totalG)).toEqual([620, 390])
  const card = await page.request.get(`${server.address}/api/batches/${batchId}/card.pdf`)
  expect((await card.body()).subarray(0, 5).toString()).toBe('%PDF-')
})
