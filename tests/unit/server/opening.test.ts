import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { fork } from 'node:child_process'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { migrations } from '#migrations'
import { holderOf, holdFolder } from '#server/db/hold'
import { CannotOpen, lookBeforeOpening } from '#server/db/opening'
import { backUp, restore } from '#server/export/backup'
import { listCopies, lossOf, makeCopy, tooMany } from '#server/export/copies'
import { lookThrough } from '#server/services/health'
import { openLogbook } from '#server/services/logbook'
import { startBatch } from '#server/services/writeLog'

const folderOf = () => mkdtempSync(join(tmpdir(), 'dulse-file-'))
const logbookIn = (folder = folderOf()) => {
  const path = join(folder, 'logbook.sqlite')
  openLogbook(path).db.close()
  return path
}
const said = (path: string) => {
  try {
    lookBeforeOpening(path, migrations.length)
    return 'opened'
  } catch (error) {
    if (!(error instanceof CannotOpen)) throw error
    return error.message
  }
}
/** What is refused is left to the byte as it was, and nothing is put beside it. */
function refuses(path: string, words: RegExp) {
  const before = statSync(path).isFile() ? readFileSync(path) : undefined
  const beside = existsSync(join(path, '..')) ? readdirSync(join(path, '..')) : []
  expect(said(path)).toMatch(words)
  if (before) expect(readFileSync(path).equals(before)).toBe(true)
  expect(readdirSync(join(path, '..')).filter(name => !beside.includes(name) && !/-shm$|-wal$/.test(name))).toEqual([])
}

describe('a logbook is looked at before it is opened', () => {
  it('a good one is opened, a new folder and one that was killed in its first moment too', () => {
    expect(said(logbookIn())).toBe('opened')
    expect(said(join(folderOf(), 'not', 'there', 'yet', 'logbook.sqlite'))).toBe('opened')
    const path = join(folderOf(), 'logbook.sqlite')
    const begun = new Database(path)
    begun.pragma('journal_mode = WAL')
    begun.close()
    expect(said(path)).toBe('opened')
  })
  it('one that was killed with its writing still in the log beside it', () => {
    const path = logbookIn()
    const db = new Database(path)
    db.pragma('journal_mode = WAL')
    db.exec("INSERT INTO meta (key, value) VALUES ('told', 'yes')")
    // Not closed: the log beside it holds what was written.
    expect(said(path)).toBe('opened')
    db.close()
  })
  it('an empty file', () => {
    const path = join(folderOf(), 'logbook.sqlite')
    writeFileSync(path, '')
    refuses(path, /is empty \(0 bytes\).*put a copy back/)
  })
  it('what is no database, a truncated one, one with a broken head', () => {
    const text = join(folderOf(), 'logbook.sqlite')
    writeFileSync(text, 'weight,time\n'.repeat(400))
    refuses(text, /is no SQLite database/)
    const short = logbookIn()
    truncateSync(short, 3 * 4096 + 100)
    refuses(short, /is cut short \(12388 of \d+ bytes\).*recover/)
    const tiny = logbookIn()
    truncateSync(tiny, 60)
    refuses(tiny, /is no SQLite database, or its head is damaged/)
  })
  it('another program’s, whatever its tables; a newer Dulse’s', () => {
    const foreign = join(folderOf(), 'logbook.sqlite')
    const db = new Database(foreign)
    db.exec('CREATE TABLE recipes (id INTEGER)')
    db.close()
    refuses(foreign, /is a database, but no logbook of Dulse/)
    const marked = new Database(foreign)
    marked.pragma('application_id = 1234567')
    marked.close()
    refuses(foreign, /belongs to another program/)
    const newer = logbookIn()
    const ahead = new Database(newer)
    ahead.pragma(`user_version = ${migrations.length + 3}`)
    ahead.close()
    refuses(newer, new RegExp(`written by a newer Dulse \\(form ${migrations.length + 3}, this one knows ${migrations.length}\\)`))
  })
  it('a folder that is a file, a file that is a folder', () => {
    const file = join(folderOf(), 'dulse')
    writeFileSync(file, 'notes')
    expect(said(join(file, 'logbook.sqlite'))).toMatch(/is a file, and Dulse needs a folder there/)
    expect(readFileSync(file, 'utf8')).toBe('notes')
    expect(said(join(folderOf(), '.'))).toMatch(/is no file/)
  })
  // Whoever may do everything may write everywhere: there is nothing to refuse.
  ;(process.getuid?.() === 0 ? it.skip : it)('a folder that may not be written in', () => {
    const path = logbookIn()
    chmodSync(join(path, '..'), 0o555)
    expect(said(path)).toMatch(/may not write in/)
    chmodSync(join(path, '..'), 0o755)
  })
})

describe('one server a folder', () => {
  it('the second is told who holds it; once let go, it is free', () => {
    const folder = folderOf()
    const letGo = holdFolder(folder, { pid: 41, address: 'http://127.0.0.1:4170', since: 1 })
    expect(() => holdFolder(folder, { pid: 42, address: 'http://127.0.0.1:4171', since: 2 })).toThrow(
      /held by a Dulse that listens at http:\/\/127\.0\.0\.1:4170 \(process 41\)/,
    )
    expect(holderOf(folder)).toMatchObject({ pid: 41 })
    letGo()
    expect(holderOf(folder)).toBeUndefined()
    holdFolder(folder, { pid: 42, address: 'http://127.0.0.1:4171', since: 2 })()
  })
  it('what a killed server held is free at once', async () => {
    const folder = folderOf()
    // The lock is the system's: here it is a process that opens it and is struck down.
    const script = join(folder, 'hold.cjs')
    writeFileSync(
      script,
      `const Database = require(${JSON.stringify(createRequire(import.meta.url).resolve('better-sqlite3'))})
       const db = new Database(${JSON.stringify(join(folder, 'in-use.sqlite'))}, { timeout: 0 })
       db.pragma('journal_mode = DELETE'); db.exec('BEGIN EXCLUSIVE'); process.send('held'); setInterval(() => {}, 1000)`,
    )
    const holder = fork(script)
    await new Promise(resolve => holder.once('message', resolve))
    expect(() => holdFolder(folder, { pid: 1, address: '', since: 0 })).toThrow(CannotOpen)
    const ended = new Promise(resolve => holder.once('exit', resolve))
    holder.kill('SIGKILL')
    await ended
    holdFolder(folder, { pid: 1, address: '', since: 0 })()
  })
})

/** Pages in the middle of the file are written over, as a failing disk does; the head is spared. */
function damage(path: string) {
  const bytes = readFileSync(path)
  const pages = bytes.length / 4096
  for (let page = Math.floor(pages / 3); page < pages; page++) bytes.fill(0xa5, page * 4096, (page + 1) * 4096)
  writeFileSync(path, bytes)
}

describe('damage', () => {
  it('is found by looking through, before a copy is handed out, and a good one put back heals it', async () => {
    const path = logbookIn()
    const before = openLogbook(path)
    const { path: good } = await backUp(before)
    // Still open it would write its own pages over the damage.
    before.db.close()
    damage(path)
    const context = openSparing(path)
    expect(await lookThrough(context)).toBe(false)
    expect(context.damaged).toMatch(/is damaged: some of its pages do not hold together/)
    await expect(backUp(context)).rejects.toThrow(/damaged|malformed/)
    expect(readdirSync(join(path, '..')).filter(name => name.startsWith('backup-') && !good.endsWith(name))).toEqual([])
    restore(context, good)
    expect(context.damaged).toBeUndefined()
    expect(await lookThrough(context)).toBe(true)
    context.db.close()
  })
  it('a sound logbook is found sound', async () => {
    const context = openLogbook(logbookIn())
    expect(await lookThrough(context)).toBe(true)
    context.db.close()
  })
})

/** Opens a damaged file without working anything out from it. */
function openSparing(path: string) {
  const sound = openLogbook(join(folderOf(), 'other.sqlite'))
  sound.db.close()
  return { ...sound, db: new Database(path) }
}

describe('copies by itself', () => {
  it('is made, is whole, and says what putting it back would lose', async () => {
    let now = Date.UTC(2026, 10, 3, 9)
    const context = openLogbook(logbookIn(), () => now)
    const copy = await makeCopy(context)
    expect(copy.name).toBe('logbook-2026-11-03.sqlite')
    expect(listCopies(context)).toEqual([copy])
    expect(lossOf(context, join(context.db.name, '..', 'copies', copy.name))).toMatchObject({ entries: 0, batches: 0 })
    startBatch(context, {
      id: '018f0000-0000-7000-8000-000000000051',
      entry: {
        id: '018f0000-0000-7000-8000-000000000052',
        at: now - 1000,
        body: { kind: 'intake', foodKey: 'carrot', source: 'Garden', weightG: 900, purpose: 'powder', cardKey: 'slices-3' },
      },
    })
    expect(lossOf(context, join(context.db.name, '..', 'copies', copy.name))).toMatchObject({ entries: 1, batches: 1, lastAt: null })
    now += 86_400_000
    expect((await makeCopy(context)).name).toBe('logbook-2026-11-04.sqlite')
    expect(listCopies(context).map(({ name }) => name)).toEqual(['logbook-2026-11-04.sqlite', 'logbook-2026-11-03.sqlite'])
    context.db.close()
  })
  it('keeps seven days, five weeks and twelve months', () => {
    const name = (day: number) => ({ name: `logbook-${new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10)}.sqlite` })
    const all = Array.from({ length: 500 }, (_, day) => name(day))
    const gone = new Set(tooMany(all).map(copy => copy.name))
    const kept = all.filter(copy => !gone.has(copy.name)).map(copy => copy.name.slice(8, 18))
    expect(kept.slice(-7)).toEqual(all.slice(-7).map(copy => copy.name.slice(8, 18)))
    expect(kept.length).toBeLessThanOrEqual(7 + 5 + 12)
    expect(kept.length).toBeGreaterThanOrEqual(12 + 4 + 5)
    // A year back there is still one.
    expect(kept[0]! <= '2026-06-31').toBe(true)
    expect(tooMany(all.slice(0, 5))).toEqual([])
  })
})
