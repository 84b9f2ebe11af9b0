import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { text } from '../fields'

const schema = z.strictObject({ kind: z.literal('note'), text: text(2000) })

/** Words in the log. */
export const note: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'noting', what: 'a note' },
  anytime: true,
  replayed: true,
  effect: 'none',
  check: 'none',
}
