import * as z from 'zod'
import { standing } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

const schema = z.strictObject({ kind: z.literal('discard'), jarId: id, cause: text(200) })

/** What is left in a jar is thrown away, and why. */
export const discard: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'discarding a jar', what: 'what was discarded' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: (body, { jars, say }) => void standing(jars.get(body.jarId), say),
    effect: (desk, { at, body }) => {
      const jar = desk.jars.get(body.jarId)
      if (!jar) return
      desk.draw({ jarId: body.jarId, weightG: jar.leftG }, at)
      jar.discarded = { at, cause: body.cause }
    },
  },
}
