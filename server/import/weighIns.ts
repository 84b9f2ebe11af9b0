import { checkWeighIns } from '#core/batch'
import { kindOf, type Entry, type EntryBody } from '#core/log'
import type { LineError, WeighInRow } from '#core/tables'
import { batchOfNumber } from '#server/db/batches'
import { entriesOfBatch, findEntry, insertEntry } from '#server/db/entries'
import type { Context } from '#server/services/context'
import { project } from '#server/services/projections'
import { projectRun } from '#server/services/runFacts'
import type { Progress } from './apart'
import { contentId } from './contentId'
import type { Taken } from './taken'

const FIELDS: Record<string, string> = { at: 'time', kind: 'time', totalG: 'weight', weightG: 'weight' }

/** Writes weigh-ins into the logs of their batches. Trays weighed at the same instant are one entry. */
export function* takeInWeighIns(context: Context, rows: readonly WeighInRow[]): Generator<Progress, Taken> {
  const { db } = context
  const errors: LineError[] = []
  let [done, kept, repeated] = [0, 0, 0]
  const byBatch = new Map<number, WeighInRow[]>()
  for (const row of rows) {
    const list = byBatch.get(row.batch)
    if (list) list.push(row)
    else byBatch.set(row.batch, [row])
  }
  for (const [number, list] of byBatch) {
    const batchId = batchOfNumber(db, number)
    if (batchId === undefined) {
      errors.push(...list.map(({ line }) => ({ line, field: 'batch', code: 'no-batch', message: `There is no batch ${number}.` })))
      continue
    }
    const log = entriesOfBatch(db, batchId)
    const fresh = together(list).flatMap(({ lines, at, body }) => {
      const id = contentId('weigh', batchId, at, JSON.stringify(body))
      if (findEntry(db, id)) {
        repeated += lines.length
        return []
      }
      return [{ lines, entry: { id, seq: Number.MAX_SAFE_INTEGER, at, recordedAt: context.now(), body } satisfies Entry }]
    })
    yield { phase: 'checking', done, of: rows.length }
    const wrong = checkWeighIns(
      log,
      fresh.map(item => item.entry),
      { now: context.now(), find: context.foods.find },
    )
    for (const [index, { entry }] of fresh.entries()) {
      // One door: what the log's own form would refuse comes in by no table either.
      const { error } = kindOf('weigh').schema.safeParse(entry.body)
      for (const { path, message } of error?.issues ?? [])
        wrong.push({ index, problem: { field: path.join('.'), code: 'not-allowed', message } })
    }
    const bad = new Set(wrong.map(({ index }) => index))
    for (const { index, problem } of wrong) {
      const tray = /^trays\.(\d+)/.exec(problem.field)
      errors.push({
        ...problem,
        line: fresh[index]!.lines[tray ? Number(tray[1]) : 0]!,
        field: tray ? (problem.field.endsWith('position') ? 'tray' : 'weight') : (FIELDS[problem.field] ?? problem.field),
      })
    }
    for (const [i, { lines, entry }] of fresh.entries()) {
      if (bad.has(i)) continue
      insertEntry(db, { batchId }, entry)
      kept += lines.length
      if (i % 50 === 0) yield { phase: 'writing', done: done + i, of: rows.length }
    }
    if (kept > 0) {
      project(context, batchId)
      const runs = new Set(log.flatMap(({ body }) => (body.kind === 'load' ? [body.runId] : [])))
      for (const runId of runs) projectRun(context, runId)
    }
    done += list.length
    yield { phase: 'writing', done, of: rows.length }
  }
  return { kept, repeated, errors }
}

/** A line with a tray is one of a round; one without is the whole load. */
function together(rows: readonly WeighInRow[]): { lines: number[]; at: number; body: Extract<EntryBody, { kind: 'weigh' }> }[] {
  const rounds = new Map<number, { lines: number[]; at: number; body: { kind: 'weigh'; trays: { position: number; weightG: number }[] } }>()
  const whole: ReturnType<typeof together> = []
  for (const { line, at, weightG, tray } of rows) {
    const round = rounds.get(at)
    if (tray === undefined) whole.push({ lines: [line], at, body: { kind: 'weigh', totalG: weightG } })
    else if (!round) rounds.set(at, { lines: [line], at, body: { kind: 'weigh', trays: [{ position: tray, weightG }] } })
    else {
      round.lines.push(line)
      round.body.trays.push({ position: tray, weightG })
    }
  }
  return [...whole, ...rounds.values()].sort((a, b) => a.at - b.at)
}
