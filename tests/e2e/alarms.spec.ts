import type { Page } from '@playwright/test'
import { openHook, openMailbox, type Receiver } from '../../devices/receivers'
import { expect, startDemo, test, type Demo } from './support/demo'
import { startDulse } from './support/server'

/** Being told of what is due, on the page and away from it, as somebody sets it up. */
let own: Demo
test.beforeAll(async () => {
  own = await startDemo()
})
test.afterAll(() => own.server.stop())
const main = (page: Page) => page.locator('main')

test('a device tells what is due by a notification, once', async ({ page }) => {
  await page.addInitScript(() => {
    const told = JSON.parse(sessionStorage.getItem('told') ?? '[]') as [string, string][]
    class Recorder {
      static permission = 'granted'
      static requestPermission = () => Promise.resolve('granted')
      onclick?: () => void
      constructor(title: string, { body, tag }: { body: string; tag: string }) {
        told.push([tag, `${title}: ${body}`])
        sessionStorage.setItem('told', JSON.stringify(told))
      }
    }
    Object.defineProperty(window, 'Notification', { value: Recorder })
  })
  const told = () => page.evaluate(() => JSON.parse(sessionStorage.getItem('told') ?? '[]') as [string, string][])
  /** What this device has told by its own account. */
  const counted = () => page.evaluate(() => (JSON.parse(localStorage.getItem('dulse.alarms.told') ?? '[]') as unknown[]).length)
  await page.goto(`${own.address}/workshop/alarms`)
  // At whatever hour this is tried somebody may sleep.
  await main(page).getByText('Tell me here').click()
  await main(page).getByText('Quiet at night, except where food spoils', { exact: true }).click()
  // One after the other: all of them are waited for.
  await expect.poll(counted).toBeGreaterThan(0)
  await expect.poll(async () => (await counted()) - (await told()).length).toBe(0)
  const first = await told()
  for (const [, line] of first) expect(line).toMatch(/^\w.+: \w.+/)
  // Neither another page nor the counter's tablet tells it again; what falls due meanwhile is told once too.
  for (const path of ['/', '/counter']) {
    await page.goto(own.address + path)
    await expect(main(page).first()).toBeVisible()
    await page.waitForTimeout(1500)
  }
  const tags = (await told()).map(([tag]) => tag)
  expect(tags).toEqual(expect.arrayContaining(first.map(([tag]) => tag)))
  expect(new Set(tags).size).toBe(tags.length)
})

test('a message and a letter are set up by hand: wrong addresses are met in words, the right ones arrive', async ({ page }) => {
  const receivers: Receiver<unknown>[] = []
  try {
    const [hook, box] = [await openHook(0), await openMailbox(0)]
    receivers.push(hook, box)
    await page.goto(`${own.address}/workshop/alarms`)
    const web = main(page).getByRole('region', { name: 'By a message to the web' })
    await web.getByText('Send messages').click()
    await web.getByLabel('Address').fill('the kitchen')
    await web.getByRole('button', { name: 'Save and send one' }).click()
    await expect(web.getByText('Give an address that begins with http:// or https://.')).toBeVisible()
    await web.getByLabel('Address').fill('http://127.0.0.1:1/')
    await web.getByRole('button', { name: 'Save and send one' }).click()
    await expect(web.getByText(/Nobody answers at http:\/\/127\.0\.0\.1:1\//)).toBeVisible()
    await web.getByLabel('Address').fill(`http://127.0.0.1:${hook.port}/`)
    await web.getByRole('button', { name: 'Save and send one' }).click()
    await expect(main(page).getByText('It was taken there.')).toBeVisible()
    expect(hook.messages).toContainEqual(expect.objectContaining({ source: 'dulse', kind: 'trial' }))

    const mail = main(page).getByRole('region', { name: 'By mail' })
    await mail.getByText('Send mail').click()
    await mail.getByLabel('Outgoing server').fill('127.0.0.1')
    await mail.getByRole('textbox', { name: /^Port/ }).fill(String(box.port))
    await mail.getByLabel('From', { exact: true }).fill('kitchen@example.org')
    await mail.getByLabel('To', { exact: true }).fill('the cook')
    await mail.getByRole('button', { name: 'Save and send one' }).click()
    await expect(mail.getByText('This is no mail address.')).toBeVisible()
    await mail.getByLabel('To', { exact: true }).fill('cook@example.org')
    await mail.getByRole('button', { name: 'Save and send one' }).click()
    await expect(main(page).getByText('Sent to cook@example.org.')).toBeVisible()
    expect(box.messages.join()).toContain('Dulse can reach you')
    // It stands there after a restart too.
    const port = Number(new URL(own.address).port)
    await own.server.stop()
    own.server = await startDulse(own.server.folder, port)
    const { choice } = (await (await fetch(`${own.address}/api/alarms`)).json()) as {
      choice: { mail: { to: string }; webhook: { url: string } }
    }
    expect([choice.mail.to, choice.webhook.url]).toEqual(['cook@example.org', `http://127.0.0.1:${hook.port}/`])
  } finally {
    for (const receiver of receivers) await receiver.close()
  }
})
