import * as z from 'zod'
import { HOLD_PLACES, LOOK_SIGHTS, type EntryBody } from '#core/batch'
import { FEEL_FORMS, PREP_STEPS } from '#core/foods'
import { MACHINE_KINDS } from '#core/machines'
import { id, instant, purpose, text, trayPosition, weightG, weightOrNothingG } from './parts'

const trayWeight = z.strictObject({ position: trayPosition, weightG })
/** So many grams out of a jar. */
const jarDraw = z.strictObject({ jarId: id, weightG })
const celsius = z
  .number({ error: 'Give a temperature in °C, as a number.' })
  .min(0, 'Below 0 °C nothing dries here.')
  .max(250, 'Above 250 °C is not drying.')
const thickness = z
  .number({ error: 'Give a thickness in mm, as a number.' })
  .positive('The thickness must be above zero.')
  .max(200, 'At most 200 mm.')

const added = z.strictObject({
  solidsG: weightOrNothingG.optional(),
  waterG: weightOrNothingG.optional(),
  saltG: weightOrNothingG.optional(),
  sugarG: weightOrNothingG.optional(),
  oilG: weightOrNothingG.optional(),
})

const feelCheck = z.strictObject({
  form: z.enum(FEEL_FORMS, { error: 'Choose what lies on the tray.' }),
  answers: z
    .record(z.string().max(20), z.string().max(20))
    .refine(answers => Object.keys(answers).length > 0, 'Answer at least one question.'),
  cooled: z.boolean({ error: 'Say whether the pieces were cooled.' }),
  places: z.number({ error: 'Say from how many trays or places.' }).int().min(1, 'At least one place.').max(40, 'At most 40 places.'),
})

/** Heat and air belong to a run, and so to every batch in the machine. */
export const heatBody = z.strictObject({ kind: z.literal('heat'), runId: id, setC: celsius.nullable() })

const roomCelsius = z
  .number({ error: 'Give a room temperature in °C, as a number.' })
  .min(-20, 'Room air is at −20 °C or above.')
  .max(60, 'Room air is at 60 °C or below.')
const share = (what: string) =>
  z
    .number({ error: `Give ${what} as a share from 0 to 1.` })
    .min(0.01, `At least 1 % of ${what}.`)
    .max(1, `At most 100 % of ${what}.`)

export const airBody = z
  .strictObject({
    kind: z.literal('air'),
    runId: id,
    roomC: roomCelsius.optional(),
    roomHumidity: share('humidity').optional(),
    chamberC: celsius.optional(),
  })
  .refine(body => body.chamberC !== undefined || (body.roomC !== undefined && body.roomHumidity !== undefined), {
    path: ['roomHumidity'],
    message: 'Give the room’s temperature and humidity together, or what was measured in the machine.',
  })

const trayMove = z
  .strictObject({ from: trayPosition, to: trayPosition, turned: z.boolean().optional(), flipped: z.boolean().optional() })
  .refine(move => move.from !== move.to || move.turned || move.flipped, {
    path: ['to'],
    message: 'This tray stays as it is: give it another place, turn it, or turn its food over.',
  })
export const moveBody = z
  .strictObject({
    kind: z.literal('move'),
    runId: id,
    trays: z.array(trayMove).min(1, 'Name at least one tray.').max(40, 'At most 40 trays.'),
  })
  .refine(body => new Set(body.trays.map(tray => tray.from)).size === body.trays.length, {
    path: ['trays'],
    message: 'A tray is named twice.',
  })

export const tickBody = z.strictObject({
  kind: z.literal('tick'),
  runId: id,
  list: z.enum(['start', 'end'], { error: 'Say which list.' }),
  item: text(40),
})

export const outlookBody = z.strictObject({
  kind: z.literal('outlook'),
  runId: id,
  duskMinute: z.number({ error: 'Give the time of dusk.' }).int().min(0).max(1439, 'A day has 1439 minutes after its first.'),
  rainAt: instant.optional(),
})

const hours = z.number({ error: 'Give hours, as a number.' }).positive('Hours are above zero.').max(1000, 'At most 1000 hours.')
const usualHours = z
  .strictObject({ low: hours, high: hours, runs: z.number().int().min(0).max(10_000) })
  .refine(usual => usual.high >= usual.low, { path: ['high'], message: 'The longer hours must not be below the shorter.' })

const calibration = z.strictObject({
  offset: z.number().min(-0.5).max(0.5),
  gain: z.number().min(0.5).max(2),
  sd: z.number().min(0).max(0.2),
})

/** The intake's facts; the first entry of every batch. */
export const intakeBody = z.strictObject({
  kind: z.literal('intake'),
  foodKey: text(40),
  cultivar: text(80).optional(),
  source: text(120),
  weightG,
  condition: text(120).optional(),
  purpose,
  cardKey: text(80),
  plant: text(80).optional(),
  count: z
    .number({ error: 'Give a count, as a number.' })
    .int('Whole pieces.')
    .min(1, 'At least one.')
    .max(100_000, 'At most 100 000.')
    .optional(),
  price: z
    .number({ error: 'Give the price as a number.' })
    .min(0, 'A price is not negative.')
    .max(1_000_000, 'Check the price.')
    .optional(),
  from: id.optional(),
  fromJars: z.array(jarDraw).min(1, 'Choose a jar.').max(40, 'At most 40 jars.').optional(),
  fromForm: purpose.optional(),
})

const jarNumber = z
  .number({ error: 'Say which jar, by its number.' })
  .int('Whole numbers.')
  .min(1, 'Jars count from 1.')
  .max(20, 'At most 20 jars.')
const jarMl = z.number({ error: 'Give the jar’s volume in mL.' }).int('Whole mL.').min(10, 'At least 10 mL.').max(10_000, 'At most 10 L.')
const storage = z.number({ error: 'Give the temperature of its place, in °C.' }).min(-30, 'At least −30 °C.').max(45, 'At most 45 °C.')

/** What a jar is, and where it stands. */
const packing = {
  packageKey: z.enum(['screw-jar', 'vacuum-jar', 'plastic-lid', 'bag', 'foil-bag', 'other'], { error: 'Choose what it is packed in.' }),
  place: text(60),
  sizeMl: jarMl.optional(),
  storageC: storage.optional(),
  leakGDayKPa: z
    .number({ error: 'Give what the lid lets in as a number.' })
    .positive('Above zero.')
    .max(10, 'That lid is open.')
    .optional(),
}

const heatUnits = z
  .number({ error: 'Give Scoville units, as a number.' })
  .min(0, 'Heat is not negative.')
  .max(5_000_000, 'Nothing is hotter than some three million.')

const mark = (what: string) =>
  z
    .number({ error: `Give ${what} from 1 to 5.` })
    .int('Whole points.')
    .min(1, 'At least 1.')
    .max(5, 'At most 5.')
const review = z.strictObject({
  kind: z.literal('review'),
  jarId: id.optional(),
  again: z.enum(['yes', 'changed', 'no'], { error: 'Say whether it is worth repeating.' }),
  colour: mark('the colour').optional(),
  taste: mark('the taste').optional(),
  text: text(500).optional(),
})

/** What may be logged on a jar. */
export const jarEntryBody = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('take'), jarId: id, weightG, use: text(120).optional() }),
  z.strictObject({ kind: z.literal('moveJar'), jarId: id, place: text(60), storageC: storage.optional() }),
  z.strictObject({ kind: z.literal('discard'), jarId: id, cause: text(200) }),
  z.strictObject({
    kind: z.literal('smell'),
    jarId: id,
    smell: z.enum(['strong', 'weaker', 'crushed', 'none'], { error: 'Say how it smells.' }),
  }),
  z.strictObject({
    kind: z.literal('lookJar'),
    jarId: id,
    saw: z.enum(['loose', 'packed', 'clumps', 'moisture', 'mould', 'insects'], { error: 'Say what was seen.' }),
    note: text(500).optional(),
  }),
  z.strictObject({
    kind: z.literal('measure'),
    jarId: id,
    ml: z.number({ error: 'Give the volume in mL.' }).positive('Above zero.').max(2000, 'At most 2 L.'),
    weightG,
  }),
  z.strictObject({
    kind: z.literal('fill'),
    jarId: id,
    from: z
      .array(z.strictObject({ jarId: id, weightG, toastedG: weightG.optional() }))
      .min(1, 'Choose a jar to fill from.')
      .max(40, 'At most 40 jars.'),
    ...packing,
    blend: z
      .strictObject({
        name: text(80),
        recipeId: id.optional(),
        purpose: purpose.optional(),
        sifted: z
          .strictObject({
            openingUm: z.number({ error: 'Give the sieve’s opening in µm.' }).min(20, 'At least 20 µm.').max(10_000, 'At most 10 mm.'),
            overG: weightOrNothingG,
          })
          .optional(),
      })
      .optional(),
  }),
  z.strictObject({
    kind: z.literal('stock'),
    jarId: id,
    foodKey: text(60),
    name: text(80).optional(),
    purpose,
    netG: weightG,
    ...packing,
    source: text(120).optional(),
    price: z
      .number({ error: 'Give the price as a number.' })
      .min(0, 'A price is not negative.')
      .max(1_000_000, 'Check the price.')
      .optional(),
    moisture: z
      .number({ error: 'Give the water as a share from 0 to 1.' })
      .min(0.001, 'At least 0.1 % water.')
      .max(0.3, 'At most 30 % water: that is not dry.')
      .optional(),
    saltShare: z
      .number({ error: 'Give the salt as a share from 0 to 1.' })
      .min(0, 'Salt is not negative.')
      .max(1, 'At most all of it.')
      .optional(),
    heat: z
      .strictObject({ low: heatUnits, high: heatUnits })
      .refine(heat => heat.high >= heat.low, { path: ['high'], message: 'The hotter figure must not be below the milder.' })
      .optional(),
    allergens: z.array(text(40)).max(20, 'At most 20 allergens.').optional(),
    bestTo: instant.optional(),
  }),
  z.strictObject({ kind: z.literal('pour'), jarId: id, from: jarDraw }),
  review,
  z.strictObject({ kind: z.literal('void'), target: id, reason: text(200).optional() }),
])

/** What may be logged on a batch after its intake. */
export const batchEntryBody = z.discriminatedUnion('kind', [
  intakeBody,
  z.strictObject({
    kind: z.literal('prep'),
    step: z.enum(PREP_STEPS, { error: 'Choose a step of preparing.' }),
    effect: z.enum(['none', 'waste', 'water', 'added'], { error: 'Say what left or came in.' }),
    weightG: weightG.optional(),
    added: added.optional(),
    cutName: text(60).optional(),
    thicknessMm: thickness.optional(),
    by: text(40).optional(),
    note: text(500).optional(),
    coreC: z
      .number({ error: 'Give what the thermometer showed, in °C.' })
      .min(0, 'At least 0 °C.')
      .max(120, 'At most 120 °C inside.')
      .optional(),
    minutes: z
      .number({ error: 'Give minutes, as a number.' })
      .min(0, 'Minutes are not negative.')
      .max(10_000, 'That is over a week.')
      .optional(),
    school: text(60).optional(),
  }),
  z.strictObject({ kind: z.literal('split'), weightG, to: id, what: text(120).optional() }),
  z.strictObject({
    kind: z.literal('hold'),
    place: z.enum(HOLD_PLACES, { error: 'Say where it is kept.' }).nullable(),
    roomC: roomCelsius.optional(),
  }),
  z.strictObject({ kind: z.literal('caution'), rule: text(40) }),
  z.strictObject({
    kind: z.literal('load'),
    runId: id,
    machineId: id,
    positions: z.array(trayPosition).min(1, 'Choose at least one tray.').max(40, 'At most 40 trays.'),
    trays: z.array(trayWeight).max(40).optional(),
    totalG: weightG,
    usualHours: usualHours.optional(),
    way: z.enum(MACHINE_KINDS, { error: 'Choose a way of drying.' }).optional(),
    frozen: z.array(trayPosition).max(40).optional(),
    portions: z
      .strictObject({
        count: z.number({ error: 'Give the number of sheets.' }).int('Whole sheets.').min(1, 'At least one.').max(200, 'At most 200.'),
        ml: z.number({ error: 'Give the volume of a sheet in mL.' }).positive('Above zero.').max(5000, 'At most 5 L.'),
      })
      .optional(),
  }),
  z
    .strictObject({ kind: z.literal('weigh'), trays: z.array(trayWeight).min(1).max(40).optional(), totalG: weightG.optional() })
    .refine(body => (body.trays === undefined) !== (body.totalG === undefined), {
      path: ['totalG'],
      message: 'Give the whole load or single trays, not both and not neither.',
    }),
  z.strictObject({ kind: z.literal('feel'), check: feelCheck }),
  z.strictObject({
    kind: z.literal('unload'),
    weightG: weightG.optional(),
    positions: z.array(trayPosition).min(1, 'Choose at least one tray.').max(40, 'At most 40 trays.').optional(),
  }),
  z.strictObject({
    kind: z.literal('rest'),
    container: text(80).optional(),
    jars: z
      .array(z.strictObject({ name: text(80), sizeMl: jarMl.optional(), weightG: weightG.optional() }))
      .min(1, 'At least one jar.')
      .max(20, 'At most 20 jars.')
      .optional(),
  }),
  z.strictObject({
    kind: z.literal('look'),
    saw: z.enum(LOOK_SIGHTS, { error: 'Say what was seen.' }),
    jar: jarNumber.optional(),
    note: text(500).optional(),
  }),
  z.strictObject({ kind: z.literal('restOut'), jar: jarNumber, weightG, cause: text(200) }),
  z.strictObject({
    kind: z.literal('jarAir'),
    shown: share('humidity'),
    celsius: roomCelsius.optional(),
    calibration,
    closedHours: z
      .number({ error: 'Say how many hours the jar was closed.' })
      .min(0, 'Hours are not negative.')
      .max(2000, 'That is over twelve weeks.'),
  }),
  z.strictObject({ kind: z.literal('restEnd'), weightG: weightG.optional() }),
  z.strictObject({
    kind: z.literal('grind'),
    dryInG: weightG,
    powderOutG: weightG,
    grinderId: id.optional(),
    warm: z.boolean().optional(),
    note: text(500).optional(),
    rounds: z
      .array(z.strictObject({ inG: weightG, outG: weightOrNothingG.optional() }))
      .min(1, 'At least one round.')
      .max(100, 'At most 100 rounds.')
      .optional(),
    seed: jarDraw.optional(),
    passes: z
      .array(
        z.strictObject({
          openingUm: z.number({ error: 'Give the sieve’s opening in µm.' }).min(20, 'At least 20 µm.').max(10_000, 'At most 10 mm.'),
          throughG: weightOrNothingG,
          overG: weightOrNothingG,
          back: z.boolean().optional(),
        }),
      )
      .max(40, 'At most 40 passes.')
      .optional(),
    lost: z
      .strictObject({
        dustG: weightOrNothingG.optional(),
        filmG: weightOrNothingG.optional(),
        rejectsG: weightOrNothingG.optional(),
        cleaningG: weightOrNothingG.optional(),
      })
      .optional(),
  }),
  z.strictObject({
    kind: z.literal('powderDry'),
    how: z.enum(['oven-off', 'low-oven', 'dryer'], { error: 'Say how it was dried.' }),
    minutes: z.number({ error: 'Give minutes, as a number.' }).positive('Minutes are above zero.').max(1440, 'At most a day.'),
    beforeG: weightG.optional(),
    afterG: weightG.optional(),
  }),
  z.strictObject({
    kind: z.literal('pack'),
    jarId: id,
    netG: weightG,
    ...packing,
    inOil: z.boolean().optional(),
    topUp: z.boolean().optional(),
    moisture: z
      .number({ error: 'Give the water as a share from 0 to 1.' })
      .min(0.001, 'At least 0.1 % water.')
      .max(0.6, 'At most 60 % water: that is not dry.')
      .optional(),
    mixed: z.strictObject({ starchG: weightOrNothingG.optional(), saltG: weightOrNothingG.optional() }).optional(),
    absorberCc: z
      .number({ error: 'Give the absorber’s size in cc.' })
      .int('Whole cc.')
      .min(1, 'At least 1 cc.')
      .max(10_000, 'At most 10 000 cc.')
      .optional(),
    gelG: z.number({ error: 'Give the silica gel in grams.' }).positive('Above zero.').max(1000, 'At most 1 kg.').optional(),
    wrapped: z.boolean().optional(),
  }),
  z.strictObject({ kind: z.literal('finish'), reason: text(200).optional() }),
  z.strictObject({ kind: z.literal('note'), text: text(2000) }),
  review,
  z.strictObject({ kind: z.literal('void'), target: id, reason: text(200).optional() }),
])

const ofRun = [heatBody, airBody, moveBody, tickBody, outlookBody] as const
const OF_BATCHES_TOO = ['review', 'void']

/** Whatever may stand in a log. */
export const anyBody = z.discriminatedUnion('kind', [
  ...batchEntryBody.options,
  ...ofRun,
  ...jarEntryBody.options.filter(option => !OF_BATCHES_TOO.includes(option.shape.kind.value)),
])

const envelope = { id, at: instant, replaces: id.optional() }

export const newEntry = z.strictObject({ ...envelope, body: batchEntryBody })
export type NewEntry = z.infer<typeof newEntry>

export const newRunEntry = z.strictObject({
  ...envelope,
  body: z.discriminatedUnion('kind', [...ofRun, z.strictObject({ kind: z.literal('void'), target: id, reason: text(200).optional() })]),
})
export type NewRunEntry = z.infer<typeof newRunEntry>

export const newJarEntry = z.strictObject({ ...envelope, body: jarEntryBody })
export type NewJarEntry = z.infer<typeof newJarEntry>

export const newBatch = z.strictObject({ id, entry: z.strictObject({ id, at: instant, body: intakeBody }) })
export type NewBatch = z.infer<typeof newBatch>

// The contract and the core must mean the same: this line fails to compile when they drift apart.
type Same<T extends EntryBody> = T
export type ContractBody = Same<
  | z.infer<typeof batchEntryBody>
  | z.infer<typeof jarEntryBody>
  | z.infer<typeof heatBody>
  | z.infer<typeof airBody>
  | z.infer<typeof moveBody>
  | z.infer<typeof tickBody>
  | z.infer<typeof outlookBody>
>
