import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { celsius, id } from '../fields'

const schema = z.strictObject({ kind: z.literal('heat'), runId: id, setC: celsius.nullable() })

/** What the heat is set to; null when it is off. Belongs to a run, and so to every batch in the machine. */
export const heat: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'changing the heat', what: 'the heat' },
  evidence: true,
  tells: ['machine'],
  replayed: true,
  effect: (draft, entry) => void draft.run(entry.body.runId).heats.push(entry),
  check: 'none',
}
