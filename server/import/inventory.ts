import { leakOf } from '#core/keeping'
import type { Entry } from '#core/batch'
import type { Food } from '#core/foods'
import type { InventoryRow, LineError } from '#core/tables'
import { findEntry, insertEntry } from '#server/db/entries'
import { addJar } from '#server/db/jars'
import { householdOf, type Context } from '#server/services/context'
import { projectNewJar } from '#server/services/jars'
import type { Progress } from './apart'
import { contentId } from './contentId'
import type { Taken } from './taken'

/** Puts on the shelf what a list says stands there, each line a jar of its own. */
export function* takeInInventory(context: Context, rows: readonly InventoryRow[]): Generator<Progress, Taken> {
  const { db } = context
  const errors: LineError[] = []
  const find = finder(context)
  const same = new Map<string, number>()
  const celsius = householdOf(context).pantryC
  let [kept, repeated] = [0, 0]
  for (const [i, row] of rows.entries()) {
    if (i % 25 === 0) yield { phase: 'writing', done: i, of: rows.length }
    const { line, food: named, at, undated, netG, purpose, place = 'Shelf', name, packageKey, sizeMl, bestTo, price, source } = row
    const food = find(named)
    if (!food) {
      errors.push({ line, field: 'food', message: `“${named}” is neither a food nor a bought-in good of the reference. Write a name as the reference has it, or “another spice”.` })
      continue
    }
    if (leakOf(packageKey) === undefined) {
      errors.push({ line, field: 'package', message: 'Nobody knows what this lid lets in: choose another.' })
      continue
    }
    const own = food.name.toLowerCase() === named.toLowerCase() ? name : name ?? (food.key === 'other-spice' ? named : undefined)
    const body = { kind: 'stock', foodKey: food.key, ...(own && { name: own }), purpose, netG, packageKey, place, ...(sizeMl && { sizeMl }), ...(source && { source }), ...(price !== undefined && { price }), ...(bestTo !== undefined && { bestTo }) } as const
    // Two like jars on one list are two jars; the same list again is the same two.
    const words = JSON.stringify([undated ? 0 : at, body])
    const nth = (same.get(words) ?? 0) + 1
    same.set(words, nth)
    const jarId = contentId('jar', words, nth)
    const id = contentId('stock', jarId)
    if (findEntry(db, id)) {
      repeated++
      continue
    }
    const entry: Entry = { id, seq: Number.MAX_SAFE_INTEGER, at, recordedAt: context.now(), body: { ...body, jarId } }
    const number = addJar(db, jarId)
    const seq = insertEntry(db, { jarId }, entry, [jarId])
    projectNewJar(context, { ...entry, seq }, { celsius, number })
    kept++
  }
  yield { phase: 'writing', done: rows.length, of: rows.length }
  return { kept, repeated, errors }
}

/** A food by its key, its name or another of its names, whatever the case. */
export function finder({ foods }: Context): (named: string) => Food | undefined {
  const byName = new Map<string, Food>()
  const all = [...foods.goods, ...foods.foods]
  for (const food of all) for (const name of food.otherNames) byName.set(name.toLowerCase(), food)
  for (const food of all) for (const name of [food.key, food.name]) byName.set(name.toLowerCase(), food)
  return named => byName.get(named.trim().toLowerCase())
}
