import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { randomSource } from '#core/stats'
import { startDulse, type RunningServer } from '../../tests/e2e/support/server'
import { beginBatch, note, send, type Found } from './campaign'

const PAGE = 4096
const hashOf = (path: string) => createHash('sha256').update(readFileSync(path)).digest('hex')

/** What a disk, a stick or a program does to a file. */
function classesOf(random: () => number): Record<string, (bytes: Buffer) => Buffer> {
  const some = (bytes: Buffer, pages: number, fill: (page: Buffer) => void) => {
    const first = 1 + Math.floor(random() * (bytes.length / PAGE - pages - 1))
    fill(bytes.subarray(first * PAGE, (first + pages) * PAGE))
    return bytes
  }
  return {
    empty: () => Buffer.alloc(0),
    text: () => Buffer.from('weight,time\n'.repeat(900)),
    'cut short': bytes => bytes.subarray(0, Math.floor(bytes.length * (0.1 + 0.85 * random()))),
    'head overwritten': bytes => (bytes.fill(0x5a, 0, 100), bytes),
    'pages of noughts': bytes => some(bytes, 12, page => page.fill(0)),
    'pages of noise': bytes => some(bytes, 12, page => page.forEach((_, i) => (page[i] = Math.floor(random() * 256)))),
    'one page twice': bytes => some(bytes, 1, page => bytes.copy(page, 0, PAGE, 2 * PAGE)),
    'single bytes': bytes => {
      for (let i = 0; i < 40; i++) bytes[100 + Math.floor(random() * (bytes.length - 100))] = Math.floor(random() * 256)
      return bytes
    },
  }
}

/** A file by hand of every class: nothing is taken in that would be lost, no broken copy handed out, nothing overwritten that is refused. */
export async function damage(size: number): Promise<Found> {
  const { uniform: random } = randomSource(5)
  const good = mkdtempSync(join(tmpdir(), 'dulse-hardship-'))
  const first = await startDulse(good)
  for (let i = 0; i < 8; i++) {
    const batchId = await beginBatch(first)
    for (let k = 0; k < 25; k++) await note(first, batchId, `note ${i} ${k} ${'and some more words '.repeat(8)}`)
  }
  await first.stop()
  const faults: string[] = []
  const outcomes = new Map<string, number>()
  const count = (outcome: string) => outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1)
  const classes = Object.entries(classesOf(random))
  for (let i = 0; i < size; i++) {
    const [name, spoil] = classes[i % classes.length]!
    const folder = mkdtempSync(join(tmpdir(), 'dulse-hardship-'))
    const path = join(folder, 'logbook.sqlite')
    writeFileSync(path, spoil(readFileSync(join(good, 'logbook.sqlite'))))
    const before = hashOf(path)
    const isDamaged = !isWhole(path)
    const bare = await startBare(folder)
    if (bare.code !== null && bare.code !== 0) {
      count('refused in words')
      if (bare.said.trim().split('\n').length !== 1 || !bare.said.includes(path))
        faults.push(`${name}: the start is refused in other words: ${bare.said.slice(0, 300)}`)
      if (hashOf(path) !== before) faults.push(`${name}: refused, and changed all the same`)
    } else if (isDamaged) await askDamaged(name, folder, faults, count)
    else count('whole all the same')
    rmSync(folder, { recursive: true, force: true })
  }
  return {
    figures: `${size} files of ${classes.length} classes, ${[...outcomes].map(([words, number]) => `${number} ${words}`).join(', ')}, ${faults.length} faults`,
    faults,
  }
}

/** Starts the server and sees whether it ends or listens. @returns its code where it ended, and what it said */
async function startBare(folder: string): Promise<{ code: number | null; said: string }> {
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, DULSE_DATA: folder, HOST: '127.0.0.1', PORT: '0', NITRO_PORT: '0', NODE_ENV: 'production' },
  })
  let said = ''
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
  const ended = new Promise<number | null>(resolve => child.once('close', resolve))
  const listens = new Promise<null>(resolve => child.stdout.once('data', () => resolve(null)))
  const code = await Promise.race([ended, listens])
  if (code === null) {
    child.kill('SIGKILL')
    await ended
  }
  return { code, said }
}

async function askDamaged(name: string, folder: string, faults: string[], count: (outcome: string) => void): Promise<void> {
  let server: RunningServer | undefined
  try {
    server = await startDulse(folder)
    let found = false
    for (let i = 0; i < 60 && !found; i++) {
      const health = (await (await send(server, 'GET', '/api/health')).json()) as { damaged: string | null }
      found = health.damaged !== null
      if (!found) await new Promise(resolve => setTimeout(resolve, 100))
    }
    if (!found) return void faults.push(`${name}: damaged, and not found within six seconds`)
    count('read only')
    const written = await send(server, 'POST', '/api/batches', {}).then(answer => answer.status)
    if (written !== 503) faults.push(`${name}: a write was answered with ${written}`)
    const backup = await send(server, 'GET', '/api/backup.sqlite')
    if (backup.ok) {
      const copy = join(folder, 'handed-out.sqlite')
      writeFileSync(copy, Buffer.from(await backup.arrayBuffer()))
      if (!isWhole(copy)) faults.push(`${name}: a broken copy was handed out`)
    }
    const exported = await send(server, 'GET', '/api/export/logbook.json')
      .then(answer => answer.text())
      .catch(() => 'cut')
    if (exported !== 'cut' && !/^\{[^]*\}\s*$/.test(exported)) faults.push(`${name}: half an export was given for a whole one`)
  } catch (error) {
    faults.push(`${name}: ${String(error)}`)
  } finally {
    await server?.stop()
  }
}

/** By SQLite's own word, on a copy. */
function isWhole(path: string): boolean {
  const copy = `${path}.look`
  copyFileSync(path, copy)
  try {
    const db = new Database(copy)
    const told = db.pragma('integrity_check', { simple: true })
    const entries = db.prepare('SELECT count(*) FROM entry').pluck().get() as number
    db.close()
    return told === 'ok' && entries > 0
  } catch {
    return false
  } finally {
    for (const end of ['', '-wal', '-shm', '-journal']) rmSync(copy + end, { force: true })
  }
}
