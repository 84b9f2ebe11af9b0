import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id } from '../fields'

/** How a jar's powder smells: as it did, weaker, only when crushed, not at all; rancid, of old oil or paint; musty, of damp. */
const SMELLS = ['strong', 'weaker', 'crushed', 'none', 'rancid', 'musty'] as const
export type Smell = (typeof SMELLS)[number]

const schema = z.strictObject({ kind: z.literal('smell'), jarId: id, smell: z.enum(SMELLS, { error: 'Say how it smells.' }) })

/** A nose in the jar. */
export const smell: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'smelling', what: 'a smell' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: checkKnown,
    effect: (desk, { at, body }) => void desk.jars.get(body.jarId)?.smells.push({ at, smell: body.smell }),
  },
}
