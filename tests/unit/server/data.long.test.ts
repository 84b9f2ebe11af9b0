import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { guessTable, type TableKind } from '#core/tables'
import { backUp, restore, sweepCopies } from '#server/export/backup'
import { logbookJson, logbookSnapshot } from '#server/export/logbook'
import { allOrNothing, Stopped, type Progress } from '#server/import/apart'
import { importLogbook } from '#server/import/logbook'
import { importTable } from '#server/import/table'
import type { Context } from '#server/services/context'
import { kitchenPage } from '#server/services/kitchen'
import { openLogbook } from '#server/services/logbook'
import { batchList, batchPage, nowPage } from '#server/services/pages'
import { recipesOnce, removeRecipe, saveRecipe } from '#server/services/recipes'
import { jarPage, shelfPage } from '#server/services/shelf'
import { saveFood } from '#server/services/foods'
import { makeDemo } from '../../../demo/make'

const NOW = Date.UTC(2026, 10, 25, 8, 30)
const folder = mkdtempSync(join(tmpdir(), 'dulse-data-'))
const demo = makeDemo(join(folder, 'demo.sqlite'), NOW).context
demo.now = () => NOW
const opened: Context[] = [demo]
const fresh = (name: string) => {
  const context = openLogbook(join(folder, name), () => NOW)
  opened.push(context)
  return context
}
afterAll(() => {
  for (const { db } of opened) db.close()
  rmSync(folder, { recursive: true })
})

const textOf = (context: Context) => [...logbookJson(context)].join('')
const takeIn = (context: Context, file: unknown, tell?: (progress: Progress) => void, signal?: AbortSignal) =>
  allOrNothing(
    context,
    apart => importLogbook(apart, file),
    () => true,
    tell,
    signal,
  )
/** Views that follow from the log, and what pages say of it. */
const stateOf = (context: Context) => ({
  views: ['batch_view', 'jar_view', 'jar_part', 'jar_use', 'todo', 'run_view', 'tray_pace', 'accepted_caution', 'entry_jar'].map(table =>
    context.db.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).all(),
  ),
  now: nowPage(context),
  shelf: shelfPage(context),
  kitchen: kitchenPage(context),
  recipesOnce: recipesOnce(context),
  batches: batchList(context, {}).batches.map(batch => batchPage(context, batch.batchId).entries),
  jars: shelfPage(context).jars.map(jar => jarPage(context, jar.jarId)),
})

describe('a whole logbook that leaves and comes back', () => {
  beforeAll(() => {
    saveRecipe(demo, {
      id: '01900000-0000-7000-8000-000000000001',
      kind: 'dish',
      name: 'Soup “of all”',
      powders: [{ foodKey: 'celery', amount: { by: 'weight', grams: 4 } }],
      others: ['Water'],
      steps: [],
    })
    const changed = {
      id: '01900000-0000-7000-8000-000000000009',
      kind: 'dish' as const,
      name: 'Changed soup',
      note: 'thin',
      powders: [{ foodKey: 'celery', amount: { by: 'weight' as const, grams: 4 } }],
      others: [],
      steps: [],
    }
    saveRecipe(demo, changed)
    saveRecipe(demo, { ...changed, note: 'thicker', version: 1 })
    removeRecipe(demo, changed.id)
    saveFood(
      demo,
      {
        key: 'sea-kale',
        name: 'Sea kale',
        family: 'stalk',
        water: '91 ± 1',
        trim: '20 ± 5',
        waits: 4,
        colour: '#AABBCC',
        forms: { 'slices 6': '6 to 10' },
      },
      undefined,
    )
  })
  it('is the same in an empty logbook, view by view and page by page, and leaves there byte by byte the same', async () => {
    const text = textOf(demo)
    const other = fresh('other.sqlite')
    const phases = new Set<string>()
    const taken = await takeIn(other, JSON.parse(text), ({ phase }) => phases.add(phase))
    expect(taken.entries).toBe((demo.db.prepare('SELECT count(*) AS count FROM entry').get() as { count: number }).count)
    expect(textOf(other)).toBe(text)
    expect(stateOf(other)).toEqual(stateOf(demo))
    expect(phases.size).toBeGreaterThan(0)
    expect(other.foods.find('sea-kale')!.name).toBe('Sea kale')
  })
  it('goes on from there: numbers and order follow those taken in', async () => {
    const other = fresh('goes-on.sqlite')
    await takeIn(other, JSON.parse(textOf(demo)))
    const next = (context: Context, table: string) =>
      (context.db.prepare(`SELECT max(number) AS most FROM ${table}`).get() as { most: number }).most
    expect([next(other, 'batch'), next(other, 'jar')]).toEqual([next(demo, 'batch'), next(demo, 'jar')])
  })
  it('is refused by a logbook with anything in it, and by name', async () => {
    await expect(takeIn(demo, JSON.parse(textOf(demo)))).rejects.toThrow('not empty')
  })
  type File = {
    format: string
    entries: { id: string; seq: number; batchId?: string; body: Record<string, unknown> }[]
    batches: { id: string; number: number }[]
    machines: unknown[]
    extra?: number
  }
  it.each<[string, (file: File) => void, RegExp]>([
    ['another program’s', file => (file.format = 'pantry'), /not a logbook of Dulse/],
    ['one with a field that nobody knows', file => (file.extra = 1), /extra/],
    [
      'a weight below nothing',
      file => Object.assign(file.entries.find(entry => entry.body.kind === 'intake')!.body, { weightG: -5 }),
      /weight must be above zero/,
    ],
    ['a batch that is missing', file => file.batches.pop(), /no such batch/],
    ['an entry that stands twice', file => file.entries.push({ ...file.entries[0]!, seq: 999_999 }), /stands twice/],
    ['a number that stands twice', file => (file.batches[1]!.number = file.batches[0]!.number), /number stands twice/],
    ['entries out of order', file => file.entries.reverse(), /order in which they were written/],
    ['no machine at all', file => (file.machines = []), /at least one machine|no such machine/],
  ])('refuses %s whole, and stays empty', async (_, spoil, words) => {
    const other = fresh(`bad-${Math.abs(words.source.length)}-${_.length}.sqlite`)
    const before = textOf(other)
    const file = JSON.parse(textOf(demo)) as File
    spoil(file)
    await expect(takeIn(other, file)).rejects.toThrow(words)
    expect(textOf(other)).toBe(before)
  })
  it('can be stopped, and then nothing of it is there', async () => {
    const other = fresh('stopped.sqlite')
    const before = textOf(other)
    const stop = new AbortController()
    await expect(takeIn(other, JSON.parse(textOf(demo)), () => stop.abort(), stop.signal)).rejects.toThrow(Stopped)
    expect(textOf(other)).toBe(before)
  })
})

describe('a logbook that is fetched slowly', () => {
  it('is as of the instant when it was asked for, and nobody waits for it', async () => {
    const context = fresh('slow.sqlite')
    await takeIn(context, JSON.parse(textOf(demo)))
    const before = textOf(context)
    const slow = logbookSnapshot(context)
    let text = slow.next().value as string
    for (let i = 0; i < 200; i++) text += slow.next().value as string
    // A write on the server's own connection goes through meanwhile, and is not in what is being fetched.
    saveRecipe(context, {
      id: '01900000-0000-7000-8000-000000000002',
      kind: 'dish',
      name: 'Late soup',
      powders: [{ foodKey: 'celery', amount: { by: 'weight', grams: 4 } }],
      others: [],
      steps: [],
    })
    for (const part of slow) text += part
    expect(text).toBe(before)
    expect(textOf(context)).toContain('Late soup')
  })
  it('does not come between a restore and its files', async () => {
    const context = fresh('held.sqlite')
    const slow = logbookSnapshot(context)
    slow.next()
    saveRecipe(context, {
      id: '01900000-0000-7000-8000-000000000003',
      kind: 'dish',
      name: 'Held soup',
      powders: [{ foodKey: 'celery', amount: { by: 'weight', grams: 4 } }],
      others: [],
      steps: [],
    })
    const kept = join(folder, 'held-backup.sqlite')
    copyFileSync((await backUp(demo)).path, kept)
    restore(context, kept)
    expect(textOf(context)).toBe(textOf(demo))
    slow.return(undefined)
    expect(textOf(context)).toBe(textOf(demo))
  })
})

describe('a table that comes in', () => {
  const put = (context: Context, kind: TableKind, text: string, keep = true) => {
    const { settings } = guessTable(kind, text, { timeZone: 'UTC', unit: 'g' })
    return allOrNothing(
      context,
      apart => importTable(apart, { kind, text, settings }),
      answer => keep && answer.errors.length === 0,
    )
  }
  it('puts an inventory on the shelf, once however often it is sent', async () => {
    const context = fresh('inventory.sqlite')
    const list =
      'Food,Weight (g),Packed,Place,Best before,Price\nCumin,45,2026-05-01,Spice drawer,2027-12-01,2.40\nsweet paprika,60,2026-06-01,Spice drawer,,\nBeetroot,120,2026-09-01,Cellar,,\nBeetroot,120,2026-09-01,Cellar,,\n'
    expect(await put(context, 'inventory', list)).toEqual({ rows: 4, kept: 4, repeated: 0, errors: [] })
    expect(await put(context, 'inventory', list)).toEqual({ rows: 4, kept: 0, repeated: 4, errors: [] })
    const { jars } = shelfPage(context)
    expect(jars.map(jar => [jar.foodKey, jar.leftG, jar.place])).toEqual(
      expect.arrayContaining([
        ['cumin', 45, 'Spice drawer'],
        ['beetroot', 120, 'Cellar'],
      ]),
    )
    const cumin = jarPage(context, jars.find(jar => jar.foodKey === 'cumin')!.jarId)
    expect(cumin.bestTo).toBe(Date.UTC(2027, 11, 1))
    expect(cumin.packets).toMatchObject([{ netG: 45, price: 2.4 }])
    expect(kitchenPage(context).jars.find(jar => jar.foodKey === 'cumin')!.costPerG).toBeCloseTo(2.4 / 45, 9)
  })
  it('without a date is of now, and still comes in once', async () => {
    const context = fresh('undated.sqlite')
    const list = 'Food,Weight (g)\nCumin,45\nCumin,45\n'
    let clock = NOW
    context.now = () => clock++
    expect(await put(context, 'inventory', list)).toMatchObject({ kept: 2 })
    expect(await put(context, 'inventory', list)).toMatchObject({ kept: 0, repeated: 2 })
  })
  it('says of each line what is wrong and how to mend it, and brings nothing in', async () => {
    const context = fresh('faults.sqlite')
    const answer = await put(
      context,
      'inventory',
      'Food,Weight,Packed,Form\nUnicorn root,45,2026-05-01,powder\nCumin,heavy,2026-05-01,powder\nCumin,5,31/31/2026,powder\nCumin,5,2031-01-01,powder\nCumin,5,2026-01-01,cloud\nCumin,5,2026-01-01,powder\n',
    )
    expect(answer.errors.map(error => [error.line, error.field])).toEqual([
      [2, 'food'],
      [3, 'weight'],
      [4, 'time'],
      [5, 'time'],
      [6, 'form'],
    ])
    expect(answer.errors.map(error => error.message)).toEqual([
      expect.stringMatching(/Write a name as the reference/),
      expect.stringMatching(/not a weight/),
      expect.stringMatching(/order of day and month/),
      expect.stringMatching(/future/),
      expect.stringMatching(/pieces, flakes or powder/),
    ])
    expect(shelfPage(context).count).toBe(0)
  })
  it('adds weigh-ins to the batches they name, held against the log as it stood', async () => {
    const context = fresh('weigh-ins.sqlite')
    await takeIn(context, JSON.parse(textOf(demo)))
    const drying = batchList(context, { stage: 'drying' }).batches.find(batch => batch.loadedG !== undefined)!
    const run = batchPage(context, drying.batchId).entries.find(entry => entry.body.kind === 'load')!
    const time = (minutes: number) => new Date(run.at + minutes * 60_000).toISOString()
    const good = `batch,time,weight\n${drying.number},${time(20)},${Math.round(drying.loadedG! * 0.97)} g\n#${drying.number},${time(40)},${((drying.loadedG! * 0.93) / 1000).toFixed(3)} kg\n`
    expect(await put(context, 'weighIns', good)).toMatchObject({ kept: 2, errors: [] })
    expect(await put(context, 'weighIns', good)).toMatchObject({ kept: 0, repeated: 2 })
    expect(
      batchPage(context, drying.batchId).entries.filter(entry => entry.body.kind === 'weigh' && entry.at <= run.at + 40 * 60_000),
    ).toHaveLength(2)
    const bad = await put(
      context,
      'weighIns',
      `batch,time,weight\n99999,${time(60)},500\n${drying.number},${time(60)},${drying.loadedG! * 2}\n${drying.number},${time(-6000)},500\n`,
    )
    expect(bad.errors.map(error => [error.line, error.field])).toEqual([
      [2, 'batch'],
      [3, 'weight'],
      [4, 'time'],
    ])
  })
  it('only finds out where it is told to', async () => {
    const context = fresh('check.sqlite')
    expect(await put(context, 'inventory', 'Food,Weight\nCumin,45\n', false)).toMatchObject({ kept: 1 })
    expect(shelfPage(context).count).toBe(0)
  })
})

describe('a backup', () => {
  const backup = join(folder, 'kept.sqlite')
  beforeAll(async () => {
    copyFileSync((await backUp(demo)).path, backup)
  })
  it('is whole while the logbook is in use, and comes back as it was; what stood there is kept aside', () => {
    const context = fresh('restore-here.sqlite')
    const mine = textOf(context)
    const { batches, aside } = restore(context, backup)
    expect(batches).toBe(batchList(demo, {}).batches.length)
    expect(textOf(context)).toBe(textOf(demo))
    expect(stateOf(context)).toEqual(stateOf(demo))
    const before = openLogbook(join(folder, aside), () => NOW)
    opened.push(before)
    expect(textOf(before)).toBe(mine)
  })
  it('sweeps away copies that a power cut left, and nothing else', () => {
    const left = join(folder, 'incoming-01900000-0000-7000-8000-000000000001.sqlite')
    writeFileSync(left, 'half')
    sweepCopies(demo)
    expect(readdirSync(folder)).not.toContain('incoming-01900000-0000-7000-8000-000000000001.sqlite')
    expect(readdirSync(folder)).toEqual(expect.arrayContaining(['demo.sqlite', 'kept.sqlite']))
  })
  it.each<[string, (path: string) => void, RegExp]>([
    ['text', path => writeFileSync(path, 'batch,weight\n1,2\n'), /no SQLite database/],
    ['nothing', path => writeFileSync(path, ''), /not a logbook/],
    [
      'a database of another program',
      path => {
        const db = new Database(path)
        db.exec('CREATE TABLE recipes (id INTEGER)')
        db.close()
      },
      /not a logbook/,
    ],
    [
      'a logbook with another program’s mark',
      path => {
        copyFileSync(backup, path)
        const db = new Database(path)
        db.pragma('application_id = 42')
        db.close()
      },
      /not a logbook/,
    ],
    [
      'one of a newer Dulse',
      path => {
        copyFileSync(backup, path)
        const db = new Database(path)
        db.pragma('user_version = 99')
        db.close()
      },
      /newer Dulse/,
    ],
    ['one that breaks off', path => writeFileSync(path, readFileSync(backup).subarray(0, 60_000)), /damaged/],
    [
      'one with bytes gone wrong',
      path => {
        const bytes = readFileSync(backup)
        bytes.fill(0xa5, 8192, 60_000)
        writeFileSync(path, bytes)
      },
      /damaged/,
    ],
  ])('is refused where it is %s, and the logbook is untouched', (_, make, words) => {
    const path = join(folder, `wrong-${_.length}.sqlite`)
    make(path)
    const before = textOf(demo)
    expect(() => restore(demo, path)).toThrow(words)
    expect(textOf(demo)).toBe(before)
    expect(readdirSync(folder).filter(name => name.startsWith('trial'))).toEqual([])
  })
})
