import * as z from 'zod'
import { checkStanding, isOilOver, OIL_OVER, standing } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, storageC, text } from '../fields'

const schema = z.strictObject({ kind: z.literal('moveJar'), jarId: id, place: text(60), storageC: storageC.optional() })

/** A jar goes to another place, which may be warmer or colder. */
export const moveJar: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'moving a jar', what: 'where a jar stands' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: (body, scene) => {
      const { jars, say } = scene
      const jar = jars.get(body.jarId)
      if (!standing(jar, say)) return
      if (isOilOver(jar!, scene)) return say('jarId', 'oil-over', OIL_OVER)
      // A place without its warmth is no refrigerator.
      checkStanding({ ...jar!, storageC: body.storageC ?? (jar!.inOil ? undefined : jar!.storageC) }, scene)
    },
    effect: (desk, { at, body }) => {
      const jar = desk.jars.get(body.jarId)
      if (!jar) return
      if (body.storageC !== undefined && body.storageC !== jar.storageC) {
        jar.parts = jar.parts.map(part => desk.age(part, jar, at))
        jar.storageC = body.storageC
      }
      jar.place = body.place
    },
  },
}
