import * as z from 'zod'
import { InputError, refuse, type Problem } from '#core/errors'
import { jarsNamed } from '#core/jars'
import { targetOf } from '#core/log'
import { logbookFile, type LogbookFile } from '#shared/contracts'
import { addReading } from '#server/db/devices'
import { placeUnderJars } from '#server/db/entries'
import { dropMachines, setHousehold } from '#server/db/settings'
import { insertRow, isUntouched, WRITTEN_TABLES } from '#server/db/wholeLog'
import type { Context } from '#server/services/context'
import { takePicture } from '#server/pictures/store'
import { openFoodBook } from '#server/services/foods'
import { rebuildInSteps } from '#server/services/projections'
import { Conflict } from '#server/services/refusals'
import type { Progress } from './apart'

export interface LogbookTaken {
  batches: number
  jars: number
  entries: number
  readings: number
}

/**
 * Takes in a whole logbook, into an empty one only: two households' numbers would collide.
 * @param file parsed JSON, not looked at yet
 * @throws ZodError naming the place in the file; InputError where it does not hold together; Conflict where something is here already
 */
export function* importLogbook(context: Context, file: unknown): Generator<Progress, LogbookTaken> {
  const { db } = context
  if (!isUntouched(db))
    throw new Conflict(
      'This logbook is not empty: a whole logbook is taken in by an empty one only. Start Dulse with another folder, or restore a backup, which puts this logbook aside.',
      [{ field: 'logbook', code: 'not-empty', message: 'It is not empty.' }],
    )
  const parsed = yield* checkRows(file)
  checkTogether(parsed)
  // What is written is the file's own words: the order of fields in them is kept too.
  const raw = file as Record<string, Record<string, unknown>[]>
  dropMachines(db)
  setHousehold(db, parsed.household)
  const jarsOf = new Map<string, string[]>()
  const jarIds = new Set(parsed.jars.map(jar => jar.id))
  for (const table of WRITTEN_TABLES) {
    // Files of before say nothing of plans.
    const rows = raw[table.key] ?? []
    for (const [i, row] of rows.entries()) {
      if (i % 50 === 0) yield { phase: table.key, done: i, of: rows.length }
      insertOnce(() => insertRow(db, table, row, moreOf(table.key, row)), `${table.key}.${i}`)
      if (table.key === 'entries') insertEntryJars(context, row as unknown as LogbookFile['entries'][number], jarsOf, jarIds)
    }
  }
  let readings = 0
  for (const { deviceId, channel, points } of parsed.readings) {
    for (const [at, value] of points) {
      addReading(db, deviceId, channel, at, value)
      if (readings++ % 200 === 0)
        yield { phase: 'readings', done: readings, of: parsed.readings.reduce((sum, series) => sum + series.points.length, 0) }
    }
  }
  for (const [i, { name, base64 }] of (parsed.pictures ?? []).entries()) {
    yield { phase: 'pictures', done: i, of: parsed.pictures!.length }
    takePicture(db, name, Buffer.from(base64, 'base64'), `pictures.${i}.base64`)
  }
  context.foods = openFoodBook(db)
  yield* rebuildInSteps(context)
  return { batches: parsed.batches.length, jars: parsed.jars.length, entries: parsed.entries.length, readings }
}

/** Rows that no id tells apart may stand twice too. @throws InputError naming the row */
function insertOnce(insert: () => void, field: string): void {
  try {
    insert()
  } catch (error) {
    if (!String((error as { code?: unknown }).code).startsWith('SQLITE_CONSTRAINT')) throw error
    refuse(field, 'row-twice', 'This row stands twice in the file, or does not go with the others: the file is damaged.')
  }
}

/** What a row of the long lists is. */
const ROWS = {
  entries: logbookFile.shape.entries.element,
  readings: logbookFile.shape.readings.element,
  pictures: logbookFile.shape.pictures.unwrap().element,
}
/** Rows at fault that are told of: more nobody reads. */
const MOST_FAULTS = 20

/** The file as the contract wants it. Its log is long: its rows are looked at one by one, so that others are served between. */
function* checkRows(file: unknown): Generator<Progress, LogbookFile> {
  const long = ['entries', 'readings', 'pictures'] as const
  const lists = Object.fromEntries(
    long.flatMap(key => {
      const list = (file as Record<string, unknown> | null)?.[key]
      return Array.isArray(list) ? [[key, list as unknown[]]] : []
    }),
  )
  yield { phase: 'checking', done: 0, of: 1 }
  const head = logbookFile.parse(isRecord(file) ? { ...file, ...Object.fromEntries(Object.keys(lists).map(key => [key, []])) } : file)
  const issues: z.core.$ZodIssue[] = []
  for (const key of long) {
    const rows = lists[key] ?? []
    for (const [i, row] of rows.entries()) {
      if (i % 50 === 0) yield { phase: 'checking', done: i, of: rows.length }
      const { error } = ROWS[key].safeParse(row)
      issues.push(...(error?.issues ?? []).map(issue => ({ ...issue, path: [key, i, ...issue.path] })))
      if (issues.length >= MOST_FAULTS) break
    }
  }
  if (issues.length > 0) throw new z.ZodRealError(issues)
  return { ...head, ...lists } as LogbookFile
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)

/** Columns of a table that follow from the row. */
function moreOf(key: string, row: Record<string, unknown>): Record<string, string | number> {
  switch (key) {
    case 'planBook':
      return { id: 1 }
    case 'entries':
      return { kind: (row.body as { kind: string }).kind }
    case 'foods':
      return { key: (row.food as { key: string }).key }
    case 'cards':
      return { food_key: (row.card as { food: string }).food }
    default:
      return {}
  }
}

/** An entry stands under every jar that it names, or whose entry it corrects or voids. */
function insertEntryJars(
  { db }: Context,
  entry: LogbookFile['entries'][number],
  jarsOf: Map<string, string[]>,
  jarIds: ReadonlySet<string>,
): void {
  const target = targetOf(entry)
  const jars = [...new Set([...jarsNamed(entry), ...(target === undefined ? [] : (jarsOf.get(target) ?? []))])].filter(jar =>
    jarIds.has(jar),
  )
  jarsOf.set(entry.id, jars)
  placeUnderJars(db, entry.seq, jars)
}

/** What refers to something finds it in the file. */
function checkTogether(file: LogbookFile): void {
  const problems: Problem[] = []
  const ids = (rows: readonly { id: string }[], key: string) => {
    const seen = new Set<string>()
    rows.forEach(({ id }, i) => {
      if (seen.has(id)) problems.push({ field: `${key}.${i}.id`, code: 'id-twice', message: 'This id stands twice.' })
      seen.add(id)
    })
    return seen
  }
  const [machines, runs, batches, jars, devices] = [
    ids(file.machines, 'machines'),
    ids(file.runs, 'runs'),
    ids(file.batches, 'batches'),
    ids(file.jars, 'jars'),
    ids(file.devices, 'devices'),
  ]
  const entries = ids(file.entries, 'entries')
  const look = (there: ReadonlySet<string>, wanted: string | undefined | null, field: string, what: string) => {
    if (wanted && !there.has(wanted))
      problems.push({
        field,
        code: 'missing-in-file',
        message: `The file has no such ${what}: it is damaged, or a part of it is missing.`,
      })
  }
  if (file.machines.length === 0) problems.push({ field: 'machines', code: 'no-machine', message: 'A logbook has at least one machine.' })
  file.runs.forEach((run, i) => look(machines, run.machineId, `runs.${i}.machineId`, 'machine'))
  file.upkeep.forEach((done, i) => look(machines, done.machineId, `upkeep.${i}.machineId`, 'machine'))
  file.devices.forEach((device, i) => look(machines, device.machineId, `devices.${i}.machineId`, 'machine'))
  file.readings.forEach((series, i) => look(devices, series.deviceId, `readings.${i}.deviceId`, 'device'))
  let before = 0
  const placeOf = new Map(file.entries.map(({ id }, i) => [id, i]))
  file.entries.forEach((entry, i) => {
    const target = targetOf(entry)
    const field = entry.body.kind === 'void' ? 'body.target' : 'replaces'
    if (target && (placeOf.get(target) ?? -1) >= i)
      problems.push({
        field: `entries.${i}.${field}`,
        code: 'corrects-ahead',
        message: 'An entry can only correct or void one that was written before it: the file was changed, or is damaged.',
      })
    look(batches, entry.batchId, `entries.${i}.batchId`, 'batch')
    look(runs, entry.runId, `entries.${i}.runId`, 'run')
    look(jars, entry.jarId, `entries.${i}.jarId`, 'jar')
    look(entries, target, `entries.${i}.${field}`, 'entry')
    if (entry.seq <= before)
      problems.push({
        field: `entries.${i}.seq`,
        code: 'out-of-order',
        message: 'The entries are not in the order in which they were written.',
      })
    before = entry.seq
  })
  for (const key of ['batches', 'jars'] as const)
    if (new Set(file[key].map(row => row.number)).size < file[key].length)
      problems.push({ field: key, code: 'number-twice', message: 'A number stands twice.' })
  if (problems.length > 0) throw new InputError(problems.slice(0, 20))
}
