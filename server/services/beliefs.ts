import { foldBatch } from '#core/batch'
import { wayOf } from '#core/foods'
import type { EntryBody } from '#core/log'
import { startOfDay } from '#core/planning'
import { placeOf, sunDay } from '#core/sun'
import { WAYS, type WayKey } from '#core/ways'
import { entriesOfBatch, findEntry } from '#server/db/entries'
import { findMachine } from '#server/db/settings'
import { householdOf, type Context } from './context'
import { dialBelieved, hoursInMachine, rawWaterBelieved } from './learning'

/** Fields in which an entry keeps what was known or believed when it was written, so that the log says by itself what its windows came from. */
const BELIEFS: Partial<Record<EntryBody['kind'], readonly string[]>> = {
  intake: ['rawWater'],
  load: ['usualHours', 'dial', 'trayAreaM2', 'sun'],
}

type Fields = Record<string, unknown>

/**
 * An entry's body with what the household's own runs and lots say of it by now, where whoever sent it did not say. A correction
 * keeps what was believed at first: what came of it since is no belief.
 */
export function withBeliefs(
  context: Context,
  batchId: string | undefined,
  { at, body, replaces }: { at: number; body: EntryBody; replaces?: string },
): EntryBody {
  const fields = BELIEFS[body.kind]
  if (!fields || !batchId) return body
  const first = replaces === undefined ? undefined : findEntry(context.db, replaces)?.entry.body
  const same =
    first?.kind === body.kind &&
    (body.kind === 'load'
      ? (first as typeof body).machineId === body.machineId
      : body.kind === 'intake' && (first as typeof body).foodKey === body.foodKey)
  const beliefs: Fields = same
    ? { ...first }
    : body.kind === 'intake'
      ? ofIntake(context, body)
      : body.kind === 'load'
        ? ofLoad(context, batchId, at, body)
        : {}
  const given = body as Fields
  const added = fields.flatMap(field => (given[field] === undefined && beliefs[field] !== undefined ? [[field, beliefs[field]]] : []))
  return added.length === 0 ? body : { ...body, ...(Object.fromEntries(added) as object) }
}

/** A body as it was sent: without the beliefs that were added to it. */
export function withoutBeliefs(written: EntryBody, sent: EntryBody): EntryBody {
  const added = (BELIEFS[written.kind] ?? []).filter(field => (sent as Fields)[field] === undefined)
  return Object.fromEntries(Object.entries(written).filter(([field]) => !added.includes(field))) as EntryBody
}

function ofIntake(context: Context, { foodKey, cardKey, cultivar, source, fromJars }: Extract<EntryBody, { kind: 'intake' }>): Fields {
  const food = fromJars ? undefined : context.foods.find(foodKey)
  return food ? { rawWater: rawWaterBelieved(context, food, { card: cardKey, cultivar, source }) } : {}
}

/** A load that dries again, or takes a pass only, has a share of the hours: what whole runs teach does not fit it. */
function ofLoad(context: Context, batchId: string, at: number, { machineId, way }: Extract<EntryBody, { kind: 'load' }>): Fields {
  const state = foldBatch(entriesOfBatch(context.db, batchId), context.foods.find)
  if (!state) return {}
  const machine = findMachine(context.db, machineId)
  const known = {
    dial: dialBelieved(context, machineId),
    trayAreaM2: machine?.trayAreaM2,
    sun: machine && sunFor(context, machine.kind, at),
  }
  if (state.run || wayOf(state.card, way).partOnly) return known
  const { low, high, runs, by } = hoursInMachine(context, machineId, state)
  const tenth = (value: number) => Math.round(value * 10) / 10
  return { ...known, usualHours: by === 'card' ? undefined : { low: tenth(low), high: tenth(high), runs } }
}

/** The sun's hours in the season of an instant, where it dries by them. */
function sunFor(context: Context, kind: WayKey, at: number): Fields['sun'] {
  const household = householdOf(context)
  return WAYS[kind].outdoors ? sunDay(startOfDay(at, household.timeZone), placeOf(household)).dries : undefined
}
