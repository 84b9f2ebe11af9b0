import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

const schema = z.strictObject({
  kind: z.literal('tick'),
  runId: id,
  list: z.enum(['start', 'end'], { error: 'Say which list.' }),
  item: text(40),
})

/** A line of the list that is gone through before or after a run. */
export const tick: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'going through the list', what: 'a tick' },
  evidence: true,
  tells: ['traces'],
  effect: 'none',
  check: 'none',
}
