import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

/** What a picture shows. */
export const PICTURE_SUBJECTS = ['food', 'pieces', 'powder', 'jar', 'other'] as const
export type PictureSubject = (typeof PICTURE_SUBJECTS)[number]

/** A picture's name is what is in it: SHA-256 of its bytes. */
export const pictureName = z
  .string({ error: 'Give the picture’s name.' })
  .regex(/^[0-9a-f]{64}$/, 'A picture is named by the 64 signs of its SHA-256.')

const axis = z
  .number({ error: 'Give the colour as a number.' })
  .min(-160, 'No colour lies so far out.')
  .max(160, 'No colour lies so far out.')
const lab = z.strictObject({
  l: z
    .number({ error: 'Give the lightness as a number.' })
    .min(0, 'Lightness goes from 0 to 100.')
    .max(100, 'Lightness goes from 0 to 100.'),
  a: axis,
  b: axis,
})

const schema = z.strictObject({
  kind: z.literal('picture'),
  jarId: id.optional(),
  picture: pictureName,
  shows: z.enum(PICTURE_SUBJECTS, { error: 'Say what the picture shows.' }),
  /** The entry that it was taken with. */
  about: id.optional(),
  text: text(200).optional(),
  /** CIELAB of the food by a white card beside it. */
  colour: lab.optional(),
})
export type Picture = z.infer<typeof schema>

/** A photograph, on a batch or on a jar; its bytes lie beside the logbook under their name. */
export const picture: EntryKindOf<typeof schema, 'batch' | 'jar'> = {
  schema,
  scopes: ['batch', 'jar'],
  words: { doing: 'a picture', what: 'a picture' },
  anytime: true,
  afterMould: true,
  effect: 'none',
  check: 'none',
  jars: { names: body => (body.jarId === undefined ? [] : [body.jarId]), check: checkKnown, effect: 'none' },
}
