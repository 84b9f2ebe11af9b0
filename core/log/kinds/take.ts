import * as z from 'zod'
import { checkSources } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, text, weightG } from '../fields'

const schema = z.strictObject({ kind: z.literal('take'), jarId: id, weightG, use: text(120).optional() })

/** Something leaves a jar to be eaten. */
export const take: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'taking from a jar', what: 'what was taken' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: ({ jarId, weightG: grams }, scene) => checkSources([{ jarId, weightG: grams }], undefined, scene),
    effect: (desk, { id: entryId, at, body: { jarId, weightG: wantedG } }) => {
      const { grams } = desk.draw({ jarId, weightG: wantedG }, at)
      if (grams > 0) desk.used({ jarId, entryId, at, grams })
    },
  },
}
