import * as z from 'zod'
import { refuse } from '../../errors'
import { checkAddition, checkSources, checkStanding } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, jarDraw } from '../fields'

const schema = z.strictObject({ kind: z.literal('pour'), jarId: id, from: jarDraw })

/** Poured onto what is in a jar. */
export const pour: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'pouring', what: 'a pouring' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId, body.from.jarId],
    check: (body, scene) => {
      const { jars, say } = scene
      const jar = jars.get(body.jarId)
      const from = jars.get(body.from.jarId)
      if (!jar) return say('jarId', 'unknown-jar', 'There is no such jar.')
      if (body.from.jarId === body.jarId) return say('from.jarId', 'into-itself', 'A jar is not poured into itself.')
      checkSources([body.from], 'from', scene)
      if (!from) return
      checkAddition(jar, from, scene.find, say)
      checkStanding({ ...jar, parts: from.parts }, scene)
    },
    effect: (desk, { at, body }) => {
      const jar = desk.jars.get(body.jarId)
      if (jar) desk.add(jar, desk.draw(body.from, at), at)
      else if (desk.strict) refuse('jarId', 'rested-on', 'Something was poured into this jar: void that first.')
    },
  },
}
