import * as z from 'zod'
import { HOLD_PLACES, type EntryBody } from '#core/batch'
import { FEEL_FORMS, PREP_STEPS } from '#core/foods'
import { MACHINE_KINDS } from '#core/machines'
import { id, instant, purpose, text, trayPosition, weightG, weightOrNothingG } from './parts'

const trayWeight = z.strictObject({ position: trayPosition, weightG })
const celsius = z.number({ error: 'Give a temperature in °C, as a number.' }).min(0, 'Below 0 °C nothing dries here.').max(250, 'Above 250 °C is not drying.')
const thickness = z.number({ error: 'Give a thickness in mm, as a number.' }).positive('The thickness must be above zero.').max(200, 'At most 200 mm.')

const added = z.strictObject({
  solidsG: weightOrNothingG.optional(), waterG: weightOrNothingG.optional(), saltG: weightOrNothingG.optional(),
  sugarG: weightOrNothingG.optional(), oilG: weightOrNothingG.optional(),
})

const feelCheck = z.strictObject({
  form: z.enum(FEEL_FORMS, { error: 'Choose what lies on the tray.' }),
  answers: z.record(z.string().max(20), z.string().max(20)).refine(answers => Object.keys(answers).length > 0, 'Answer at least one question.'),
  cooled: z.boolean({ error: 'Say whether the pieces were cooled.' }),
  places: z.number({ error: 'Say from how many trays or places.' }).int().min(1, 'At least one place.').max(40, 'At most 40 places.'),
})

/** Heat and air belong to a run, and so to every batch in the machine. */
export const heatBody = z.strictObject({ kind: z.literal('heat'), runId: id, setC: celsius.nullable() })

const roomCelsius = z.number({ error: 'Give a room temperature in °C, as a number.' }).min(-20, 'Room air is at −20 °C or above.').max(60, 'Room air is at 60 °C or below.')
const share = (what: string) => z.number({ error: `Give ${what} as a share from 0 to 1.` }).min(0.01, `At least 1 % of ${what}.`).max(1, `At most 100 % of ${what}.`)

export const airBody = z.strictObject({ kind: z.literal('air'), runId: id, roomC: roomCelsius.optional(), roomHumidity: share('humidity').optional(), chamberC: celsius.optional() })
  .refine(body => body.chamberC !== undefined || (body.roomC !== undefined && body.roomHumidity !== undefined), { path: ['roomHumidity'], message: 'Give the room’s temperature and humidity together, or what was measured in the machine.' })

const trayMove = z.strictObject({ from: trayPosition, to: trayPosition, turned: z.boolean().optional(), flipped: z.boolean().optional() })
  .refine(move => move.from !== move.to || move.turned || move.flipped, { path: ['to'], message: 'This tray stays as it is: give it another place, turn it, or turn its food over.' })
export const moveBody = z.strictObject({ kind: z.literal('move'), runId: id, trays: z.array(trayMove).min(1, 'Name at least one tray.').max(40, 'At most 40 trays.') })
  .refine(body => new Set(body.trays.map(tray => tray.from)).size === body.trays.length, { path: ['trays'], message: 'A tray is named twice.' })

export const tickBody = z.strictObject({ kind: z.literal('tick'), runId: id, list: z.enum(['start', 'end'], { error: 'Say which list.' }), item: text(40) })

export const outlookBody = z.strictObject({
  kind: z.literal('outlook'), runId: id, duskMinute: z.number({ error: 'Give the time of dusk.' }).int().min(0).max(1439, 'A day has 1439 minutes after its first.'), rainAt: instant.optional(),
})

const hours = z.number({ error: 'Give hours, as a number.' }).positive('Hours are above zero.').max(1000, 'At most 1000 hours.')
const usualHours = z.strictObject({ low: hours, high: hours, runs: z.number().int().min(0).max(10_000) })
  .refine(usual => usual.high >= usual.low, { path: ['high'], message: 'The longer hours must not be below the shorter.' })

const calibration = z.strictObject({ offset: z.number().min(-0.5).max(0.5), gain: z.number().min(0.5).max(2), sd: z.number().min(0).max(0.2) })

/** The intake's facts; the first entry of every batch. */
export const intakeBody = z.strictObject({
  kind: z.literal('intake'), foodKey: text(40), cultivar: text(80).optional(), source: text(120), weightG,
  condition: text(120).optional(), purpose, cardKey: text(80),
  plant: text(80).optional(), count: z.number({ error: 'Give a count, as a number.' }).int('Whole pieces.').min(1, 'At least one.').max(100_000, 'At most 100 000.').optional(),
  price: z.number({ error: 'Give the price as a number.' }).min(0, 'A price is not negative.').max(1_000_000, 'Check the price.').optional(), from: id.optional(),
})

/** What may be logged on a batch after its intake. */
export const batchEntryBody = z.discriminatedUnion('kind', [
  intakeBody,
  z.strictObject({
    kind: z.literal('prep'), step: z.enum(PREP_STEPS, { error: 'Choose a step of preparing.' }),
    effect: z.enum(['none', 'waste', 'water', 'added'], { error: 'Say what left or came in.' }),
    weightG: weightG.optional(), added: added.optional(), cutName: text(60).optional(), thicknessMm: thickness.optional(), by: text(40).optional(), note: text(500).optional(),
    coreC: z.number({ error: 'Give what the thermometer showed, in °C.' }).min(0, 'At least 0 °C.').max(120, 'At most 120 °C inside.').optional(),
    minutes: z.number({ error: 'Give minutes, as a number.' }).min(0, 'Minutes are not negative.').max(10_000, 'That is over a week.').optional(), school: text(60).optional(),
  }),
  z.strictObject({ kind: z.literal('split'), weightG, to: id, what: text(120).optional() }),
  z.strictObject({ kind: z.literal('hold'), place: z.enum(HOLD_PLACES, { error: 'Say where it is kept.' }).nullable(), roomC: roomCelsius.optional() }),
  z.strictObject({ kind: z.literal('caution'), rule: text(40) }),
  z.strictObject({
    kind: z.literal('load'), runId: id, machineId: id, positions: z.array(trayPosition).min(1, 'Choose at least one tray.').max(40, 'At most 40 trays.'),
    trays: z.array(trayWeight).max(40).optional(), totalG: weightG, usualHours: usualHours.optional(),
    way: z.enum(MACHINE_KINDS, { error: 'Choose a way of drying.' }).optional(), frozen: z.array(trayPosition).max(40).optional(),
    portions: z.strictObject({ count: z.number({ error: 'Give the number of sheets.' }).int('Whole sheets.').min(1, 'At least one.').max(200, 'At most 200.'), ml: z.number({ error: 'Give the volume of a sheet in mL.' }).positive('Above zero.').max(5000, 'At most 5 L.') }).optional(),
  }),
  z.strictObject({ kind: z.literal('weigh'), trays: z.array(trayWeight).min(1).max(40).optional(), totalG: weightG.optional() })
    .refine(body => (body.trays === undefined) !== (body.totalG === undefined), { path: ['totalG'], message: 'Give the whole load or single trays, not both and not neither.' }),
  z.strictObject({ kind: z.literal('feel'), check: feelCheck }),
  z.strictObject({ kind: z.literal('unload'), weightG: weightG.optional(), positions: z.array(trayPosition).min(1, 'Choose at least one tray.').max(40, 'At most 40 trays.').optional() }),
  z.strictObject({ kind: z.literal('rest'), container: text(80).optional() }),
  z.strictObject({ kind: z.literal('look'), saw: z.enum(['dry', 'moisture', 'clumps', 'mould'], { error: 'Say what was seen.' }), note: text(500).optional() }),
  z.strictObject({
    kind: z.literal('jarAir'), shown: share('humidity'), celsius: roomCelsius.optional(), calibration,
    closedHours: z.number({ error: 'Say how many hours the jar was closed.' }).min(0, 'Hours are not negative.').max(2000, 'That is over twelve weeks.'),
  }),
  z.strictObject({ kind: z.literal('restEnd'), weightG: weightG.optional() }),
  z.strictObject({ kind: z.literal('grind'), dryInG: weightG, powderOutG: weightG, note: text(500).optional() }),
  z.strictObject({
    kind: z.literal('powderDry'), how: z.enum(['oven-off', 'low-oven', 'dryer'], { error: 'Say how it was dried.' }),
    minutes: z.number({ error: 'Give minutes, as a number.' }).positive('Minutes are above zero.').max(1440, 'At most a day.'), beforeG: weightG.optional(), afterG: weightG.optional(),
  }),
  z.strictObject({
    kind: z.literal('pack'), jarId: id, netG: weightG, packageKey: z.enum(['screw-jar', 'vacuum-jar', 'plastic-lid', 'bag', 'foil-bag'], { error: 'Choose what it is packed in.' }),
    place: text(60), sizeMl: z.number().int().min(10, 'At least 10 mL.').max(10_000, 'At most 10 L.').optional(),
    storageC: z.number().min(-30, 'At least −30 °C.').max(45, 'At most 45 °C.').optional(), inOil: z.boolean().optional(),
  }),
  z.strictObject({ kind: z.literal('finish'), reason: text(200).optional() }),
  z.strictObject({ kind: z.literal('note'), text: text(2000) }),
  z.strictObject({ kind: z.literal('take'), jarId: id, weightG, use: text(120).optional() }),
  z.strictObject({ kind: z.literal('moveJar'), jarId: id, place: text(60) }),
  z.strictObject({ kind: z.literal('discard'), jarId: id, cause: text(200) }),
  z.strictObject({ kind: z.literal('smell'), jarId: id, smell: z.enum(['strong', 'weaker', 'crushed', 'none'], { error: 'Say how it smells.' }) }),
  z.strictObject({ kind: z.literal('void'), target: id, reason: text(200).optional() }),
])

const envelope = { id, at: instant, replaces: id.optional() }

export const newEntry = z.strictObject({ ...envelope, body: batchEntryBody })
export type NewEntry = z.infer<typeof newEntry>

export const newRunEntry = z.strictObject({ ...envelope, body: z.discriminatedUnion('kind', [heatBody, airBody, moveBody, tickBody, outlookBody, z.strictObject({ kind: z.literal('void'), target: id, reason: text(200).optional() })]) })
export type NewRunEntry = z.infer<typeof newRunEntry>

export const newBatch = z.strictObject({ id, entry: z.strictObject({ id, at: instant, body: intakeBody }) })
export type NewBatch = z.infer<typeof newBatch>

// The contract and the core must mean the same: this line fails to compile when they drift apart.
type Same<T extends EntryBody> = T
export type ContractBody = Same<z.infer<typeof batchEntryBody> | z.infer<typeof heatBody> | z.infer<typeof airBody> | z.infer<typeof moveBody> | z.infer<typeof tickBody> | z.infer<typeof outlookBody>>
