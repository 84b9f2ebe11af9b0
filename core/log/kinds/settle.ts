import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id } from '../fields'

const schema = z.strictObject({ kind: z.literal('settle'), jarId: id.optional(), first: id, second: id })

/** Two entries that seemed to speak against one another both stand: somebody has looked. */
export const settle: EntryKindOf<typeof schema, 'batch' | 'jar'> = {
  schema,
  scopes: ['batch', 'jar'],
  words: { doing: 'settling', what: 'that both stand' },
  anytime: true,
  afterMould: true,
  effect: 'none',
  check: 'none',
  jars: { names: body => (body.jarId === undefined ? [] : [body.jarId]), check: checkKnown, effect: 'none' },
}
