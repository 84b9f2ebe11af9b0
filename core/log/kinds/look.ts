import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { jarNumber, text } from '../fields'
import { checkRestJar, isResting } from '../resting'

/** What a look at a jar at rest shows; packed pieces hang at the top and fall when it is knocked. */
export const LOOK_SIGHTS = ['dry', 'hung', 'clumps', 'moisture', 'mould'] as const
export type LookSight = (typeof LOOK_SIGHTS)[number]

const schema = z.strictObject({
  kind: z.literal('look'),
  saw: z.enum(LOOK_SIGHTS, { error: 'Say what was seen.' }),
  /** Which of the jars at rest, counted from 1; all of them where missing. */
  jar: jarNumber.optional(),
  note: text(500).optional(),
})

/** A look at the jars at rest. */
export const look: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'looking at the jar', what: 'a look' },
  afterMould: true,
  effect: (draft, entry) => void draft.looks.push(entry),
  check: (body, scene) => {
    if (scene.need(isResting(scene.state), 'nothing-rests', 'No jar is resting') && body.jar !== undefined) checkRestJar(body.jar, scene)
  },
}
