import * as z from 'zod'
import { stopsAtLoading } from '../../safety'
import { WAY_KEYS } from '../../ways'
import type { BatchScene, EntryKindOf } from '../define'
import { id, instant, trayPosition, trayPositions, trayWeight, weightG } from '../fields'
import { SWELLS_AT_MOST } from '../../mass'
import type { BatchState } from '../state'
import { SCALE_SHARE } from '../weights'
import { partedG } from './split'

const hours = z.number({ error: 'Give hours, as a number.' }).positive('Hours are above zero.').max(1000, 'At most 1000 hours.')
const usualHours = z
  .strictObject({ low: hours, high: hours, runs: z.number().int().min(0).max(10_000) })
  .refine(usual => usual.high >= usual.low, { path: ['high'], message: 'The longer hours must not be below the shorter.' })
/** What was believed of the hours when a load went in: from the card, and from so many own runs. */
export type UsualHours = z.infer<typeof usualHours>

/**
 * What was believed of its dial when a load went in: how far the machine is from what is set, °C, with its doubt, and how much of that
 * doubt the hours above do not know yet (1 where no run of the machine had taught them).
 */
const dial = z.strictObject({
  offC: z.number().min(-50).max(50),
  sdC: z.number().min(0).max(50),
  open: z.number().min(0).max(1),
})

const schema = z.strictObject({
  kind: z.literal('load'),
  runId: id,
  machineId: id,
  positions: trayPositions,
  trays: z.array(trayWeight).max(40).optional(),
  totalG: weightG,
  /** Of one tray, m²: by it what lies there is a layer or a heap; taken for a layer where it was not written down. */
  trayAreaM2: z.number().positive('Above zero.').max(10, 'At most 10 m².').optional(),
  /** Outdoors: from when to when the sun dries on a day of its season, as instants of some day. */
  sun: z.strictObject({ from: instant, to: instant }).optional(),
  /** Nobody weighed it: the weight is what was expected, give or take so much, g. */
  weightSdG: weightG.optional(),
  usualHours: usualHours.optional(),
  dial: dial.optional(),
  /** Less lies on the trays than was expected, and it is all there was: nothing of it waits elsewhere. */
  whole: z.boolean().optional(),
  /** The way of drying, where it is not the card's first. */
  way: z.enum(WAY_KEYS, { error: 'Choose a way of drying.' }).optional(),
  /** Trays that went in frozen solid. */
  frozen: z.array(trayPosition).max(40).optional(),
  /** Sheets spread as measured amounts. */
  portions: z
    .strictObject({
      count: z.number({ error: 'Give the number of sheets.' }).int('Whole sheets.').min(1, 'At least one.').max(200, 'At most 200.'),
      ml: z.number({ error: 'Give the volume of a sheet in mL.' }).positive('Above zero.').max(5000, 'At most 5 L.'),
    })
    .optional(),
})
type Load = z.infer<typeof schema>

/** Onto the trays of a machine, or out into sun and air. */
export const load: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'loading', what: 'the loading' },
  tells: ['machine', 'traces'],
  effect: (draft, entry) => void draft.loads.push(entry),
  check: (body, scene) => {
    const { state, inMachine, machine, say } = scene
    if (inMachine) return say('kind', 'in-a-machine', 'The batch is in a machine already: take it out first.')
    if (state.stage === 'shelf') return say('kind', 'on-the-shelf', 'The batch is finished.')
    if (state.jars.length > 0)
      return say('kind', 'packed-already', 'Jars of this batch are packed already: take what is left in as a batch of its own.')
    if (!machine) return say('machineId', 'unknown-machine', 'There is no such machine. Choose one from the set-up.')
    const usual = state.card.ways[0]!.way
    if (body.way === undefined ? machine.kind !== usual : body.way !== machine.kind)
      say('way', 'other-way', '{machine} is another way of drying: give “{way}” as its way.', { machine: machine.name, way: machine.kind })
    const done = state.prep.map(step => step.body)
    for (const stop of stopsAtLoading(state.food, state.card, machine.kind, done, state.choices))
      say('machineId', `stop-${stop.rule.key}`, stop.message)
    checkTrays(body, scene)
    checkIce(body, scene)
    const most = state.grinds.length > 0 ? thereG(state) : state.run ? state.run.loadedG : mostAfterPrep(state)
    if (body.totalG > most * (1 + SCALE_SHARE))
      say(
        'totalG',
        'more-than-there-can-be',
        '{isG} on the trays is more than the {mostG} there can be. Was the tray on the scale, or is the intake’s weight wrong?',
        { isG: body.totalG, mostG: most },
      )
  },
}

function checkTrays(body: Load, { machine, say }: BatchScene): void {
  const { name, trays, taken } = machine!
  const strange = (body.frozen ?? []).filter(position => !body.positions.includes(position))
  if (strange.length > 0) say('frozen', 'tray-not-loaded', 'Tray {trays} is not loaded.', { trays: strange.join(', ') })
  const unique = new Set(body.positions)
  if (unique.size < body.positions.length) say('positions', 'tray-twice', 'A tray position is named twice.')
  const outside = body.positions.filter(position => position < 1 || position > trays)
  if (outside.length > 0)
    say('positions', 'no-such-tray', '{machine} has trays 1 to {trays}; there is no {outside}.', {
      machine: name,
      trays,
      outside: outside.join(', '),
    })
  const others = body.positions.filter(position => taken.includes(position))
  if (others.length > 0) say('positions', 'tray-taken', 'Taken by another batch: {trays}. Choose free trays.', { trays: others.join(', ') })
  if (!body.trays) return
  const sumG = body.trays.reduce((total, tray) => total + tray.weightG, 0)
  if (body.trays.length !== body.positions.length || body.trays.some(tray => !unique.has(tray.position)))
    say('trays', 'trays-incomplete', 'Give a weight for each tray, or the total only.')
  else if (Math.abs(sumG - body.totalG) > 1)
    say('totalG', 'trays-sum-otherwise', 'The trays add up to {sumG}, not {totalG}.', { sumG, totalG: body.totalG })
}

/** Water is known to this share at best: a little over may still fit. */
const ICE_DOUBT = 0.05

/** What the coil cannot hold does not leave: it boils, or thaws. */
function checkIce({ totalG }: Load, { state, machine, say }: BatchScene): void {
  const { iceG, iceTakenG = 0, name } = machine!
  const iceIs = iceTakenG + totalG * state.balance.moisture.p50
  if (iceG === undefined || iceIs <= iceG * (1 + ICE_DOUBT)) return
  say(
    'totalG',
    'more-ice-than-it-holds',
    iceTakenG > 0
      ? '{iceIsG} of ice with what stands in it is more than the {iceG} that {machine} holds: load {mostG} of it at most, the rest in a load of its own.'
      : '{iceIsG} of ice is more than the {iceG} that {machine} holds: load {mostG} of it at most, the rest in a load of its own.',
    {
      machine: name,
      iceIsG: iceIs,
      iceG,
      mostG: Math.max(0, Math.floor((iceG - iceTakenG) / state.balance.moisture.p50)),
    },
  )
}

/** What came out and was ground since, with the pieces that were not: all of it may go back. */
const thereG = ({ left: { pieces = 0, flakes = 0, powder = 0 } }: BatchState) => pieces + flakes + powder

/** What may lie on the trays at most: the raw weight, less what was weighed off, plus what came in. */
function mostAfterPrep(state: BatchState): number {
  // Dry beans and rice come out of the pot far heavier.
  const swells = state.food.uncooked !== undefined && state.food.uncooked.value.mean < state.food.rawMoisture.value.mean
  const most = state.prep.reduce(
    (left, { body }) => {
      if (body.effect === 'added') return left + Object.values(body.added ?? {}).reduce((sum, part) => sum + (part ?? 0), 0)
      return body.effect === 'none' ? left : left - (body.weightG ?? 0)
    },
    state.intake.body.weightG - partedG(state.splits),
  )
  return swells ? most * SWELLS_AT_MOST : most
}
