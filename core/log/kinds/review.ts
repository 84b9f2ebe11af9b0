import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

const mark = (what: string) =>
  z
    .number({ error: `Give ${what} from 1 to 5.` })
    .int('Whole points.')
    .min(1, 'At least 1.')
    .max(5, 'At most 5.')

const schema = z.strictObject({
  kind: z.literal('review'),
  jarId: id.optional(),
  again: z.enum(['yes', 'changed', 'no'], { error: 'Say whether it is worth repeating.' }),
  colour: mark('the colour').optional(),
  taste: mark('the taste').optional(),
  text: text(500).optional(),
})
export type Review = z.infer<typeof schema>

/** A word for next time, on a batch or on a jar: whether it is worth repeating, how its colour and taste came out. */
export const review: EntryKindOf<typeof schema, 'batch' | 'jar'> = {
  schema,
  scopes: ['batch', 'jar'],
  words: { doing: 'a word for next time', what: 'a word for next time' },
  anytime: true,
  effect: 'none',
  check: 'none',
  jars: { names: body => (body.jarId === undefined ? [] : [body.jarId]), check: checkKnown, effect: 'none' },
}
