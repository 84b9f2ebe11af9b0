import fs, {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import { backUp, mendRestore, restore } from '#server/export/backup'
import { makeCopy } from '#server/export/copies'
import { logbookJson } from '#server/export/logbook'
import { findPicture, missingPictures, picturesFolder, savePicture } from '#server/pictures/store'
import type { Context } from '#server/services/context'
import { openLogbook } from '#server/services/logbook'
import { logEntry, startBatch } from '#server/services/writeLog'
import { BEETROOT, MORNING } from '../../support/logbook'
import { jpeg } from '../../support/pictures'

const folders: string[] = []
const opened: Context[] = []
function bookIn(folder = mkdtempSync(join(tmpdir(), 'dulse-kept-'))): Context {
  folders.push(folder)
  const context = openLogbook(join(folder, 'logbook.sqlite'), () => MORNING)
  opened.push(context)
  return context
}
afterEach(() => {
  jest.restoreAllMocks()
  opened.splice(0).forEach(context => context.db.close())
  folders.splice(0).forEach(folder => rmSync(folder, { recursive: true, force: true }))
})
function pictured(count = 2) {
  const context = bookIn()
  const batchId = uuidv7()
  startBatch(context, { id: batchId, entry: { id: uuidv7(), at: MORNING, body: BEETROOT } })
  const names = Array.from({ length: count }, (_, i) => savePicture(context.db, jpeg(800, 600, 4000 + i)))
  for (const picture of names) logEntry(context, batchId, { id: uuidv7(), at: MORNING, body: { kind: 'picture', picture, shows: 'food' } })
  return { context, batchId, names }
}
const fileOf = ({ db }: Context, name: string) => join(picturesFolder(db), name)

describe('a picture is kept whole or refused', () => {
  it('a disk that takes only a part of it at a time gets the rest, and one that is full says so', () => {
    const context = bookIn()
    const real = fs.writeSync
    const write = jest.spyOn(fs, 'writeSync')
    write.mockImplementation(((file: number, bytes: Uint8Array, at: number) =>
      real(file, bytes, at, Math.min(700, bytes.length - at))) as unknown as typeof fs.writeSync)
    const name = savePicture(context.db, jpeg(800, 600, 5000))
    expect(write.mock.calls.length).toBeGreaterThan(5)
    expect(findPicture(context.db, name)!.bytes).toEqual(jpeg(800, 600, 5000))
    // Full: it takes nothing more and raises nothing.
    let calls = 0
    write.mockImplementation(((file: number, bytes: Uint8Array, at: number) =>
      calls++ ? 0 : real(file, bytes, at, 300)) as unknown as typeof fs.writeSync)
    expect(() => savePicture(context.db, jpeg(800, 600, 6000))).toThrow(/took nothing/)
    expect(readdirSync(picturesFolder(context.db))).toEqual([name])
  })
  it('one damaged picture stops neither backup nor copy nor export: it is named and left out', async () => {
    const { context, names } = pictured(3)
    truncateSync(fileOf(context, names[1]!), 900)
    expect(findPicture(context.db, names[1]!)).toBeUndefined()
    expect(missingPictures(context.db)).toEqual([names[1]])
    const { path, leftOut } = await backUp(context)
    expect(leftOut).toEqual([names[1]])
    const other = bookIn()
    const incoming = join(folders.at(-1)!, 'incoming.sqlite')
    copyFileSync(path, incoming)
    expect(restore(other, incoming)).toMatchObject({ batches: 1, picturesMissing: 1 })
    expect(findPicture(other.db, names[0]!)).toBeDefined()
    await makeCopy(context)
    const file = JSON.parse([...logbookJson(context)].join('')) as { pictures: { name: string }[] }
    expect(file.pictures.map(({ name }) => name).sort()).toEqual([names[0], names[2]].sort())
  })
  it('it is whole again once it is sent again, or brought by a backup that has it', async () => {
    const { context, names } = pictured()
    const { path } = await backUp(context)
    for (const name of names) writeFileSync(fileOf(context, name), 'rubbish')
    expect(savePicture(context.db, jpeg(800, 600, 4000))).toBe(names[0])
    expect(missingPictures(context.db)).toEqual([names[1]])
    const incoming = join(folders[0]!, 'incoming.sqlite')
    copyFileSync(path, incoming)
    expect(restore(context, incoming).picturesMissing).toBe(0)
    expect(missingPictures(context.db)).toEqual([])
  })
})

describe('a restore that is cut off between its two renames', () => {
  /** A folder as a kill at that instant leaves it: the logbook moved aside, the trial not yet in its place. */
  function cut(at: 'between' | 'after the log' | 'before') {
    const context = bookIn()
    const folder = folders.at(-1)!
    const id = uuidv7()
    startBatch(context, { id, entry: { id: uuidv7(), at: MORNING, body: BEETROOT } })
    const place = context.db.name
    const aside = join(folder, 'logbook-before-restore-2026-10-06T08-00-00-000Z.sqlite')
    const wal = readFileSync(`${place}-wal`)
    copyFileSync(place, join(folder, `trial-${uuidv7()}.sqlite`))
    // As after a kill: the log beside it still holds what was written.
    const main = readFileSync(place)
    context.db.close()
    opened.length = 0
    writeFileSync(place, main)
    writeFileSync(`${place}-wal`, wal)
    if (at !== 'before') renameSync(`${place}-wal`, `${aside}-wal`)
    if (at === 'between') renameSync(place, aside)
    return { folder, place, aside, id }
  }
  it.each(['between', 'after the log'] as const)('%s: the next start has what stood there before, and says so', at => {
    const { folder, place, id } = cut(at)
    expect(mendRestore(place)).toMatch(/A restore was cut off .* Restore once more/)
    const again = bookIn(folder)
    expect(again.db.prepare('SELECT id FROM batch').all()).toEqual([{ id }])
    expect(readdirSync(folder).filter(name => name.startsWith('logbook-before-restore'))).toEqual([])
    expect(mendRestore(place)).toBeUndefined()
  })
  it('a start that nothing was cut off of touches nothing, though an older restore left its file', () => {
    const { folder, place, aside } = cut('before')
    copyFileSync(place, aside)
    expect(mendRestore(place)).toBeUndefined()
    rmSync(place)
    rmSync(`${place}-wal`)
    for (const name of readdirSync(folder)) if (name.startsWith('trial-')) rmSync(join(folder, name))
    // Taken away by hand, to begin anew: that is no restore.
    expect(mendRestore(place)).toBeUndefined()
    expect(existsSync(place)).toBe(false)
  })
})
