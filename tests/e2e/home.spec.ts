import { request as asPlain } from 'node:http'
import { Agent, request } from 'node:https'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Browser, type Page } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { gone } from './support/acts'
import { startDemo, type Demo } from './support/demo'
import { codeFor, houseAddress, openHouse, PASSPHRASE, phone, trusting } from './support/house'
import { logged } from './support/logged'
import { movedClock } from './support/clock'
import { startDulse } from './support/server'

/** The house: two real browsers with TLS, a passphrase, roles, pairing; the page without its server; two that did not know of each other. */
test.describe.configure({ mode: 'parallel' })
let demo: Demo
let house: Browser | undefined
test.beforeEach(async () => {
  demo = await startDemo()
})
test.afterEach(async () => {
  await house?.close()
  house = undefined
  await demo.server.stop()
})
const { call } = logged(() => demo.server)
const main = (page: Page) => page.locator('main')

test('a keeper opens it to the house; a phone is let in by a code, logs, and is taken off', async ({ page }) => {
  await page.goto(`${demo.address}/workshop/devices`)
  await main(page).getByRole('button', { name: 'Home network' }).click()
  await expect(main(page).getByRole('heading', { name: 'This computer only' })).toBeVisible()
  await main(page).getByLabel('Passphrase of the household').fill('too short')
  await main(page).getByRole('button', { name: 'Keep this passphrase' }).click()
  await expect(main(page).getByText(/At least 12 letters/)).toBeVisible()
  await main(page).getByLabel('Passphrase of the household').fill(PASSPHRASE)
  await main(page).getByRole('button', { name: 'Keep this passphrase' }).click()
  await main(page).getByRole('button', { name: 'Open it to the house' }).click()
  await expect(main(page).getByRole('heading', { name: 'Open to the house' })).toBeVisible()
  await expect(main(page).getByRole('img', { name: 'Page for the phone to trust this server' })).toBeVisible()
  await main(page).getByRole('button', { name: 'Show a code' }).click()
  const code = await main(page).getByLabel('Code', { exact: true }).innerText()

  house = await trusting(demo.server)
  const address = houseAddress((await call('GET', '/api/home')) as { links: string[] })
  const context = await house.newContext({ viewport: { width: 390, height: 844 } })
  const mobile = await context.newPage()
  // Before it is let in it sees the door and nothing of the house, whatever it asks for.
  await mobile.goto(`${address}/batches/${demo.ids.pumpkin}`)
  await expect(mobile.getByRole('heading', { name: 'Dulse' })).toBeVisible()
  expect(await mobile.content()).not.toContain('Pumpkin')
  await mobile.getByText('A code', { exact: true }).click()
  await mobile.getByRole('textbox', { name: 'Code' }).fill('AAAA BBBB CC')
  await mobile.getByLabel('Name of this device').fill('Mira’s phone')
  await mobile.getByRole('button', { name: 'Come in' }).click()
  await expect(mobile.getByText(/This code is wrong, was used already/)).toBeVisible()
  await mobile.getByRole('textbox', { name: 'Code' }).fill(code)
  await mobile.getByRole('button', { name: 'Come in' }).click()
  // Where it was going.
  await expect(mobile.locator('main h1').first()).toContainText('Pumpkin')
  expect(await mobile.evaluate(() => document.cookie)).toBe('')
  expect((await context.cookies())[0]).toMatchObject({ httpOnly: true, secure: true, sameSite: 'Lax' })

  await mobile.keyboard.press('w')
  await mobile.keyboard.type('555')
  await mobile.keyboard.press('Enter')
  await expect(mobile.getByText(/555.g now/)).toBeVisible()
  await page.goto(`${demo.address}/batches/${demo.ids.pumpkin}`)
  await expect(main(page).getByRole('region', { name: 'Log', exact: true }).getByText('Mira’s phone').first()).toBeVisible()

  // A cook changes no settings and takes nothing out.
  expect((await context.request.get(`${address}/api/backup.sqlite`, { ignoreHTTPSErrors: true })).status()).toBe(403)
  await mobile.goto(`${address}/home`)
  await expect(mobile.getByText(/Only a keeper may do this/)).toBeVisible()

  await page.goto(`${demo.address}/home`)
  await main(page).getByRole('button', { name: 'Take Mira’s phone off' }).click()
  await main(page).getByRole('button', { name: 'Take it off' }).click()
  await expect(main(page).getByText('None yet.')).toBeVisible()
  expect((await context.request.get(`${address}/api/now`, { ignoreHTTPSErrors: true })).status()).toBe(401)
})

test('a device that was signed out keeps what it logs until it is in again', async () => {
  const address = await openHouse(demo.server)
  house = await trusting(demo.server)
  const context = await phone(house, demo.server, address, 'Tablet')
  const page = await context.newPage()
  await page.goto(`${address}/batches/${demo.ids.pumpkin}`)
  await expect(page.locator('main h1').first()).toContainText('Pumpkin')
  const { devices } = (await call('GET', '/api/home')) as { devices: { id: string }[] }
  await call('DELETE', `/api/home/devices/${devices[0]!.id}`)
  await page.keyboard.press('w')
  await page.keyboard.type('544')
  await page.keyboard.press('Enter')
  await expect(page.getByText('This device has to sign in again.')).toBeVisible()
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByText('A code', { exact: true }).click()
  await page.getByRole('textbox', { name: 'Code' }).fill(await codeFor(demo.server))
  await page.getByRole('button', { name: 'Come in' }).click()
  // It may be another of the household who came in: it is asked under whose name it goes.
  await expect(page.getByText(/written under an earlier sign-in/)).toBeVisible()
  await page.getByRole('button', { name: 'Send again' }).click()
  await expect(page.getByText(/544.g now/)).toBeVisible()
  await expect.poll(async () => JSON.stringify(await call('GET', `/api/batches/${demo.ids.pumpkin}`))).toContain('544')
})

test('pages of other sites, other names and other keys are turned away', async () => {
  const address = await openHouse(demo.server)
  const ca = readFileSync(join(demo.server.folder, 'home/authority.crt'))
  const agent = new Agent({ ca })
  const ask = (path: string, options: { method?: string; headers?: Record<string, string>; body?: string; plain?: boolean } = {}) =>
    new Promise<{ status: number; text: string; headers: Record<string, unknown> }>((resolve, reject) => {
      const url = new URL(path, options.plain ? demo.address : address)
      const make = options.plain ? asPlain : request
      const sent = make(
        url,
        { method: options.method ?? 'GET', headers: options.headers, ...(options.plain ? {} : { agent, servername: 'localhost' }) },
        answer => {
          let text = ''
          answer
            .on('data', (chunk: Buffer) => (text += chunk.toString()))
            .on('end', () => resolve({ status: answer.statusCode!, text, headers: answer.headers }))
        },
      )
      sent.on('error', reject).end(options.body)
    })
  // A name that somebody points to this machine reads nothing: of the log, of files, of the page itself.
  for (const path of ['/', '/api/export/logbook.json', '/dulse.svg', '/api/home/me'])
    for (const plain of [true, false]) {
      const { status, text } = await ask(path, { plain, headers: { host: 'evil.example' } })
      expect([path, plain, status]).toEqual([path, plain, 421])
      expect(text).toContain('is not called “evil.example”')
    }
  const write = { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' }
  expect((await ask('/api/batches', { ...write, plain: true, headers: { ...write.headers, origin: 'http://evil.example' } })).status).toBe(
    403,
  )
  expect((await ask('/api/batches', { ...write, plain: true, headers: { ...write.headers, 'sec-fetch-site': 'cross-site' } })).status).toBe(
    403,
  )
  expect((await ask('/api/batches', { ...write, plain: true })).status).toBe(400)
  expect((await ask('/api/batches', write)).status).toBe(401)

  // A key is good for one thing.
  const devices = [uuidv7(), uuidv7()].map(id => ({ id }))
  for (const { id } of devices) await call('PUT', '/api/devices', { id, name: `Scale ${id.slice(-4)}`, kind: 'scale', machineId: null })
  const { key } = (await call('POST', '/api/home/tokens', { name: 'Scale', use: 'readings', deviceId: devices[0]!.id })) as { key: string }
  const feed = (await call('POST', '/api/home/tokens', { name: 'Wall calendar', use: 'calendar' })) as { key: string }
  const bearer = { authorization: `Bearer ${key}`, 'content-type': 'application/json' }
  const readings = (device: string) => JSON.stringify({ device, readings: [{ channel: 'weightG', at: Date.now() - 1000, value: 400 }] })
  expect((await ask('/api/readings', { method: 'POST', headers: bearer, body: readings(devices[0]!.id) })).status).not.toBe(401)
  expect((await ask('/api/readings', { method: 'POST', headers: bearer, body: readings(devices[1]!.id) })).status).toBe(403)
  expect((await ask('/api/now', { headers: bearer })).status).toBe(403)
  expect((await ask(`/api/calendar.ics?key=${feed.key}`)).text).toContain('BEGIN:VCALENDAR')
  expect((await ask(`/api/now?key=${feed.key}`)).status).toBe(401)
  expect((await ask('/api/calendar.ics')).status).toBe(401)

  // What every answer says to a browser.
  for (const path of ['/', '/api/now', '/dulse.svg']) {
    const { headers } = await ask(path, { plain: true })
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin', 'x-frame-options': 'DENY' })
    expect(headers['content-security-policy']).toMatch(
      /^default-src 'none'; script-src 'self' 'wasm-unsafe-eval'[^;]*; .*frame-ancestors 'none'/,
    )
    expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*'unsafe-(?:inline|eval)'/)
    expect(headers).not.toHaveProperty('x-powered-by')
  }
})

/** How many files of the application, and how many answers, a browser keeps. */
const kept = (page: Page) =>
  page.evaluate(async () => {
    const names = await caches.keys()
    const count = async (start: string) => {
      const found = names.find(name => name.startsWith(start))
      return found ? (await (await caches.open(found)).keys()).length : 0
    }
    return [await count('workbox-precache'), await count('dulse-answers')] as const
  })
/** The application is kept first, and stands at the helm from the next page on. */
async function installed(page: Page) {
  await expect.poll(async () => (await kept(page))[0], { timeout: 120_000 }).toBeGreaterThan(100)
  await page.evaluate(() => navigator.serviceWorker.ready)
  await page.reload()
  await expect(page.locator('main h1').first()).toBeVisible()
}

test('the page opens without its server, shows when it was true, and what is logged is sent when it is back', async () => {
  test.setTimeout(360_000)
  await openHouse(demo.server)
  // Its ports stay, since phones keep the address.
  const { tls, plain } = {
    tls: new URL(((await call('GET', '/api/home')) as { links: string[] }).links[0]!).port,
    plain: new URL(((await call('GET', '/api/home')) as { trustLinks: string[] }).trustLinks[0]!).port,
  }
  const address = `https://localhost:${tls}`
  house = await trusting(demo.server)
  const context = await phone(house, demo.server, address, 'Mira’s phone')
  const page = await context.newPage()
  await page.goto(address)
  await expect(page.locator('main h1').first()).toBeVisible()
  await installed(page)
  await expect.poll(async () => (await kept(page))[1], { timeout: 150_000 }).toBeGreaterThan(12)

  await demo.server.kill()
  await page.goto(address)
  await expect(page.getByText(/What you see is as of/)).toBeVisible()
  await expect(page.locator('section.rack').filter({ hasText: 'Pumpkin' }).first()).toBeVisible()
  for (const [path, words] of [
    ['/shelf', /jars/i],
    ['/kitchen', /Water back|water/i],
    ['/reference', /Beetroot/],
    [`/batches/${demo.ids.pumpkin}`, /Pumpkin/],
  ] as const) {
    await page.goto(address + path)
    await expect(page.locator('main').getByText(words).first()).toBeVisible()
  }
  await page.keyboard.press('w')
  await page.keyboard.type('533')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/1 entry kept here and sent when it is back/)).toBeVisible()
  // The page is closed, and the phone is carried about; then both are back.
  await page.close()
  const again = await startDulse(demo.server.folder, Number(new URL(demo.address).port), `${tls},${plain}`)
  const later = await context.newPage()
  await later.goto(`${address}/batches/${demo.ids.pumpkin}`)
  await expect.poll(async () => JSON.stringify(await call('GET', `/api/batches/${demo.ids.pumpkin}`)), { timeout: 30_000 }).toContain('533')
  await gone(later.getByText(/Out of touch/))
  await again.stop()
})

test('two that were offline: two weights of a tray at one minute, a jar emptied twice, a batch weighed that was taken out', async ({
  page,
}) => {
  test.setTimeout(360_000)
  const address = await openHouse(demo.server)
  house = await trusting(demo.server)
  const [mira, jon] = await Promise.all(['Mira’s phone', 'Jon’s tablet'].map(name => phone(house!, demo.server, address, name)))
  const at = Date.now() - 60_000
  const post = (context: typeof mira, path: string, body: object, when = at) =>
    context!.request.post(address + path, { data: { id: uuidv7(), at: when, body }, ignoreHTTPSErrors: true })

  // Two weights: both are in the log, and the hand of somebody who was there says which.
  const batch = `/api/batches/${demo.ids.pumpkin}/entries`
  const { entries } = (await call('GET', `/api/batches/${demo.ids.pumpkin}`)) as {
    entries: { body: { kind: string; positions?: number[] } }[]
  }
  const [tray] = entries.find(entry => entry.body.kind === 'load')!.body.positions!
  expect((await post(mira, batch, { kind: 'weigh', trays: [{ position: tray, weightG: 91 }] })).ok()).toBe(true)
  expect((await post(jon, batch, { kind: 'weigh', trays: [{ position: tray, weightG: 119 }] })).ok()).toBe(true)
  await page.goto(demo.address)
  await page.getByRole('button', { name: /^Settle it: Pumpkin/ }).click()
  const card = page.getByRole('region', { name: 'Say which is right' })
  await expect(card.getByText('Mira’s phone')).toBeVisible()
  await expect(card.getByText('Jon’s tablet')).toBeVisible()
  await card.getByRole('button', { name: /91.g.*by Mira’s phone/ }).click()
  await gone(card)
  await expect(page.getByText('the other weight is right')).toBeVisible()

  // A jar emptied by both: the second writes it out of reach, and the server finds it when it comes.
  const jar = (await call('GET', `/api/jars/${demo.ids.jar}`)) as { leftG: number; number: number }
  const tablet = await jon!.newPage()
  await tablet.goto(`${address}/jars/${demo.ids.jar}`)
  await expect(tablet.locator('main h1').first()).toBeVisible()
  await installed(tablet)
  await jon!.setOffline(true)
  await tablet.getByRole('button', { name: 'Take some', exact: false }).first().click()
  const form = tablet.getByRole('dialog').filter({ visible: true }).last()
  await form
    .getByRole('textbox')
    .first()
    .fill(String(Math.floor(jar.leftG)))
  await form
    .getByRole('button', { name: /^(?:Log|Take)/ })
    .last()
    .click()
  await expect(tablet.getByText(/kept here and sent when it is back/)).toBeVisible()
  expect(
    (
      await post(
        mira,
        `/api/jars/${demo.ids.jar}/entries`,
        { kind: 'take', jarId: demo.ids.jar, weightG: Math.floor(jar.leftG), use: 'Soup' },
        Date.now(),
      )
    ).ok(),
  ).toBe(true)
  await jon!.setOffline(false)
  await page.goto(demo.address)
  await expect(page.getByText(`Jar ${jar.number}: say which is right.`)).toBeVisible({ timeout: 30_000 })
  await gone(tablet.getByText(/Not taken/))
  await page.getByRole('button', { name: `Settle it: jar ${jar.number}` }).click()
  await expect(card.getByText('Jon’s tablet')).toBeVisible()
  // Jon's it was: what Mira logged is voided, his stands, in one press.
  await card.getByRole('button', { name: /by Jon’s tablet/ }).click()
  await gone(card)
  await expect(page.getByText('what came late is right')).toBeVisible()

  // Taken out on one, weighed on the other.
  await tablet.goto(`${address}/batches/${demo.ids.pumpkin}`)
  await expect(tablet.locator('main h1').first()).toContainText('Pumpkin')
  await jon!.setOffline(true)
  // Before he weighs it, however slow this machine is.
  const takenOutAt = Date.now() - 1000
  await tablet.keyboard.press('w')
  await tablet.keyboard.type('511')
  await tablet.keyboard.press('Enter')
  await expect(tablet.getByText(/kept here and sent when it is back/)).toBeVisible()
  expect((await post(mira, batch, { kind: 'unload' }, takenOutAt)).ok()).toBe(true)
  await jon!.setOffline(false)
  await expect
    .poll(async () => JSON.stringify(await call('GET', `/api/batches/${demo.ids.pumpkin}`)), { timeout: 30_000 })
    .toContain('"unsettled"')
  await page.goto(`${demo.address}/batches/${demo.ids.pumpkin}`)
  await expect(card.getByText(/not in a machine/)).toBeVisible()
  await card.getByRole('button', { name: /by Mira’s phone/ }).click()
  await gone(card)
})

test('a server whose clock is two days behind keeps nobody’s weight out for good', async ({ page }) => {
  await demo.server.stop()
  const clock = movedClock()
  demo.server = await startDulse(demo.server.folder, Number(new URL(demo.address).port), undefined, clock.env)
  await page.goto(`${demo.address}/batches/${demo.ids.pumpkin}`)
  await expect(page.locator('main h1').first()).toContainText('Pumpkin')
  clock.set(-2 * 86_400_000)
  await page.keyboard.press('w')
  await page.keyboard.type('566')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/By the server’s clock this has not happened yet/)).toBeVisible()
  await page.reload()
  await expect(page.getByText(/The clock of this device is 48 hours ahead of the server’s|2 days ahead/)).toBeVisible()
  expect(JSON.stringify(await call('GET', `/api/batches/${demo.ids.pumpkin}`))).not.toContain('"totalG":566')
  clock.set(0)
  await expect
    .poll(async () => JSON.stringify(await call('GET', `/api/batches/${demo.ids.pumpkin}`)), { timeout: 30_000 })
    .toContain('"totalG":566')
  await gone(page.getByText(/Waits for the clocks/))
})

test('where it is wished, this computer is asked too; who comes in changes it back', async ({ page }) => {
  await openHouse(demo.server)
  await page.goto(`${demo.address}/home`)
  await main(page).getByRole('button', { name: 'Ask it on this computer too' }).click()
  await expect(page.getByText('This household’s logbook asks who you are')).toBeVisible()
  expect((await fetch(`${demo.address}/api/now`)).status).toBe(401)
  await page.getByLabel('Passphrase of the household').fill('wrong, all of it')
  await page.getByLabel('Name of this device').fill('Kitchen computer')
  await page.getByRole('button', { name: 'Come in' }).click()
  await expect(page.getByText('That is not the passphrase.')).toBeVisible()
  await page.getByLabel('Passphrase of the household').fill(PASSPHRASE)
  await page.getByRole('button', { name: 'Come in' }).click()
  await expect(main(page).getByText('Pumpkin').first()).toBeVisible()
  await page.goto(`${demo.address}/workshop/devices`)
  await expect(main(page).getByText('Kitchen computer')).toBeVisible()
  await page.goto(`${demo.address}/home`)
  await main(page).getByRole('button', { name: 'Do not ask on this computer' }).click()
  await expect.poll(async () => (await fetch(`${demo.address}/api/now`)).status).toBe(200)
})

test('a phone that left its page open for long, or asks much at once, is answered all the same', async () => {
  const address = await openHouse(demo.server)
  house = await trusting(demo.server)
  const context = await phone(house, demo.server, address, 'Old phone')
  const page = await context.newPage()
  await page.goto(address)
  await expect(page.locator('main h1').first()).toBeVisible()
  // The line to the page stands open for seconds; how long is not what it costs.
  await page.waitForTimeout(3000)
  await page.close()
  const begun = Date.now()
  expect((await context.request.get(`${address}/api/now`, { ignoreHTTPSErrors: true })).status()).toBe(200)
  expect(Date.now() - begun).toBeLessThan(2500)
  const many = await Promise.all(
    Array.from({ length: 20 }, () =>
      context.request.get(`${address}/api/batches/${demo.ids.pumpkin}`, { ignoreHTTPSErrors: true, timeout: 60_000 }),
    ),
  )
  expect(many.map(answer => answer.status()).filter(status => status !== 200)).toEqual([])
})
