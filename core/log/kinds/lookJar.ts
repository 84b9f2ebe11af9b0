import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

/** What a look into a closed or opened jar shows. */
const JAR_SIGHTS = ['loose', 'packed', 'clumps', 'moisture', 'mould', 'insects'] as const
export type JarSight = (typeof JAR_SIGHTS)[number]

const schema = z.strictObject({
  kind: z.literal('lookJar'),
  jarId: id,
  saw: z.enum(JAR_SIGHTS, { error: 'Say what was seen.' }),
  note: text(500).optional(),
})

/** A look at a jar on the shelf. */
export const lookJar: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'looking at a jar', what: 'a look at a jar' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: checkKnown,
    effect: (desk, { at, body }) => void desk.jars.get(body.jarId)?.looks.push({ at, saw: body.saw }),
  },
}
