import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import { InputError } from '#core/errors'
import { backUp, restore } from '#server/export/backup'
import { bringCopiedPictures, copyPath, makeCopy } from '#server/export/copies'
import { logbookJson } from '#server/export/logbook'
import { importLogbook } from '#server/import/logbook'
import { picturesOfBatch, picturesOfFood } from '#server/db/pictures'
import { findPicture, nameOf, PICTURE_KB, picturesFolder, savePicture } from '#server/pictures/store'
import type { Context } from '#server/services/context'
import { openLogbook } from '#server/services/logbook'
import { logEntry, startBatch } from '#server/services/writeLog'
import { BEETROOT, MORNING } from '../../support/logbook'
import { jpeg } from '../../support/pictures'

const folders: string[] = []
const opened: Context[] = []
function freshBook(): Context {
  const folder = mkdtempSync(join(tmpdir(), 'dulse-pictures-'))
  folders.push(folder)
  const context = openLogbook(join(folder, 'logbook.sqlite'), () => MORNING)
  opened.push(context)
  return context
}
afterEach(() => {
  opened.splice(0).forEach(context => context.db.close())
  folders.splice(0).forEach(folder => rmSync(folder, { recursive: true, force: true }))
})

/** A logbook with a basket and a picture of it. */
function pictured() {
  const context = freshBook()
  const batchId = uuidv7()
  startBatch(context, { id: batchId, entry: { id: uuidv7(), at: MORNING, body: BEETROOT } })
  const name = savePicture(context.db, jpeg(1280, 960, 5000))
  const { entry } = logEntry(context, batchId, {
    id: uuidv7(),
    at: MORNING,
    body: { kind: 'picture', picture: name, shows: 'food', colour: { l: 31.5, a: 40.25, b: 12 } },
  })
  return { context, batchId, name, entryId: entry.id }
}

describe('pictures beside the logbook', () => {
  it('are kept once under what is in them, and found by batch and by food', () => {
    const { context, batchId, name, entryId } = pictured()
    expect(savePicture(context.db, jpeg(1280, 960, 5000))).toBe(name)
    expect(readdirSync(picturesFolder(context.db))).toEqual([name])
    expect(findPicture(context.db, name)).toEqual({ bytes: jpeg(1280, 960, 5000), type: 'image/jpeg' })
    for (const found of [picturesOfBatch(context.db, batchId, 9), picturesOfFood(context.db, 'beetroot', 9)])
      expect(found.map(({ id, batchNumber, body }) => [id, batchNumber, body.colour])).toEqual([[entryId, 1, { l: 31.5, a: 40.25, b: 12 }]])
    expect(picturesOfFood(context.db, 'carrot', 9)).toEqual([])
    logEntry(context, batchId, { id: uuidv7(), at: MORNING, body: { kind: 'void', target: entryId } })
    expect(picturesOfBatch(context.db, batchId, 9)).toEqual([])
    // What was removed from the log can be put back: its bytes stay.
    expect(findPicture(context.db, name)).toBeDefined()
  })

  it.each<[string, Buffer, string]>([
    ['words', Buffer.from('Not a picture at all, only words.'), 'not-a-picture'],
    ['nothing', Buffer.alloc(0), 'not-a-picture'],
    ['a drawing', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"/>'), 'not-a-picture'],
    ['a picture that was not made small', jpeg(1280, 960, PICTURE_KB * 1024), 'too-large'],
    ['one of too many pixels', jpeg(12_000, 9000), 'too-many-pixels'],
  ])('refuse %s in words, and keep nothing', (_, bytes, code) => {
    const context = freshBook()
    try {
      savePicture(context.db, bytes)
      throw new Error('it was kept')
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      expect(error.problems).toEqual([expect.objectContaining({ field: 'picture', code })])
    }
    expect(existsSync(picturesFolder(context.db)) ? readdirSync(picturesFolder(context.db)) : []).toEqual([])
  })

  it('a line of the log names none whose bytes nobody sent', () => {
    const { context, batchId } = pictured()
    expect(() =>
      logEntry(context, batchId, {
        id: uuidv7(),
        at: MORNING,
        body: { kind: 'picture', picture: nameOf(Buffer.from('x')), shows: 'food' },
      }),
    ).toThrow(/send its bytes first/)
  })

  it('goes with an entry that is there, and with none that is not', () => {
    const { context, batchId, name, entryId } = pictured()
    const with_ = (about: string) =>
      logEntry(context, batchId, { id: uuidv7(), at: MORNING, body: { kind: 'picture', picture: name, shows: 'food', about } })
    expect(with_(entryId).repeated).toBe(false)
    expect(() => with_(uuidv7())).toThrow(/no such entry for the picture to go with/)
  })

  it('of the largest size leaves and comes in too, and a hundred go into a backup', async () => {
    const { context, batchId } = pictured()
    const largest = savePicture(context.db, jpeg(1280, 960, PICTURE_KB * 1024 - 100))
    const some = Array.from({ length: 99 }, (_, i) => savePicture(context.db, jpeg(640, 480, 1000 + i)))
    for (const picture of [largest, ...some])
      logEntry(context, batchId, { id: uuidv7(), at: MORNING, body: { kind: 'picture', picture, shows: 'food' } })
    const other = freshBook()
    for (const step of importLogbook(other, JSON.parse([...logbookJson(context)].join('')))) void step
    expect(findPicture(other.db, largest)?.bytes).toEqual(findPicture(context.db, largest)!.bytes)
    const third = freshBook()
    const incoming = join(third.db.name, '..', 'incoming.sqlite')
    copyFileSync((await backUp(context)).path, incoming)
    restore(third, incoming)
    expect(readdirSync(picturesFolder(third.db))).toHaveLength(101)
  })

  it('leave with the whole logbook and come in elsewhere, byte by byte', () => {
    const { context, name } = pictured()
    const text = [...logbookJson(context)].join('')
    const other = freshBook()
    for (const step of importLogbook(other, JSON.parse(text))) void step
    expect(findPicture(other.db, name)?.bytes).toEqual(findPicture(context.db, name)!.bytes)
    expect([...logbookJson(other)].join('')).toBe(text)
  })

  it('of a file that was changed on the way are refused by place', () => {
    const { context } = pictured()
    const file = JSON.parse([...logbookJson(context)].join('')) as { pictures: { base64: string }[] }
    file.pictures[0]!.base64 = jpeg(1280, 960, 4999).toString('base64')
    expect(() => {
      for (const step of importLogbook(freshBook(), file)) void step
    }).toThrow(/not what its name says/)
  })

  it('are in a backup, and lie beside the logbook that it becomes', async () => {
    const { context, name } = pictured()
    const { path } = await backUp(context)
    const other = freshBook()
    const incoming = join(other.db.name, '..', 'incoming.sqlite')
    copyFileSync(path, incoming)
    restore(other, incoming)
    expect(findPicture(other.db, name)?.bytes).toEqual(findPicture(context.db, name)!.bytes)
    // They do not stay in the logbook too.
    expect(other.db.prepare("SELECT count(*) AS n FROM sqlite_master WHERE name = 'picture_packed'").get()).toEqual({ n: 0 })
    expect(readFileSync(other.db.name).includes(jpeg(1280, 960).subarray(0, 24))).toBe(false)
  })

  it('lie once beside all copies, and come back with one', async () => {
    const { context, name } = pictured()
    const { name: copy } = await makeCopy(context)
    rmSync(join(picturesFolder(context.db), name))
    restore(context, copyPath(context, copy)!)
    expect(findPicture(context.db, name)).toBeUndefined()
    bringCopiedPictures(context)
    expect(findPicture(context.db, name)).toBeDefined()
  })

  it('sweep what a power cut left half written at the next start', () => {
    const { context, name } = pictured()
    writeFileSync(join(picturesFolder(context.db), 'part-of-something'), 'half')
    openLogbook(context.db.name, () => MORNING).db.close()
    expect(readdirSync(picturesFolder(context.db))).toEqual([name])
  })
})
