import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import Database from 'better-sqlite3'
import { uuidv7 } from 'uuidv7'
import { startDulse, type RunningServer } from './support/server'

const HOUR = 3_600_000
const post = (server: RunningServer, path: string, body: unknown) =>
  fetch(server.address + path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
const basket = (id: string) => ({
  id,
  entry: {
    id: uuidv7(),
    at: Date.now() - HOUR,
    body: { kind: 'intake', foodKey: 'kale', source: 'Garden', weightG: 900, purpose: 'powder', cardKey: 'leaves' },
  },
})
/** Starts the built server without waiting for it, to hear how it ends. */
function startBare(folder: string, port = '0') {
  return spawnSync(process.execPath, ['.output/server/index.mjs'], {
    env: { ...process.env, DULSE_DATA: folder, HOST: '127.0.0.1', PORT: port, NITRO_PORT: port, NODE_ENV: 'production' },
    encoding: 'utf8',
    timeout: 20_000,
  })
}

test('a second server on one folder ends at once, and says who holds it', async () => {
  const server = await startDulse()
  const second = startBare(server.folder)
  expect(second.status).toBe(1)
  expect(second.stderr).toContain(`is held by a Dulse that listens at ${server.address} (process ${server.process.pid})`)
  expect(second.stderr).not.toMatch(/\bat .*\.mjs/)
  expect((await post(server, '/api/batches', basket(uuidv7()))).status).toBe(200)
  await server.kill()
  // Struck down it lets go.
  const third = await startDulse(server.folder)
  await third.stop()
})

test('bad starts are said in one sentence with file and mend, and nothing is touched', () => {
  for (const [bytes, words] of [
    ['', /is empty \(0 bytes\)/],
    ['weight,time\n'.repeat(900), /is no SQLite database/],
  ] as const) {
    const folder = mkdtempSync(join(tmpdir(), 'dulse-bad-'))
    const path = join(folder, 'logbook.sqlite')
    writeFileSync(path, bytes)
    const { status, stderr } = startBare(folder)
    expect(status).toBe(1)
    expect(stderr).toMatch(words)
    expect(stderr.trim().split('\n')).toHaveLength(1)
    expect(readFileSync(path, 'utf8')).toBe(bytes)
  }
  const file = join(mkdtempSync(join(tmpdir(), 'dulse-bad-')), 'dulse')
  writeFileSync(file, 'notes')
  expect(startBare(file).stderr).toMatch(/is a file, and Dulse needs a folder there/)
})

test('a taken port is said, and the next free one taken: no other’s answers are given out as its own', async () => {
  const other = createServer((_, answer) => answer.end('[]'))
  await new Promise<void>(resolve => other.listen(0, '127.0.0.1', resolve))
  const { port } = other.address() as { port: number }
  const folder = mkdtempSync(join(tmpdir(), 'dulse-port-'))
  const script = `import('./scripts/steps.mjs').then(async ({ startServer }) => {
    const { server, address } = await startServer(${JSON.stringify(folder)}, { port: ${port}, quiet: true })
    console.log('address', address); server.kill(); })`
  const child = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'pipe', 'inherit'] })
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  await new Promise(resolve => child.once('exit', resolve))
  other.close()
  expect(said).toContain(`Port ${port} is taken; this Dulse takes`)
  expect(said).not.toContain(`address http://127.0.0.1:${port}\n`)
})

test('copies are made, and one is put back after a look at what that would lose', async ({ page }) => {
  const server = await startDulse()
  await post(server, '/api/batches', basket(uuidv7()))
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(`${server.address}/data`)
  const copies = page.getByRole('region', { name: 'Copies' })
  await expect(copies.getByText(/None yet/)).toBeVisible()
  await copies.getByRole('button', { name: 'Copy now' }).click()
  await expect(copies.getByText(/looked through to its last page\.$/)).toBeVisible()
  const second = uuidv7()
  await post(server, '/api/batches', basket(second))
  await copies.getByRole('button', { name: /^Put the copy of/ }).click()
  await expect(copies.getByText(/1 entry in 1 batch were\s+written since/)).toBeVisible()
  await copies
    .getByRole('alertdialog')
    .getByRole('button', { name: /^Put the copy of/ })
    .click()
  await expect(copies.getByText(/^Put back: 1 batch, 1 entry\./)).toBeVisible()
  expect((await fetch(`${server.address}/api/batches/${second}`)).status).toBe(404)
  await server.stop()
})

test('a damaged logbook is read only, says so on every page, and gives no copy out', async ({ page }) => {
  let server = await startDulse()
  for (let i = 0; i < 3; i++) await post(server, '/api/batches', basket(uuidv7()))
  expect((await post(server, '/api/copies', {})).status).toBe(200)
  await server.stop()
  const path = join(server.folder, 'logbook.sqlite')
  const db = new Database(path, { readonly: true })
  const { rootpage } = db.prepare("SELECT rootpage FROM sqlite_master WHERE name = 'reading'").get() as { rootpage: number }
  db.close()
  const bytes = readFileSync(path)
  // A page that the start has no need of: it is found by looking through.
  bytes.fill(0xa5, (rootpage - 1) * 4096, rootpage * 4096)
  writeFileSync(path, bytes)
  server = await startDulse(server.folder)
  await expect
    .poll(async () => ((await (await fetch(`${server.address}/api/health`)).json()) as { damaged: string | null }).damaged, {
      timeout: 20_000,
    })
    .toMatch(/is damaged/)
  expect((await post(server, '/api/batches', basket(uuidv7()))).status).toBe(503)
  expect((await fetch(`${server.address}/api/backup.sqlite`)).status).toBe(503)
  await page.goto(server.address)
  await expect(page.getByText('Read only.')).toBeVisible()
  const day = new Date().toISOString().slice(0, 10)
  expect((await post(server, `/api/copies/logbook-${day}.sqlite/restore`, {})).status).toBe(200)
  expect((await post(server, '/api/batches', basket(uuidv7()))).status).toBe(200)
  await server.stop()
})

test('what the browser is sent holds no schema library', () => {
  const SIGNS = /ZodError|\$ZodType|invalid_union/
  const holding = (folder: string) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(
      name => /\.m?js$/.test(name) && SIGNS.test(readFileSync(join(folder, name), 'utf8')),
    )
  expect(holding('.output/public')).toEqual([])
  // The signs are the library's own: the server has them.
  expect(holding('.output/server/chunks').length).toBeGreaterThan(0)
})
