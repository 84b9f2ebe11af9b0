import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { text } from '../fields'

const schema = z.strictObject({ kind: z.literal('finish'), reason: text(200).optional() })

/** The batch is closed by hand. */
export const finish: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'finishing', what: 'the end of the batch' },
  afterMould: true,
  effect: draft => {
    draft.finished = true
  },
  check: (_, { state, spoiled, need }) =>
    void need(
      state.jars.length > 0 || state.stage === 'grinding' || state.mould || spoiled(),
      'nothing-to-finish',
      'There is nothing to finish yet',
    ),
}
