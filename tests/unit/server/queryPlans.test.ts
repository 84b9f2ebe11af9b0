import { dryingViews, pacesMark } from '#server/db/batches'
import { groundBefore, loadedBefore } from '#server/db/contact'
import { entriesOfBatch, entriesOfRun, jarReviewsOf } from '#server/db/entries'
import { jarsHolding } from '#server/db/jars'
import type { Db } from '#server/db/open'
import { testBook } from '../../support/logbook'

/** What the pages that are always open ask for must not read all years: the plan of each is looked at, not its time. */
function planOf(ask: (db: Db) => unknown): string[] {
  const { context } = testBook()
  const plans: string[] = []
  const db = new Proxy(context.db, {
    get(target, key) {
      if (key !== 'prepare') return Reflect.get(target, key, target)
      return (sql: string) => {
        const { length } = sql.match(/\?/g) ?? []
        plans.push(
          ...(
            target.prepare(`EXPLAIN QUERY PLAN ${sql}`).all(...Array.from({ length: length ?? 0 }, () => 'x')) as { detail: string }[]
          ).map(row => row.detail),
        )
        return target.prepare(sql)
      }
    },
  })
  ask(db)
  return plans
}

describe('queries of pages that are always open', () => {
  it.each<[string, (db: Db) => unknown, RegExp]>([
    ['what is drying', dryingViews, /SEARCH batch_view USING INDEX batch_view_open/],
    ['whether another run teaches', pacesMark, /SCAN batch_view USING COVERING INDEX batch_view_paced/],
    ['the log of a batch', db => entriesOfBatch(db, 'x'), /SEARCH entry USING INDEX entry_batch/],
    ['the log of a run', db => entriesOfRun(db, 'x'), /SEARCH entry USING INDEX entry_run/],
    [
      'the newest jars of a kind',
      db => jarsHolding(db, 'beetroot', 'powder', 12),
      /SEARCH jar_view USING INDEX jar_view_food \(food_key=\? AND purpose=\?\)/,
    ],
    ['who ground in a mill before', db => groundBefore(db, 'x', 1), /SEARCH e USING INDEX entry_grind \(<expr>=\? AND at<\?\)/],
    [
      'who lay in a machine before',
      db => loadedBefore(db, { machineId: 'x', runId: 'y' }, 1),
      /SEARCH e USING INDEX entry_machine \(<expr>=\? AND at<\?\)/,
    ],
    ['words for next time on jars', db => jarReviewsOf(db, 'beetroot', 6), /SCAN e USING INDEX entry_review/],
  ])('%s: by its index, in its order, without a sort', (_, ask, index) => {
    const plans = planOf(ask)
    expect(plans[0]).toMatch(index)
    expect(plans.filter(plan => plan.includes('TEMP B-TREE'))).toEqual([])
  })
})
