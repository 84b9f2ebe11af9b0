import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { logged } from './support/logged'
import { startDulse, type RunningServer } from './support/server'

/** Data that leaves and comes back, through the pages and by a script. */
let server: RunningServer
let empty: RunningServer
const log = logged(() => server)
const folder = mkdtempSync(join(tmpdir(), 'dulse-files-'))
const write = (name: string, text: string | Buffer) => {
  writeFileSync(join(folder, name), text)
  return join(folder, name)
}
test.beforeAll(async () => {
  server = await startDulse()
  empty = await startDulse()
  await log.packed(60)
  await log.packed(40, { foodKey: 'carrot', cardKey: 'shreds' })
})
test.afterAll(async () => {
  await server.stop()
  await empty.stop()
})

const main = (page: Page) => page.locator('main')
const open = async (page: Page, path: string, at = server) => {
  await page.goto(at.address + path)
  await expect(page.locator('main h1').first()).toBeVisible()
}
const textOf = async (at: RunningServer, path = '/api/export/logbook.json') => (await fetch(at.address + path)).text()

test('the whole logbook is saved, taken in by an empty one, and leaves there byte by byte the same', async ({ page }) => {
  await open(page, '/data')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    main(page).getByRole('region', { name: 'Out' }).getByRole('link', { name: 'Save it' }).first().click(),
  ])
  const file = join(folder, download.suggestedFilename())
  await download.saveAs(file)
  await open(page, '/data', empty)
  await main(page).getByLabel('Logbook as JSON').setInputFiles(file)
  await expect(main(page).getByRole('status')).toContainText('2 batches, 2 jars', { timeout: 30_000 })
  expect(await textOf(empty)).toBe(readFileSync(file, 'utf8'))
  await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('2 jars')
  // A second time it is not empty any more.
  await main(page).getByLabel('Logbook as JSON').setInputFiles(file)
  await expect(main(page).getByRole('alert')).toContainText('not empty')
})

test('a damaged logbook is refused by its place in the file, and nothing comes in', async ({ page }) => {
  const own = await startDulse()
  const before = await textOf(own)
  const file = JSON.parse(await textOf(server)) as { entries: { body: Record<string, unknown> }[] }
  const at = file.entries.findIndex(entry => entry.body.kind === 'weigh')
  file.entries[at]!.body.totalG = -4
  await open(page, '/data', own)
  await main(page)
    .getByLabel('Logbook as JSON')
    .setInputFiles(write('bad.json', JSON.stringify(file)))
  await expect(main(page).getByRole('alert')).toContainText(`entries.${at}.body.totalG: The weight must be above zero.`)
  await main(page)
    .getByLabel('Logbook as JSON')
    .setInputFiles(write('cut.json', (await textOf(server)).slice(0, 4000)))
  await expect(main(page).getByRole('alert')).toContainText('not JSON')
  expect(await textOf(own)).toBe(before)
  await own.stop()
})

test('a backup made while it runs goes back in its place; what is no backup is refused, untouched', async ({ page }) => {
  const own = await startDulse()
  const there = logged(() => own)
  await there.packed(30)
  await open(page, '/data', own)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    main(page).getByRole('region', { name: 'Backup' }).getByRole('link', { name: 'Save it' }).click(),
  ])
  const backup = join(folder, 'kept.sqlite')
  await download.saveAs(backup)
  const kept = await textOf(own)
  await there.packed(20, { foodKey: 'carrot', cardKey: 'shreds' })
  const grown = await textOf(own)
  expect(grown).not.toBe(kept)

  await main(page)
    .getByLabel('Backup to restore')
    .setInputFiles(write('photo.sqlite', Buffer.from('a photo, or some other thing that is not a logbook')))
  await main(page).getByRole('button', { name: 'Put it in place' }).click()
  await expect(main(page).getByRole('alert')).toContainText('no SQLite database')
  await main(page)
    .getByLabel('Backup to restore')
    .setInputFiles(write('half.sqlite', readFileSync(backup).subarray(0, 100_000)))
  await main(page).getByRole('button', { name: 'Put it in place' }).click()
  await expect(main(page).getByRole('alert')).toContainText('damaged')
  expect(await textOf(own)).toBe(grown)

  await main(page).getByLabel('Backup to restore').setInputFiles(backup)
  await expect(main(page).getByText('what stands here now is kept beside it')).toBeVisible()
  await main(page).getByRole('button', { name: 'Put it in place' }).click()
  await expect(main(page).getByRole('status')).toContainText('1 batch')
  expect(await textOf(own)).toBe(kept)
  // It goes on from there, on the new file.
  await there.packed(10)
  expect((await textOf(own)).length).toBeGreaterThan(kept.length)
  await own.stop()
})

test('an inventory with faults: told line by line in the file’s own words, left out on wish, and never twice', async ({ page }) => {
  await open(page, '/data/import?kind=inventory')
  await main(page)
    .getByLabel('File of the table')
    .setInputFiles(
      write(
        'shelf.csv',
        'What,Grams,Packed on,Where\nCumin,45,13/05/2026,Spice shelf\nUnicorn root,30,14/05/2026,Spice shelf\nSweet paprika,a lot,15/05/2026,Spice shelf\nOnion,120,31/12/2031,Cellar\nTomato,"1.240,5",1/06/2026,Cellar\n',
      ),
    )
  const preview = main(page).getByRole('region', { name: 'What would come in' })
  await expect(preview.getByText('Held against the logbook.')).toBeVisible()
  await expect(preview.getByRole('heading', { name: '2 lines would come in, 3 are wrong' })).toBeVisible()
  await expect(preview.getByText('Line 3, What:')).toBeVisible()
  await expect(preview.getByText('Line 4, Grams:')).toBeVisible()
  await expect(preview.getByText('Line 5, Packed on:')).toBeVisible()
  await expect(preview.getByRole('button', { name: 'Take 2 lines in' })).toBeDisabled()
  await expect(preview.getByRole('row', { name: /Tomato/ })).toContainText(/1\.24.kg/)
  await preview.getByText('Leave these lines out').click()
  await preview.getByRole('button', { name: 'Take 2 lines in' }).click()
  await expect(preview.getByRole('status')).toContainText('2 lines came in.')
  const { jars } = JSON.parse(await textOf(server, '/api/shelf')) as { jars: { foodKey: string; place: string; leftG: number }[] }
  expect(jars.filter(jar => jar.place === 'Cellar' || jar.place === 'Spice shelf').map(jar => [jar.foodKey, jar.leftG])).toEqual(
    expect.arrayContaining([
      ['cumin', 45],
      ['tomato', 1240.5],
    ]),
  )
  await preview.getByRole('button', { name: 'Take 2 lines in' }).click()
  await expect(
    main(page)
      .getByText(/were there already: nothing was doubled|2 were there already/)
      .first(),
  ).toBeVisible()
})

test('weigh-ins from a list go to their batches', async ({ page }) => {
  const own = await startDulse()
  const there = logged(() => own)
  await there.dried(30)
  const at = (hours: number) => new Date(Date.now() - hours * 3_600_000).toISOString()
  await open(page, '/data/import?kind=weighIns', own)
  await main(page)
    .getByLabel('File of the table')
    .setInputFiles(write('scale.csv', `batch;time;weight\n1;${at(34)};0,31 kg\n1;${at(33.5)};300 g\n1;${at(2)};300 g\n7;${at(33)};300 g\n`))
  const preview = main(page).getByRole('region', { name: 'What would come in' })
  await expect(preview.getByRole('heading', { name: '2 lines would come in, 2 are wrong' })).toBeVisible()
  await expect(preview.getByText(/There is no batch 7/)).toBeVisible()
  await expect(preview.getByText(/not in a machine/)).toBeVisible()
  await preview.getByText('Leave these lines out').click()
  await preview.getByRole('button', { name: 'Take 2 lines in' }).click()
  await expect(preview.getByRole('status')).toContainText('2 lines came in.')
  expect((await textOf(own, '/api/export/tables/weighIns.csv')).split('\r\n').filter(line => line.startsWith('1,'))).toHaveLength(5)
  await own.stop()
})

test('fifty thousand rows show where they are, can be stopped, and are all there or none', async ({ page }) => {
  test.setTimeout(240_000)
  const own = await startDulse()
  const rows = Array.from(
    { length: 50_000 },
    (_, i) => `${['Cumin', 'Onion', 'Tomato'][i % 3]},${20 + (i % 400)},2026-0${1 + (i % 9)}-1${i % 9},Board ${i % 60}`,
  )
  const file = write('long.csv', `food,weight (g),packed,place\n${rows.join('\n')}\n`)
  await open(page, '/data/import?kind=inventory', own)
  await main(page).getByLabel('File of the table').setInputFiles(file)
  const preview = main(page).getByRole('region', { name: 'What would come in' })
  await expect(preview.getByRole('heading', { name: /50000 lines would come in/ })).toBeVisible({ timeout: 30_000 })
  await preview.getByRole('button', { name: /^Take/ }).click()
  await expect(preview.getByRole('progressbar')).toBeVisible()
  // Whoever reads meanwhile is answered, and sees the logbook as it was.
  const { count } = JSON.parse(await textOf(own, '/api/shelf')) as { count: number }
  expect(count).toBe(0)
  await preview.getByRole('button', { name: 'Stop' }).click()
  await expect(main(page).getByRole('alert')).toContainText('Stopped: nothing came in.')
  await expect(async () => {
    expect(
      (JSON.parse(await textOf(own, '/api/stages')) as { stage: string; count: number }[]).find(item => item.stage === 'shelf')!.count,
    ).toBe(0)
  }).toPass()
  await preview.getByRole('button', { name: /^Take/ }).click()
  // What is written meanwhile waits, and is there at the end.
  await expect(preview.getByRole('progressbar')).toBeVisible()
  const household = JSON.parse(await textOf(own, '/api/household')) as { name: string }
  const saved = fetch(`${own.address}/api/household`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...household, name: 'Long shelf' }),
  })
  await expect(preview.getByRole('status')).toContainText('50000 lines came in.', { timeout: 120_000 })
  expect((await saved).status).toBe(200)
  expect(
    (JSON.parse(await textOf(own, '/api/stages')) as { stage: string; count: number }[]).find(item => item.stage === 'shelf')!.count,
  ).toBe(50_000)
  expect((JSON.parse(await textOf(own, '/api/household')) as { name: string }).name).toBe('Long shelf')
  await own.stop()
})

test('a script reads the calendar, the schema and the OpenAPI document', async () => {
  expect(await textOf(server, '/api/calendar.ics')).toMatch(/^BEGIN:VCALENDAR\r\n/)
  expect(JSON.parse(await textOf(server, '/api/schema/logbook.json'))).toMatchObject({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
  })
  expect(JSON.parse(await textOf(server, '/api/openapi.json'))).toMatchObject({ openapi: '3.1.0' })
  const sheet = await fetch(`${server.address}/api/export/logbook.xlsx`)
  expect(
    Buffer.from(await sheet.arrayBuffer())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK')
})
