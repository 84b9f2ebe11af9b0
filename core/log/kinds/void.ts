import * as z from 'zod'
import type { EntryKindOf, LogScope } from '../define'
import { id, text } from '../fields'

const schema = z.strictObject({ kind: z.literal('void'), target: id, reason: text(200).optional() })

/** Takes an entry out of force; it stays to be seen. */
export const voided: EntryKindOf<typeof schema, LogScope> = {
  schema,
  scopes: ['batch', 'run', 'jar'],
  words: { doing: 'voiding', what: 'a voiding' },
  anytime: true,
  tells: ['machine', 'traces'],
  effect: 'none',
  check: 'none',
}
