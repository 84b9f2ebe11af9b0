import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import type { Entry } from '#core/log'
import { entriesOfBatch, entriesOfRun, insertEntry } from '#server/db/entries'
import { openDatabase } from '#server/db/open'
import { BEETROOT, MORNING, testBook } from '../../support/logbook'

/** A log that was read is read on from its end: it must be the log that stands in the table, whatever happened between. */
describe('a log that is read again', () => {
  const note = (text: string) => ({ id: uuidv7(), at: MORNING, recordedAt: MORNING, body: { kind: 'note', text } as const })
  const words = (log: readonly Pick<Entry, 'body'>[]) => log.map(({ body }) => (body.kind === 'note' ? body.text : body.kind))

  it('has what came since', () => {
    const { context, begin } = testBook()
    const batchId = begin()
    const before = entriesOfBatch(context.db, batchId)
    insertEntry(context.db, { batchId }, note('later'))
    expect(words(entriesOfBatch(context.db, batchId))).toEqual([...words(before), 'later'])
  })

  it('has within a transaction what that has written, and after it was taken back no longer', () => {
    const { context, begin } = testBook()
    const { db } = context
    const batchId = begin()
    const before = words(entriesOfBatch(db, batchId))
    const half = db.transaction(() => {
      insertEntry(db, { batchId }, note('taken back'))
      expect(words(entriesOfBatch(db, batchId))).toEqual([...before, 'taken back'])
      throw new Error('no')
    })
    expect(half).toThrow('no')
    expect(words(entriesOfBatch(db, batchId))).toEqual(before)
    // It takes the place in the order that the other had.
    insertEntry(db, { batchId }, note('instead'))
    expect(words(entriesOfBatch(db, batchId))).toEqual([...before, 'instead'])
  })

  it('is nobody else’s to change', () => {
    const { context, begin } = testBook()
    const batchId = begin()
    entriesOfBatch(context.db, batchId).length = 0
    expect(entriesOfBatch(context.db, batchId)).toHaveLength(1)
  })

  it('is that of its own file, and has what another program wrote into it', () => {
    const folder = mkdtempSync(join(tmpdir(), 'dulse-read-'))
    try {
      const batchId = uuidv7()
      const one = openDatabase(join(folder, 'one.sqlite'))
      const other = openDatabase(join(folder, 'other.sqlite'))
      for (const [db, foodKey] of [
        [one, 'beetroot'],
        [other, 'carrot'],
      ] as const) {
        db.prepare('INSERT INTO batch (id, number, created_at) VALUES (?, 1, ?)').run(batchId, MORNING)
        insertEntry(db, { batchId }, { ...note('in'), body: { ...BEETROOT, foodKey } })
      }
      expect(entriesOfBatch(one, batchId)[0]!.body).toMatchObject({ foodKey: 'beetroot' })
      expect(entriesOfBatch(other, batchId)[0]!.body).toMatchObject({ foodKey: 'carrot' })
      const again = openDatabase(join(folder, 'one.sqlite'))
      insertEntry(again, { batchId }, note('by another'))
      expect(words(entriesOfBatch(one, batchId))).toEqual(['intake', 'by another'])
      for (const db of [one, other, again]) db.close()
    } finally {
      rmSync(folder, { recursive: true })
    }
  })

  it('holds for more batches than are kept', () => {
    const { context, begin } = testBook()
    const all = Array.from({ length: 130 }, () => begin())
    for (let turn = 0; turn < 2; turn++) for (const batchId of all) expect(words(entriesOfBatch(context.db, batchId))).toEqual(['intake'])
  })
  it('is that of the run as well, for each batch in it', () => {
    const { context, whole } = testBook()
    const { batchId, runId } = whole()
    const stored = context.db.prepare('SELECT id FROM entry WHERE batch_id = ? OR run_id = ? ORDER BY seq').all(batchId, runId)
    for (let turn = 0; turn < 2; turn++) expect(entriesOfBatch(context.db, batchId).map(({ id }) => ({ id }))).toEqual(stored)
    expect(entriesOfRun(context.db, runId).length).toBeGreaterThan(0)
  })
})
