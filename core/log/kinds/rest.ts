import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { jarMl, text, weightG } from '../fields'

const restJar = z.strictObject({ name: text(80), sizeMl: jarMl.optional(), weightG: weightG.optional() })
/** A jar in which a part of the batch rests. */
export type RestJar = z.infer<typeof restJar>

const schema = z.strictObject({
  kind: z.literal('rest'),
  container: text(80).optional(),
  jars: z.array(restJar).min(1, 'At least one jar.').max(20, 'At most 20 jars.').optional(),
})

/** Into closed jars, so that the pieces become even. */
export const rest: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'resting', what: 'the rest' },
  effect: (draft, entry) => void draft.rests.push(entry),
  check: (_, { out, state, need }) =>
    void need(out && state.rest?.startedAt === undefined, 'not-to-rest', 'Only food that has left the machine goes to rest, once'),
}
