import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { jarNumber, text, weightG } from '../fields'
import { checkRestJar, isResting } from '../resting'

const schema = z.strictObject({ kind: z.literal('restOut'), jar: jarNumber, weightG, cause: text(200) })

/** One of the jars at rest is thrown away. */
export const restOut: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'throwing a jar away', what: 'a jar thrown away' },
  afterMould: true,
  effect: (draft, entry) => void draft.restOuts.push(entry),
  check: (body, scene) => {
    const { state, say } = scene
    if (!scene.need(isResting(state), 'nothing-rests', 'No jar is resting')) return
    checkRestJar(body.jar, scene)
    if (state.dryG !== undefined && body.weightG > state.dryG)
      say('weightG', 'more-than-rests', 'Only {restsG} is at rest in all its jars.', { restsG: state.dryG })
  },
}
