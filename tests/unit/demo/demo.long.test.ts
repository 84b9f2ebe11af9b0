import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { foldBatch } from '#core/batch'
import { STAGES } from '#core/log'
import { batchList, batchPage, nowPage, stageBand } from '#server/services/pages'
import { jarPage, shelfPage } from '#server/services/shelf'
import { makeDemo } from '../../../demo/make'
import { findFood } from '../../support/foods'

const NOW = Date.UTC(2026, 10, 25, 8, 30)
const folder = mkdtempSync(join(tmpdir(), 'dulse-demo-'))
const { context } = makeDemo(join(folder, 'logbook.sqlite'), NOW)
context.now = () => NOW
afterAll(() => {
  context.db.close()
  rmSync(folder, { recursive: true })
})

describe('the invented household', () => {
  const { batches } = batchList(context, {})
  it('has about thirty batches, and food at every stage', () => {
    expect(batches.length).toBeGreaterThanOrEqual(28)
    for (const stage of stageBand(context)) expect(`${stage.stage} ${stage.count > 0}`).toBe(`${stage.stage} true`)
    expect(stageBand(context).map(stage => stage.stage)).toEqual([...STAGES])
  })
  it('has something drying, something resting, something late and a full shelf', () => {
    const now = nowPage(context)
    expect(now.racks.filter(rack => rack.runId !== undefined).length).toBeGreaterThanOrEqual(2)
    expect(now.todos.some(todo => (todo.to ?? todo.from) < NOW - 3_600_000)).toBe(true)
    expect(now.todos.map(todo => todo.kind)).toEqual(expect.arrayContaining(['pack', 'look', 'weigh', 'load']))
    expect(shelfPage(context).count).toBeGreaterThan(40)
    expect(shelfPage(context).places.length).toBeGreaterThan(2)
  })
  it('says what is true: no batch gives more than it took, no jar holds more than was packed', () => {
    for (const { batchId } of batches) {
      const state = foldBatch(batchPage(context, batchId).entries, findFood)!
      // What came in dried only loses its last water.
      if (state.dryG !== undefined && state.run && state.food.group !== 'dried')
        expect(state.dryG).toBeLessThan(0.6 * (state.earlierRuns[0] ?? state.run).loadedG)
      if (state.powderG > 0) expect(state.powderG).toBeLessThanOrEqual(state.dryG!)
      expect(state.packedG).toBeLessThanOrEqual((state.purpose === 'pieces' ? (state.dryG ?? 0) : state.powderG) + 1)
    }
    for (const { jarId } of shelfPage(context).jars) expect(jarPage(context, jarId).bestBy.reason).not.toBe('')
  })
  it('holds yields as the reference lets one expect: dried to between 2 and 30 to 1', () => {
    const ratios = batches
      .filter(batch => batch.stage === 'shelf' && !batch.foodKey.startsWith('dried'))
      .map(batch => batch.loadedG! / batch.dryG!)
    expect(Math.min(...ratios)).toBeGreaterThan(1.8)
    expect(Math.max(...ratios)).toBeLessThan(30)
  })
  it('uses every way of drying, and shows runs of three of them now', () => {
    const ways = batches.flatMap(batch => {
      const state = foldBatch(batchPage(context, batch.batchId).entries, findFood)!
      return [...state.earlierRuns, ...(state.run ? [state.run] : [])].map(run => ({ way: run.way.way, now: state.stage === 'drying' }))
    })
    expect(new Set(ways.map(({ way }) => way))).toEqual(new Set(['dehydrator', 'oven', 'smoker', 'freeze-dryer', 'sun', 'air']))
    expect(new Set(ways.filter(({ now }) => now).map(({ way }) => way))).toEqual(new Set(['dehydrator', 'freeze-dryer', 'sun']))
  })
  it('shows a correction, as real logs do, and nothing from the future', () => {
    const entries = batches.flatMap(({ batchId }) => batchPage(context, batchId).entries)
    expect(entries.some(entry => entry.replaces !== undefined)).toBe(true)
    expect(entries.every(entry => entry.at <= NOW)).toBe(true)
  })
})
