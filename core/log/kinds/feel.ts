import * as z from 'zod'
import { FEEL_FORMS } from '../../foods'
import type { EntryKindOf } from '../define'

const schema = z.strictObject({
  kind: z.literal('feel'),
  check: z.strictObject({
    form: z.enum(FEEL_FORMS, { error: 'Choose what lies on the tray.' }),
    answers: z
      .record(z.string().max(20), z.string().max(20))
      .refine(answers => Object.keys(answers).length > 0, 'Answer at least one question.'),
    cooled: z.boolean({ error: 'Say whether the pieces were cooled.' }),
    places: z
      .number({ error: 'Say from how many trays or places.' })
      .int('Whole places.')
      .min(1, 'At least one place.')
      .max(40, 'At most 40 places.'),
  }),
})

/** What hands say of pieces from the trays. */
export const feel: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'feeling', what: 'a feel' },
  evidence: true,
  replayed: true,
  effect: (draft, entry) => void draft.feels.push(entry),
  check: (_, { inMachine, need }) => void need(inMachine, 'not-in-a-machine', 'The batch is not in a machine'),
}
