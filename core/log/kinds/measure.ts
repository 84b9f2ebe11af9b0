import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, weightG } from '../fields'

const schema = z.strictObject({
  kind: z.literal('measure'),
  jarId: id,
  ml: z.number({ error: 'Give the volume in mL.' }).positive('Above zero.').max(2000, 'At most 2 L.'),
  weightG,
})

/** The powder weighed by the level spoon or cup. */
export const measure: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'weighing a spoon', what: 'a weighed spoon' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: checkKnown,
    effect: (desk, { body }) => {
      const jar = desk.jars.get(body.jarId)
      if (jar) jar.densityGMl = body.weightG / body.ml
    },
  },
}
