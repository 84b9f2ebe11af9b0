import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { gone } from './support/acts'
import { startDemo } from './support/demo'
import type { RunningServer } from './support/server'

/** The cabinet of the invented household, its devices, and files of loggers. */
let server: RunningServer
let machineId: string
let beetroot: string
test.beforeAll(async () => {
  const demo = await startDemo()
  server = demo.server
  machineId = demo.ids.cabinet!
  beetroot = demo.ids.beetroot!
})
test.afterAll(() => server.stop())

const tray = (page: Page, place: number) => page.getByRole('button', { name: new RegExp(`^Place ${place}:`) })
const openRack = async (page: Page) => {
  await page.goto(`${server.address}/machines/${machineId}`)
  await expect(tray(page, 1)).toBeVisible()
}
const weightAt = async (page: Page, place: number) => (await tray(page, place).textContent())!.match(/\d+.g/)?.[0]

test('a tray is dragged onto another: they change places, and it is taken back', async ({ page }) => {
  await openRack(page)
  const [first, fifth] = [await weightAt(page, 1), await weightAt(page, 5)]
  expect(first).not.toBe(fifth)
  await tray(page, 1).dragTo(tray(page, 5))
  await expect(page.getByText('Tray 1 to 5; tray 5 to 1.')).toBeVisible()
  await expect(tray(page, 5)).toContainText(first!)
  await expect(tray(page, 1)).toContainText(fifth!)
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(tray(page, 1)).toContainText(first!)
  await page.goto(`${server.address}/batches/${beetroot}`)
  await expect(page.getByRole('region', { name: 'Log' }).getByText(/removed from the log: taken back/)).toBeVisible()
})

test('keys move a tray, turn it, and go to the free place; weights follow the tray', async ({ page }) => {
  await openRack(page)
  const third = await weightAt(page, 3)
  await tray(page, 3).focus()
  await page.keyboard.press('Shift+ArrowDown')
  await expect(tray(page, 4)).toContainText(third!)
  await gone(tray(page, 3))
  await expect(tray(page, 4)).toBeFocused()
  await page.keyboard.press('t')
  await expect(page.getByText('Tray 4, turned end for end.')).toBeVisible()
  await page.keyboard.press('o')
  await expect(page.getByText('Tray 4, food turned over.')).toBeVisible()
  await page.keyboard.press('ArrowUp')
  await expect(tray(page, 2)).toBeFocused()
  await tray(page, 4).focus()
  await page.keyboard.press('w')
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('radio', { name: 'Tray 4' })).toBeVisible()
  await gone(dialog.getByRole('radio', { name: 'Tray 3' }))
  await dialog.getByText('Tray 4').click()
  // A gram less than it was: what a weight of an hour later would be.
  const lighter = String(Number(/\d+/.exec(third!)![0]) - 1)
  await page.keyboard.type(lighter)
  await page.keyboard.press('Enter')
  await dialog.getByRole('button', { name: 'Done' }).click()
  // Keys are the dialog's until it is gone.
  await gone(dialog)
  await expect(page.getByText(/trays 1–2, 4–6/)).toBeVisible()
  await page.keyboard.press('r')
  await expect(tray(page, 4)).toContainText(lighter)
})

test('a chosen tray is swapped by its buttons, and taken out from the rack', async ({ page }) => {
  await openRack(page)
  await tray(page, 9).click()
  const acts = page.getByRole('group', { name: 'Tray at place 9' })
  await expect(acts.getByRole('button', { name: 'Down' })).toBeDisabled()
  await acts.getByRole('button', { name: 'Swap with 1' }).click()
  await expect(tray(page, 1)).toContainText('Pumpkin')
  await expect(tray(page, 9)).toContainText('Beetroot')
  await tray(page, 9).click()
  await page.getByRole('button', { name: /^Take out/ }).click()
  await expect(page.getByRole('dialog', { name: 'Take the trays out' }).getByRole('button', { name: 'Tray 9' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await expect(page.getByRole('dialog').getByText('The others dry on')).toBeVisible()
})

test('a late tray goes into a free place as a batch of its own', async ({ page }) => {
  await openRack(page)
  await page
    .getByRole('button', { name: /is free: add a late tray/ })
    .first()
    .click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Put it in' }).click()
  await expect(dialog.getByText('Weigh what lies on the tray')).toBeVisible()
  await dialog.getByText('Beetroot, 3 mm slices').click()
  await dialog.getByLabel(/On the tray/).fill('420')
  await dialog.getByRole('button', { name: 'Put it in' }).click()
  await gone(dialog)
  await expect(page.getByText(/3 batches · 9 of 9 places taken/)).toBeVisible()
})

test('lists are ticked on the run with the time, and upkeep counts on from when it was done', async ({ page }) => {
  await openRack(page)
  const lists = page.getByRole('region', { name: 'Lists' })
  await lists.getByText('Air in and out are clear').click()
  await expect(lists.getByText('1 of 4.')).toBeVisible()
  await lists.getByText('End', { exact: true }).click()
  await expect(lists.getByText('Dry weight taken')).toBeVisible()
  await page.reload()
  await expect(lists.getByText('1 of 4.')).toBeVisible()
  await lists.getByText('Air in and out are clear').click()
  await expect(lists.getByText('0 of 4.')).toBeVisible()
  const upkeep = page.getByRole('region', { name: 'Upkeep' })
  await expect(upkeep.getByText('due')).toBeVisible()
  await upkeep.getByRole('button', { name: 'Done: Clean the air filter or grille' }).click()
  await expect(upkeep.getByText(/0 h of 100 h, done/)).toBeVisible()
  await expect(
    page
      .getByRole('region', { name: 'Calibration' })
      .getByText(/slower|faster/)
      .first(),
  ).toBeVisible()
})

test('simulated devices are read live: on the machine’s page, in the run’s log, and by the scale that types', async ({ page }) => {
  const devices = spawn(
    process.execPath,
    [
      'node_modules/tsx/dist/cli.mjs',
      '--tsconfig',
      'tsconfig.tools.json',
      'devices/all.ts',
      '--server',
      server.address,
      '--speed',
      '3600',
      '--hours',
      '6',
    ],
    { env: { ...process.env, DULSE_DATA: server.folder }, stdio: ['ignore', 'ignore', 'inherit'] },
  )
  try {
    await page.goto(`${server.address}/workshop/devices`)
    const card = page.getByRole('region', { name: 'Devices' })
    await expect(card.getByText('Probe, simulated')).toBeVisible({ timeout: 20_000 })
    await expect(card.getByText(/\d+\.\d.°C, \d+.Pa/)).toBeVisible({ timeout: 20_000 })
    // The page hears of a reading without being loaded again.
    const shown = card.getByRole('listitem').filter({ hasText: 'Probe, simulated' })
    const before = await shown.textContent()
    await expect(shown).not.toHaveText(before!, { timeout: 20_000 })
    await openRack(page)
    await expect(page.getByText(/Room hygrometer, simulated/)).toBeVisible()
    await expect(page.getByRole('region', { name: 'Heat and air' }).locator('svg').first()).toBeVisible()
    await page.goto(`${server.address}/batches/${beetroot}`)
    await expect(
      page
        .getByRole('region', { name: 'Log' })
        .getByText(/measured in the machine/)
        .first(),
    ).toBeVisible({ timeout: 20_000 })
    await page.keyboard.press('w')
    const dialog = page.getByRole('dialog')
    await expect(dialog.getByText(/The scale shows/)).toBeVisible({ timeout: 20_000 })
    await dialog.getByText('All', { exact: true }).click()
    await page.keyboard.press('Enter')
    await expect(dialog.getByRole('textbox')).not.toHaveValue('')
  } finally {
    devices.kill()
  }
})

test('a logger’s file is looked at, put right and taken in; wrong lines are told by number', async ({ page }) => {
  await page.goto(`${server.address}/logger`)
  const file = page.getByLabel('File of the logger')
  await file.setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no figures here') })
  await expect(page.getByText('No line of this file holds a time and a figure')).toBeVisible()
  const start = Date.now() - 3 * 3_600_000
  const line = (i: number, celsius: string) =>
    `${i};${new Date(start + i * 60_000).toISOString().slice(0, 16).replace('T', ' ')};${celsius}`
  const lines = [
    'Logger;T-1',
    'No.;Time;°F',
    ...Array.from({ length: 150 }, (_, i) => line(i, i === 9 ? 'open' : `${(130 + (i % 5)).toFixed(1)}`.replace('.', ','))),
  ]
  await file.setInputFiles({ name: 'cabinet.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\r\n')) })
  const preview = page.getByRole('region', { name: 'What would come in' })
  await expect(preview.getByRole('heading', { name: '149 readings, 1 fault' })).toBeVisible()
  await expect(preview.getByText('Line 12, temperature:')).toBeVisible()
  await expect(preview.getByText(/54\.4.°C/).first()).toBeVisible()
  await page.getByLabel('Time zone of the logger').fill('Nowhere/Land')
  await expect(preview.getByRole('heading', { name: /0 readings, 150 faults/ })).toBeVisible()
  await page.getByLabel('Time zone of the logger').fill('UTC')
  await page.getByRole('group', { name: 'At' }).getByText('Tall cabinet').click()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('149 of 149 sent: 149 kept.')).toBeVisible()
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('149 of 149 sent: 0 kept, 149 there already.')).toBeVisible()
  await page.getByRole('link', { name: 'Look at it on the machine’s page' }).click()
  await expect(page.getByText('cabinet.csv')).toBeVisible()
})

test('runs lie side by side, and picture and figures are saved', async ({ page }) => {
  await page.goto(`${server.address}/compare?food=beetroot`)
  await expect(page.getByRole('heading', { name: /runs of beetroot/ })).toBeVisible()
  const saved = async (name: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name }).click()
    return readFileSync((await (await download).path())!, 'utf8')
  }
  expect(await saved('Save the picture')).toContain('<svg')
  expect(await saved('Save the figures')).toMatch(/^batch,machine,loaded.*\r\n\d+,(Tall cabinet|Round stack),20/)
  await page.getByRole('combobox', { name: 'Food' }).click()
  await page.getByRole('option', { name: 'Pumpkin', exact: true }).click()
  await expect(page.getByText(/No finished run of pumpkin|runs? of pumpkin/)).toBeVisible()
  await page.goto(`${server.address}/batches/${beetroot}`)
  await expect(page.getByRole('region', { name: 'Drying curve' }).locator('svg').first()).toBeVisible()
  await page.getByRole('group', { name: 'Show' }).getByText('Trays').click()
  await expect(page.getByRole('heading', { name: 'Water left, tray by tray' })).toBeVisible()
  expect(await saved('Save the picture')).toContain('<svg')
  const figures = await saved('Save the figures')
  expect(figures).toContain('what,time,hours_of_heat,weight_g,low_g,high_g,places')
  expect(figures.split('\r\n').filter(line => line.startsWith('curve')).length).toBeGreaterThan(50)
})

test('a machine that is not there says so', async ({ page }) => {
  await page.goto(`${server.address}/machines/0199b000-0000-7000-8000-00000000dead`)
  await expect(page.getByRole('heading', { name: 'No such machine' })).toBeVisible()
})
