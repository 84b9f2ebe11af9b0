import * as z from 'zod'
import { standing } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

const schema = z.strictObject({
  kind: z.literal('contains'),
  jarId: id.optional(),
  allergens: z.array(text(40), { error: 'Name the allergens, or say that there are none.' }).max(20, 'At most 20 allergens.'),
  /** These are all of them: what was not known is answered. */
  all: z.boolean().optional(),
})

/** Allergens of a batch or a blend beside its food's own: soy in a marinade, nuts, a wash of milk. The last word counts. */
export const contains: EntryKindOf<typeof schema, 'batch' | 'jar'> = {
  schema,
  scopes: ['batch', 'jar'],
  words: { doing: 'saying what it contains', what: 'what it contains' },
  anytime: true,
  effect: (draft, { body }) => {
    draft.contains = { allergens: body.allergens, all: body.all ?? false }
  },
  check: 'none',
  jars: {
    names: body => (body.jarId === undefined ? [] : [body.jarId]),
    check: (body, { jars, say }) => {
      if (body.jarId !== undefined) standing(jars.get(body.jarId), say)
    },
    effect: (desk, { body }) => {
      const jar = body.jarId === undefined ? undefined : desk.jars.get(body.jarId)
      if (jar) jar.contains = { allergens: body.allergens, all: body.all ?? false }
    },
  },
}
