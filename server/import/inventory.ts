import { leakOf } from '#core/keeping'
import { kindOf, type EntryOf } from '#core/log'
import type { Food } from '#core/foods'
import type { InventoryRow, LineError } from '#core/tables'
import { findEntry, insertEntry } from '#server/db/entries'
import { addJar, nextJarNumber } from '#server/db/jars'
import { pantryOf, type Context } from '#server/services/context'
import { projectStocked } from '#server/services/jars'
import type { Progress } from './apart'
import { contentIds } from './contentId'
import type { Taken } from './taken'

/** A line that makes a jar, ready to be written. */
interface NewJar {
  number: number
  jarId: string
  id: string
  at: number
  body: EntryOf<'stock'>['body']
}

/** Puts on the shelf what a list says stands there, each line a jar of its own. */
export function* takeInInventory(context: Context, rows: readonly InventoryRow[]): Generator<Progress, Taken> {
  const { db } = context
  const { jars, repeated, errors } = yield* readJars(context, rows)
  const [pantry, recordedAt] = [pantryOf(context), context.now()]
  // In the order of their ids, which is none: each tree of the database then grows at one place at a time.
  jars.sort((a, b) => (a.jarId < b.jarId ? -1 : 1))
  for (const [i, { number, jarId, id, at, body }] of jars.entries()) {
    if (i % 25 === 0) yield { phase: 'writing', done: i, of: jars.length }
    const entry = { id, at, recordedAt, body }
    addJar(db, jarId, number)
    insertEntry(db, { jarId }, entry, [jarId])
    projectStocked(context, entry, { pantry, number })
  }
  yield { phase: 'writing', done: jars.length, of: jars.length }
  return { kept: jars.length, repeated, errors }
}

/** Columns by what the log calls them. */
const COLUMNS: Readonly<Record<string, string>> = { netG: 'weight', foodKey: 'food', packageKey: 'package', sizeMl: 'size', bestTo: 'best' }
const ANY_ID = '018f0000-0000-7000-8000-000000000000'

/** Jars are numbered as the list goes. */
function* readJars(
  context: Context,
  rows: readonly InventoryRow[],
): Generator<Progress, { jars: NewJar[]; repeated: number; errors: LineError[] }> {
  const { db } = context
  const errors: LineError[] = []
  const jars: NewJar[] = []
  const find = finder(context)
  const same = new Map<string, number>()
  const first = nextJarNumber(db)
  let repeated = 0
  for (const [i, row] of rows.entries()) {
    if (i % 25 === 0) yield { phase: 'checking', done: i, of: rows.length }
    const { line, food: named, at, undated, netG, purpose, place = 'Shelf', name, packageKey, sizeMl, bestTo, price, source } = row
    const food = find(named)
    if (!food) {
      errors.push({
        line,
        field: 'food',
        code: 'unknown-food',
        message: `“${named}” is neither a food nor a bought-in good of the reference. Write a name as the reference has it, or “another spice”.`,
      })
      continue
    }
    if (leakOf(packageKey) === undefined) {
      errors.push({ line, field: 'package', code: 'unknown-lid', message: 'Nobody knows what this lid lets in: choose another.' })
      continue
    }
    const own = food.name.toLowerCase() === named.toLowerCase() ? name : (name ?? (food.key === 'other-spice' ? named : undefined))
    const body = {
      kind: 'stock',
      foodKey: food.key,
      ...(own && { name: own }),
      purpose,
      netG,
      packageKey,
      place,
      ...(sizeMl && { sizeMl }),
      ...(source && { source }),
      ...(price !== undefined && { price }),
      ...(bestTo !== undefined && { bestTo }),
    } as const
    // One door: what the log's own form would refuse comes in by no table either.
    const { error } = kindOf('stock').schema.safeParse({ ...body, jarId: ANY_ID })
    if (error) {
      for (const { path, message } of error.issues)
        errors.push({ line, field: COLUMNS[String(path[0])] ?? String(path[0] ?? 'food'), code: 'not-allowed', message })
      continue
    }
    // Two like jars on one list are two jars; the same list again is the same two.
    const words = JSON.stringify([undated ? 0 : at, body])
    const nth = (same.get(words) ?? 0) + 1
    same.set(words, nth)
    const [jarId, id] = contentIds('jar', words, nth)
    if (findEntry(db, id)) repeated++
    else jars.push({ number: first + jars.length, jarId, id, at, body: { ...body, jarId } })
  }
  return { jars, repeated, errors }
}

/** A food by its key, its name or another of its names, whatever the case. */
function finder({ foods }: Context): (named: string) => Food | undefined {
  const byName = new Map<string, Food>()
  const all = [...foods.goods, ...foods.foods]
  for (const food of all) for (const name of food.otherNames) byName.set(name.toLowerCase(), food)
  for (const food of all) for (const name of [food.key, food.name]) byName.set(name.toLowerCase(), food)
  return named => byName.get(named.trim().toLowerCase())
}
