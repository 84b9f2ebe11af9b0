import * as z from 'zod'

/** Fields that many contracts share. Weights are grams, instants milliseconds since 1970 UTC. */
export const id = z.uuid({ error: 'Give a UUID.' })

export const instant = z
  .number({ error: 'Give an instant in milliseconds since 1970.' })
  .int('Give whole milliseconds.')
  .min(0, 'Give an instant after 1970.')
  .max(8.64e15, 'This instant is out of range.')

const LEAST_G = 0.001
export const weightG = z
  .number({ error: 'Give a weight in grams, as a number.' })
  .positive('The weight must be above zero.')
  .max(1_000_000, 'That is over a tonne: check the unit.')
  .refine(grams => !(grams > 0 && grams < LEAST_G), 'Under a milligram: no scale here weighs that. Check the unit.')

/** A weight that may be nothing, such as powder lost to the last grain. */
export const weightOrNothingG = z
  .number({ error: 'Give a weight in grams, as a number.' })
  .min(0, 'The weight must not be negative.')
  .max(1_000_000, 'That is over a tonne: check the unit.')

/** Something that is seen: not only signs without width, or of direction. */
const SEEN = /[\p{L}\p{N}\p{P}\p{S}]/u
/** Half of a sign that takes two: it can be neither shown nor written to a file. */
const HALF_A_SIGN = /\p{Surrogate}/u
export const text = (most: number) =>
  z
    .string({ error: 'Give some text.' })
    .trim()
    .min(1, 'Write something here.')
    .max(most, `At most ${most} characters.`)
    .refine(words => words === '' || SEEN.test(words), 'Write something that can be seen here.')
    .refine(words => !HALF_A_SIGN.test(words), 'There is half of a sign in this: write it anew.')

export const purpose = z.enum(['pieces', 'flakes', 'powder'], { error: 'Choose pieces, flakes or powder.' })

export const trayPosition = z
  .number({ error: 'Give a tray number.' })
  .int('Give a whole tray number.')
  .min(1, 'Trays count from 1.')
  .max(40, 'At most 40 trays.')
export const trayPositions = z.array(trayPosition).min(1, 'Choose at least one tray.').max(40, 'At most 40 trays.')
export const trayWeight = z.strictObject({ position: trayPosition, weightG })
export type TrayWeight = z.infer<typeof trayWeight>

/** So many grams out of a jar. */
export const jarDraw = z.strictObject({ jarId: id, weightG })
export type JarDraw = z.infer<typeof jarDraw>

export const celsius = z
  .number({ error: 'Give a temperature, as a number.' })
  .min(0, 'Below freezing nothing dries here.')
  .max(250, 'That is not drying any more: check the temperature.')
export const roomCelsius = z
  .number({ error: 'Give a room temperature, as a number.' })
  .min(-20, 'No room is as cold as that: check the temperature.')
  .max(60, 'No room is as hot as that: check the temperature.')
export const storageC = z
  .number({ error: 'Give the temperature of its place, as a number.' })
  .min(-30, 'No freezer is as cold as that: check the temperature.')
  .max(45, 'No place to keep food is as hot as that: check the temperature.')

export const share = (what: string) =>
  z
    .number({ error: `Give ${what} as a share from 0 to 1.` })
    .min(0.01, `At least 1 % of ${what}.`)
    .max(1, `At most 100 % of ${what}.`)

export const price = z
  .number({ error: 'Give the price as a number.' })
  .min(0, 'A price is not negative.')
  .max(1_000_000, 'Check the price.')
export const jarMl = z
  .number({ error: 'Give the jar’s volume in mL.' })
  .int('Whole mL.')
  .min(10, 'At least 10 mL.')
  .max(10_000, 'At most 10 L.')
export const jarNumber = z
  .number({ error: 'Say which jar, by its number.' })
  .int('Whole numbers.')
  .min(1, 'Jars count from 1.')
  .max(20, 'At most 20 jars.')
export const sieveUm = z.number({ error: 'Give the sieve’s opening in µm.' }).min(20, 'At least 20 µm.').max(10_000, 'At most 10 mm.')

/** What a jar is, and where it stands. */
export const packing = {
  packageKey: z.enum(['screw-jar', 'vacuum-jar', 'plastic-lid', 'bag', 'foil-bag', 'other'], { error: 'Choose what it is packed in.' }),
  place: text(60),
  sizeMl: jarMl.optional(),
  storageC: storageC.optional(),
  /** What the lid lets in, where measured. */
  leakGDayKPa: z
    .number({ error: 'Give what the lid lets in as a number.' })
    .positive('Above zero.')
    .max(10, 'That lid is open.')
    .optional(),
}
